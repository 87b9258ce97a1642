import { createHash, randomBytes } from 'node:crypto';
import type { Knex } from 'knex';
import { type AudienceId, EVERYONE } from '#core/model/audience.ts';
import type { SiteKey } from '#core/model/ids.ts';
import type { Look, Screen } from '#core/model/look.ts';

/** What a walk shows: a site as a visitor has it, in the draft or live, now or at another moment. */
export interface Walk {
  readonly site: SiteKey;
  readonly isDraft: boolean;
  /** The release after which the site is seen; null for what is live now. */
  readonly release: number | null;
  /** Who is walked as, in words, and the audiences that they are put into. */
  readonly who: string;
  readonly audiences: readonly AudienceId[];
  /** Whether they have given every passphrase. */
  readonly hasPassphrases: boolean;
  /** In milliseconds since 1970; null for now. */
  readonly at: number | null;
  /** The look that the pages have, where it is not that of the site; and the screens that they are shown on, where it is told. */
  readonly look: Look | null;
  readonly screen: Screen | null;
  /** The origin of the workbench, whose pages alone may show the walk in a frame. */
  readonly origin: string;
}

/** A walk, and whether it is in the place of somebody who is signed in: a visitor can be in no audience. */
export type BegunWalk = Walk & { readonly isSignedIn: boolean };

interface NewWalk {
  readonly walk: Walk;
  /** The session of whoever starts it, with which it ends. */
  readonly session: string;
  /** The account of a visitor in whose place it is, or null. It ends where that is suspended. */
  readonly visitor: string | null;
  readonly expiresAt: Date;
}

const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex');

/** Keeps a walk, and gives the token that leads to it. Walks that have run out are dropped. */
export async function insertWalk(database: Knex, { walk, session, visitor, expiresAt }: NewWalk, now: Date) {
  const token = randomBytes(18).toString('base64url');
  const row = { token_hash: hashOf(token), site: walk.site, session, visitor, walk, expires_at: expiresAt };
  await database('walk').where('expires_at', '<', now).delete();
  await database('walk').insert(row);
  return token;
}

/** The walk of a token, with the visitor's audiences of now; null where there is none on the site, or it has ended. */
export async function walkOf(database: Knex, site: string, token: string, now: Date): Promise<BegunWalk | null> {
  const row = await database('walk')
    .join('session', 'session.sid', 'walk.session')
    .leftJoin('visitor', 'visitor.id', 'walk.visitor')
    .where({ 'walk.token_hash': hashOf(token), 'walk.site': site })
    .andWhere('walk.expires_at', '>', now)
    .andWhereRaw('session.expire >= now()')
    .first('walk', 'visitor.id as visitor', 'visitor.name', 'visitor.audiences', 'visitor.is_suspended');
  if (!row || row.is_suspended) return null;
  const { walk, visitor, name, audiences } = row;
  if (visitor !== null) return { ...walk, who: name, audiences, isSignedIn: true };
  return { ...walk, isSignedIn: walk.audiences.some((id: AudienceId) => id !== EVERYONE) };
}
