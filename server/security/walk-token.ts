import { createHmac, timingSafeEqual } from 'node:crypto';
import { z } from 'zod';
import { audienceIdSchema } from '#core/model/audience.ts';
import { siteKeySchema } from '#core/model/ids.ts';

/** What a walk shows: a site as a visitor has it, in the draft or live, now or at another moment. */
const walkSchema = z.strictObject({
  site: siteKeySchema,
  isDraft: z.boolean(),
  /** The release after which the site is seen; null for what is live now. */
  release: z.number().nullable(),
  /** Who is walked as, in words, and the audiences that they are put into. */
  who: z.string().max(200),
  audiences: z.array(audienceIdSchema).max(32),
  /** Whether they have given every passphrase. */
  hasPassphrases: z.boolean(),
  /** In milliseconds since 1970; null for now. */
  at: z.number().nullable(),
  /** The origin of the workbench, whose pages alone may show the walk in a frame. */
  origin: z.url().max(300),
  /** In milliseconds since 1970. */
  expires: z.number(),
});
export type Walk = z.infer<typeof walkSchema>;

const signatureOf = (secret: string, text: string): Buffer =>
  createHmac('sha256', secret).update(`walk ${text}`).digest();

/** The walk as a token that only this installation can make. */
export function signWalk(secret: string, walk: Walk): string {
  const text = Buffer.from(JSON.stringify(walk)).toString('base64url');
  return `${text}.${signatureOf(secret, text).toString('base64url')}`;
}

/** The walk of a token; null where it was not made here, was changed, or has run out. */
export function readWalk(secret: string, token: string, now: number): Walk | null {
  const [text = '', signature = ''] = token.split('.');
  const wanted = signatureOf(secret, text);
  const given = Buffer.from(signature, 'base64url');
  if (given.length !== wanted.length || !timingSafeEqual(given, wanted)) return null;
  try {
    const walk = walkSchema.parse(JSON.parse(Buffer.from(text, 'base64url').toString()));
    return walk.expires > now ? walk : null;
  } catch {
    return null;
  }
}
