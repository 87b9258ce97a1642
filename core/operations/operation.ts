import { z } from 'zod';
import { audienceAddSchema, audienceRemoveSchema, audienceSetSchema } from './audiences.ts';
import { fieldAddSchema, fieldMoveSchema, fieldRemoveSchema, fieldSetSchema } from './fields.ts';
import { practiceSetSchema } from './practice-set.ts';
import { goalAddSchema, goalRemoveSchema, goalSetSchema } from './goals.ts';
import { entryAddSchema, entryMoveSchema, entryRemoveSchema, entrySetSchema } from './entries.ts';
import { labelAddSchema, labelRemoveSchema, labelSetSchema } from './labels.ts';
import { factAddSchema, factRemoveSchema, factSetSchema } from './facts.ts';
import { layoutAddSchema, layoutRemoveSchema, layoutSetSchema } from './layouts.ts';
import { menuAddSchema, menuRemoveSchema, menuSetSchema } from './menus.ts';
import { oldPageDecideSchema } from './old-page-decide.ts';
import { pageAddSchema } from './page-add.ts';
import { pageCopySchema } from './page-copy.ts';
import { pageEraseSchema, pageRecallSchema } from './page-erase.ts';
import { pageMoveSchema } from './page-move.ts';
import { pagePutBackSchema } from './page-put-back.ts';
import { pageRemoveSchema } from './page-remove.ts';
import { pageSetSchema } from './page-set.ts';
import { releaseMakeSchema } from './release-make.ts';
import { releaseTakeBackSchema } from './release-take-back.ts';
import { redirectAddSchema, redirectRemoveSchema, redirectSetSchema } from './redirects.ts';
import { formAddSchema, formRemoveSchema, formSetSchema } from './forms.ts';
import { sharedAddSchema, sharedRemoveSchema, sharedSetSchema } from './shared.ts';
import { siteSetSchema } from './site-set.ts';
import { boardAddSchema, boardRemoveSchema, boardSetSchema, piecePutSchema, pieceRemoveSchema } from './boards.ts';
import { boxPutSchema, boxRemoveSchema } from './boxes.ts';
import { sketchAddSchema, sketchRemoveSchema, sketchSetSchema } from './sketches.ts';
import { variantAddSchema, variantRemoveSchema, variantSetSchema } from './variants.ts';

const EDITS = [
  pageAddSchema,
  pageMoveSchema,
  pageSetSchema,
  pageRemoveSchema,
  pageCopySchema,
  pagePutBackSchema,
  pageEraseSchema,
  siteSetSchema,
  audienceAddSchema,
  audienceSetSchema,
  audienceRemoveSchema,
  labelAddSchema,
  labelSetSchema,
  labelRemoveSchema,
  fieldAddSchema,
  fieldSetSchema,
  fieldMoveSchema,
  fieldRemoveSchema,
  menuAddSchema,
  menuSetSchema,
  menuRemoveSchema,
  entryAddSchema,
  entrySetSchema,
  entryMoveSchema,
  entryRemoveSchema,
  layoutAddSchema,
  layoutSetSchema,
  layoutRemoveSchema,
  factAddSchema,
  factSetSchema,
  factRemoveSchema,
  sharedAddSchema,
  sharedSetSchema,
  sharedRemoveSchema,
  formAddSchema,
  formSetSchema,
  formRemoveSchema,
  redirectAddSchema,
  redirectSetSchema,
  redirectRemoveSchema,
  practiceSetSchema,
  goalAddSchema,
  goalSetSchema,
  goalRemoveSchema,
  sketchAddSchema,
  sketchSetSchema,
  sketchRemoveSchema,
  variantAddSchema,
  variantSetSchema,
  variantRemoveSchema,
  boxPutSchema,
  boxRemoveSchema,
  boardAddSchema,
  boardSetSchema,
  boardRemoveSchema,
  piecePutSchema,
  pieceRemoveSchema,
  oldPageDecideSchema,
] as const;

/** The operations that edit a draft: those that a request may carry. Releases have their own door, and inverses too. */
export const editSchema = z.discriminatedUnion('name', EDITS);
/** The edits and their ways back, which a request may not carry. */
export const wayBackSchema = z.discriminatedUnion('name', [...EDITS, pageRecallSchema]);
export const operationSchema = z.discriminatedUnion('name', [
  ...EDITS,
  pageRecallSchema,
  releaseMakeSchema,
  releaseTakeBackSchema,
]);

export type Operation = z.infer<typeof operationSchema>;
export type OperationName = Operation['name'];
