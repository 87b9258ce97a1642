import { z } from 'zod';
import { type PageId, pageIdSchema } from './ids.ts';

export const audienceIdSchema = z
  .string()
  .regex(/^[0-9A-Za-z]{1,24}$/, 'an audience id is 1 to 24 letters and digits')
  .brand<'AudienceId'>();
export type AudienceId = z.infer<typeof audienceIdSchema>;

/** The audience that every visitor belongs to. It is built in. */
export const EVERYONE = 'everyone' as AudienceId;

/** The visitors who are not signed in. It is built in; rules can be for these alone. */
export const SIGNED_OUT = 'signedOut' as AudienceId;

/** How they are named among audiences. */
export const SIGNED_OUT_NAME = 'visitors who are not signed in';

/** Whether an audience is built in: the site's list does not have it. */
export const isBuiltIn = (id: string): boolean => id === EVERYONE || id === SIGNED_OUT;

/** A named set of visitors. Whoever belongs to an audience that it includes belongs to it too. */
export interface Audience {
  readonly id: AudienceId;
  readonly name: string;
  readonly includes: readonly AudienceId[];
  /** Where its visitors go on to after signing in, if they did not ask for a page; the home page where it is left out. */
  readonly landing?: PageId;
}

export const MAX_AUDIENCE_NAME_LENGTH = 60;
/** With `everyone` there is a bit of a 32-bit number for each. */
export const MAX_AUDIENCES = 30;

export const audienceSchema = z.strictObject({
  id: audienceIdSchema,
  name: z.string().min(1).max(MAX_AUDIENCE_NAME_LENGTH),
  includes: z.array(audienceIdSchema).max(MAX_AUDIENCES),
  landing: pageIdSchema.optional(),
});

/**
 * The audiences that a visitor belongs to who was put into `own`: these, all that include one of them, and `everyone`. Whoever is put into
 * `everyone` itself is not signed in. Ids that the site does not know count for nothing.
 */
export function closureOf(audiences: readonly Audience[], own: Iterable<AudienceId>): ReadonlySet<AudienceId> {
  const known = new Set(audiences.map(({ id }) => id));
  const put = [...own];
  const closure = new Set<AudienceId>(put.includes(EVERYONE) ? [EVERYONE, SIGNED_OUT] : [EVERYONE]);
  const waiting = put.filter((id) => known.has(id));
  while (waiting.length > 0) {
    const id = waiting.pop()!;
    if (closure.has(id)) continue;
    closure.add(id);
    for (const one of audiences) if (one.includes.includes(id)) waiting.push(one.id);
  }
  return closure;
}

/** Whether an audience includes itself, by way of others or at once. */
export function includesItself(audiences: readonly Audience[], id: AudienceId): boolean {
  const seen = new Set<AudienceId>();
  const waiting = [...(audiences.find((one) => one.id === id)?.includes ?? [])];
  while (waiting.length > 0) {
    const next = waiting.pop()!;
    if (next === id) return true;
    if (seen.has(next)) continue;
    seen.add(next);
    waiting.push(...(audiences.find((one) => one.id === next)?.includes ?? []));
  }
  return false;
}
