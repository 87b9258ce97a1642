import { z } from 'zod';
import { pageIdSchema } from '#core/model/ids.ts';
import { MAX_OPERATIONS, requestId } from './api.ts';

const shape = {
  find: z.string().min(1, 'Type what is to be found.').max(200),
  by: z.string().max(200),
  isWhole: z.boolean(),
  isExact: z.boolean(),
};

export const findWordsBody = z.strictObject(shape);
export const replaceWordsBody = z.strictObject({
  ...shape,
  /** The pages in whose texts it is done. */
  pages: z.array(pageIdSchema).min(1).max(MAX_OPERATIONS),
  request: requestId,
});

/** The places in a page's text, the first ones of them in words. */
const foundOnPage = z.object({
  page: pageIdSchema,
  count: z.number().int(),
  places: z.array(z.object({ before: z.string(), found: z.string(), after: z.string() })),
});
export const foundWordsAnswer = z.object({ pages: z.array(foundOnPage) });
export type FoundOnPage = Readonly<z.infer<typeof foundOnPage>>;
export const replacedAnswer = z.object({ pages: z.number().int(), places: z.number().int() });
