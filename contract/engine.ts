import { z } from 'zod';
import { pageIdSchema } from '#core/model/ids.ts';
import { lookAnswerOf } from './looks.ts';

/** What a search engine would index of the live site, next to what is intended. */
export const engineReport = z.object({
  readAt: z.iso.datetime(),
  /** How many addresses the robot read; not `isWhole` where it stopped before the end. */
  addresses: z.number(),
  isWhole: z.boolean(),
  indexed: z.number(),
  intended: z.number(),
  /** How many findings there are; at most 500 are told. */
  count: z.number(),
  findings: z.array(
    z.object({
      address: z.string(),
      page: pageIdSchema.nullable(),
      difference: z.enum([
        'missed',
        'uninvited',
        'not in the sitemap file',
        'in the sitemap by mistake',
        'broken link',
      ]),
      because: z.string(),
    }),
  ),
});
export type EngineReport = z.infer<typeof engineReport>;

export const engineAnswer = lookAnswerOf(engineReport);
export type EngineAnswer = z.infer<typeof engineAnswer>;
