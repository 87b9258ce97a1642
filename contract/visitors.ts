import { z } from 'zod';
import { passphraseIdSchema } from '#core/model/access.ts';
import { MAX_AUDIENCES, audienceIdSchema } from '#core/model/audience.ts';

export const MIN_PASSPHRASE_LENGTH = 6;

const moment = z.iso.datetime();
const name = z.string().trim().min(1, 'Type a name.').max(100);
const email = z.email('Type a mail address, such as you@school.example.').max(200);
const audiences = z.array(audienceIdSchema).max(MAX_AUDIENCES);

/** The account of a visitor of a site; it opens nothing in the workbench. */
export const visitorAnswer = z.object({
  id: z.uuid(),
  name: z.string(),
  email: z.string(),
  audiences: z.array(audienceIdSchema),
  /** The audiences that they wait to be let into. */
  askedFor: z.array(audienceIdSchema),
  isSuspended: z.boolean(),
  isFromDirectory: z.boolean(),
  lastSignInAt: moment.nullable(),
});
export type VisitorAnswer = z.infer<typeof visitorAnswer>;
export const visitorsAnswer = z.object({ visitors: z.array(visitorAnswer) });

/** Blanks around it do not count. Like this it is short enough to say, and long enough not to be guessed in the tries that there are. */
export const makePassphraseBody = z.strictObject({
  words: z
    .string()
    .transform((words) => words.normalize('NFC').trim())
    .pipe(z.string().min(MIN_PASSPHRASE_LENGTH, `Use at least ${MIN_PASSPHRASE_LENGTH} characters.`).max(200)),
});
export const makePassphraseAnswer = z.object({ id: passphraseIdSchema });

export const makeVisitorBody = z.strictObject({
  name,
  email,
  password: z.string().min(10, 'Use at least 10 characters.').max(200),
  audiences: audiences.default([]),
});
/** What is left out stays as it is. */
export const setVisitorBody = z
  .strictObject({ name, audiences, askedFor: audiences, isSuspended: z.boolean() })
  .partial();

export const MAX_BROUGHT_VISITORS = 5000;
/** A list of visitors as CSV (`docs/formats/`). Without `apply` nothing is changed, and the answer says what would be. */
export const bringVisitorsBody = z.strictObject({ text: z.string().max(1_500_000), apply: z.boolean() });
const listed = z.array(z.object({ name: z.string(), email: z.string() }));
/** Who gets an account and a letter to choose a password; who has one and joins more audiences; what was not understood. */
export const bringVisitorsAnswer = z.object({
  made: listed,
  changed: listed,
  faults: z.array(z.object({ line: z.number().nullable(), detail: z.string() })),
});
export type BringVisitorsAnswer = z.infer<typeof bringVisitorsAnswer>;

/** A link by which visitors join an audience. */
export const joiningLinkAnswer = z.object({
  id: z.uuid(),
  audience: audienceIdSchema,
  address: z.url(),
  needsApproval: z.boolean(),
  expiresAt: moment,
  /** Null where any number may join by it. */
  mostUses: z.number().nullable(),
  uses: z.number(),
  madeBy: z.string(),
});
export type JoiningLinkAnswer = z.infer<typeof joiningLinkAnswer>;
export const joiningLinksAnswer = z.object({ links: z.array(joiningLinkAnswer) });
export const joiningLinkBody = z.strictObject({
  audience: audienceIdSchema,
  needsApproval: z.boolean(),
  days: z.number().int().min(1, 'At least a day.').max(365, 'At most a year.'),
  mostUses: z.number().int().min(1, 'At least once.').max(100_000).nullable(),
});
