import { z } from 'zod';
import { pageAddSchema } from './page-add.ts';
import { pageCopySchema } from './page-copy.ts';
import { pageEraseSchema, pageRecallSchema } from './page-erase.ts';
import { pageMoveSchema } from './page-move.ts';
import { pagePutBackSchema } from './page-put-back.ts';
import { pageRemoveSchema } from './page-remove.ts';
import { pageSetSchema } from './page-set.ts';
import { releaseMakeSchema } from './release-make.ts';
import { releaseTakeBackSchema } from './release-take-back.ts';
import { siteSetSchema } from './site-set.ts';

const EDITS = [
  pageAddSchema,
  pageMoveSchema,
  pageSetSchema,
  pageRemoveSchema,
  pageCopySchema,
  pagePutBackSchema,
  pageEraseSchema,
  pageRecallSchema,
  siteSetSchema,
] as const;

/** The operations that edit a draft: those that a request may carry. Releases have their own door. */
export const editSchema = z.discriminatedUnion('name', EDITS);
export const operationSchema = z.discriminatedUnion('name', [...EDITS, releaseMakeSchema, releaseTakeBackSchema]);

export type Operation = z.infer<typeof operationSchema>;
export type OperationName = Operation['name'];
