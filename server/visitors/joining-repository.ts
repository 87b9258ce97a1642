import type { Knex } from 'knex';
import type { AudienceId } from '#core/model/audience.ts';
import type { SiteKey } from '#core/model/ids.ts';

/** A link by which visitors join an audience. */
export interface JoiningLink {
  readonly id: string;
  readonly site: SiteKey;
  readonly audience: AudienceId;
  readonly token: string;
  readonly needs_approval: boolean;
  readonly expires_at: Date;
  /** Null where any number may join by it. */
  readonly most_uses: number | null;
  readonly uses: number;
  readonly made_by: string;
  readonly made_at: Date;
}

/** A letter whose link proves that its reader has the mail address. Without a joining link it is for a new password. */
export interface Letter {
  readonly token_hash: string;
  readonly site: SiteKey;
  readonly email: string;
  readonly link: string | null;
  /** The address of the site that was asked for first. */
  readonly way_on: string;
  readonly expires_at: Date;
}

/** The joining links of a site, the newest first. */
export const joiningLinksOf = (database: Knex, site: SiteKey): Promise<JoiningLink[]> =>
  database<JoiningLink>('joining_link').where({ site }).orderBy('made_at', 'desc') as unknown as Promise<JoiningLink[]>;

export const insertJoiningLink = async (database: Knex, link: JoiningLink): Promise<void> => {
  await database('joining_link').insert(link);
};

/** Gives whether there was one. */
export const deleteJoiningLink = async (database: Knex, site: SiteKey, id: string): Promise<boolean> =>
  (await database('joining_link').where({ site, id }).delete()) > 0;

/** The link that somebody may join by now. */
export const usableLink = (
  database: Knex,
  by: { readonly site: SiteKey; readonly token: string } | { readonly id: string },
  at: Date,
): Promise<JoiningLink | undefined> =>
  database<JoiningLink>('joining_link')
    .where(by)
    .where('expires_at', '>', at)
    .whereRaw('(most_uses IS NULL OR uses < most_uses)')
    .first();

/** Counts one more who joins, unless the link has run out: then undefined. */
export const useLink = async (database: Knex, id: string, at: Date): Promise<JoiningLink | undefined> => {
  const [used] = await database<JoiningLink>('joining_link')
    .where({ id })
    .where('expires_at', '>', at)
    .whereRaw('(most_uses IS NULL OR uses < most_uses)')
    .update({ uses: database.raw('uses + 1') })
    .returning('*');
  return used as JoiningLink | undefined;
};

/** Keeps a letter in place of those like it that went to the same address before. */
export async function putLetter(database: Knex, letter: Letter): Promise<void> {
  const { site, email, link } = letter;
  await database('visitor_letter').where({ site, link }).whereRaw('lower(email) = lower(?)', [email]).delete();
  await database('visitor_letter').insert(letter);
}

export const letterBy = (database: Knex, site: SiteKey, tokenHash: string, at: Date): Promise<Letter | undefined> =>
  database<Letter>('visitor_letter').where({ site, token_hash: tokenHash }).where('expires_at', '>', at).first();

/** Takes a letter out: it can be used once. */
export const takeLetter = async (
  database: Knex,
  site: SiteKey,
  tokenHash: string,
  at: Date,
): Promise<Letter | undefined> => {
  const [taken] = await database<Letter>('visitor_letter')
    .where({ site, token_hash: tokenHash })
    .where('expires_at', '>', at)
    .delete()
    .returning('*');
  return taken as Letter | undefined;
};
