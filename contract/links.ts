import { z } from 'zod';
import { pageIdSchema } from '#core/model/ids.ts';
import { TEXT_FAULTS } from '#core/sections/text-faults.ts';
import { lookAnswerOf } from './looks.ts';

/** A link within a text to a page of the site, or to a heading of its text. */
const textLink = z.object({
  page: pageIdSchema,
  to: pageIdSchema,
  /** The anchor of the heading, or null. */
  heading: z.string().nullable(),
  hasHeading: z.boolean(),
});
const textFault = z.object({ page: pageIdSchema, fault: z.enum(TEXT_FAULTS) });
/** The links within texts, drafted and live, those of the draft to outside addresses, and what else is found in texts. */
export const textLinksAnswer = z.object({
  draftFaults: z.array(textFault),
  liveFaults: z.array(textFault),
  draft: z.array(textLink),
  live: z.array(textLink),
  outside: z.array(z.object({ page: pageIdSchema, address: z.string() })),
  /** The pages whose drafted texts show forms and shared sections that visitors do not have yet. */
  needs: z.object({ forms: z.array(pageIdSchema), shared: z.array(pageIdSchema) }).partial(),
});

/** What outside addresses answered when they were asked last. */
export const linkReport = z.object({
  readAt: z.iso.datetime(),
  /** How many addresses were asked; not `isWhole` where there are more than are asked. */
  addresses: z.number(),
  isWhole: z.boolean(),
  faults: z.array(
    z.object({ address: z.string(), fault: z.enum(['missing', 'no answer', 'moved']), says: z.string() }),
  ),
  /** Addresses that were not asked, and why: `robots.txt` asks not to, or they are not in the public net. */
  notAsked: z.array(z.object({ address: z.string(), says: z.string() })),
});
export type LinkReport = z.infer<typeof linkReport>;
export const linkLookAnswer = lookAnswerOf(linkReport);
