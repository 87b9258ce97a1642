import { z } from 'zod';
import { pageIdSchema } from '#core/model/ids.ts';

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
      difference: z.enum(['missed', 'uninvited', 'not in the sitemap file', 'named in vain', 'broken link']),
      because: z.string(),
    }),
  ),
});
export type EngineReport = z.infer<typeof engineReport>;

/** How the latest look at the live site stands; while another one is under way the report is that of the one before. */
export const engineAnswer = z.object({
  state: z.enum(['none', 'running', 'stopped', 'failed', 'done']),
  addressesRead: z.number(),
  /** How many addresses it knows of so far. */
  addressesKnown: z.number(),
  report: engineReport.nullable(),
});
export type EngineAnswer = z.infer<typeof engineAnswer>;
