import { z } from 'zod';
import { audienceIdSchema } from '#core/model/audience.ts';
import { SCREENS, lookSchema } from '#core/model/look.ts';

/** A walk: the site as somebody else has it. */
export const walkBody = z.strictObject({
  isDraft: z.boolean(),
  /** The release after which the site is seen; null for what is live now. */
  release: z.number().int().min(1).nullable().default(null),
  /** An account of the site's visitors, or audiences to be in; `everyone` alone for nobody who is signed in. */
  who: z.union([
    z.strictObject({ visitor: z.uuid() }),
    z.strictObject({ audiences: z.array(audienceIdSchema).max(32) }),
  ]),
  /** Whether every passphrase counts as given. */
  hasPassphrases: z.boolean().default(false),
  /** Null for now. */
  at: z.iso.datetime().nullable(),
  /** The look that the pages have; null for that of the site. */
  look: lookSchema.nullable().default(null),
  /** On which screens they are shown; null for that of whoever looks. */
  screen: z.enum(SCREENS).nullable().default(null),
});
/** Where the walk begins; it ends after some hours. */
export const walkAnswer = z.object({ address: z.string(), who: z.string(), expiresAt: z.iso.datetime() });
