import { createHash, randomBytes, randomUUID } from 'node:crypto';
import type { AudienceId } from '#core/model/audience.ts';
import type { SiteKey } from '#core/model/ids.ts';
import { type SiteWords, siteWords } from '../live/site-words.ts';
import type { Database } from '../database/connect.ts';
import type { Mailer } from '../mail/mailer.ts';
import { hashOfPassword } from '../security/passwords.ts';
import { type JoiningLink, letterBy, putLetter, takeLetter, usableLink, useLink } from './joining-repository.ts';
import { insertVisitor, setPasswordOf, updateVisitor, visitorByEmail } from './visitor-repository.ts';

const LETTER_LIVES_MS = 24 * 3600 * 1000;

/** Which site a letter is about, and where its pages are. */
export interface LetterSite {
  readonly key: SiteKey;
  readonly name: string;
  /** What its letters are written in, where Spur has the words for it. */
  readonly language: string;
  /** The address of the site, without a slash at the end. */
  readonly address: string;
}

/** What a letter's link offers: to join an audience, or to choose a new password. */
export interface OpenLetter {
  readonly email: string;
  /** The audience to join; null where it is about a password. */
  readonly audience: AudienceId | null;
  /** Whether the reader has an account already. */
  readonly isKnown: boolean;
}

export type Finished =
  | { readonly outcome: 'ended' }
  /** The account waits for somebody to let it into the audience. */
  | { readonly outcome: 'waits' | 'done'; readonly email: string; readonly wayOn: string };

/**
 * Joining by a link, and new passwords. Both go by a letter to the mail address, so that nobody joins as somebody else
 * and nobody learns by the site who has an account: what the site says is the same either way, and the letter differs.
 */
export class Letters {
  readonly #database: Database;
  readonly #mailer: Mailer;
  readonly #now: () => Date;

  constructor(database: Database, mailer: Mailer, now: () => Date) {
    this.#database = database;
    this.#mailer = mailer;
    this.#now = now;
  }

  link(site: SiteKey, token: string): Promise<JoiningLink | undefined> {
    return usableLink(this.#database, { site, token }, this.#now());
  }

  /** Writes to somebody who wants to join by a link. */
  askToJoin(site: LetterSite, link: JoiningLink, audience: string, email: string, wayOn: string): Promise<void> {
    return this.#write(site, email, { letter: 'join', link: link.id, wayOn, audience });
  }

  /**
   * Writes to somebody who has forgotten the password; to an address without an account, that it has none. Either way the
   * same is done, so that how long it takes tells nothing: a letter that nobody can open is kept for an address without one.
   */
  async askForPassword(site: LetterSite, email: string): Promise<void> {
    const visitor = await visitorByEmail(this.#database, site.key, email);
    const isKnown = visitor !== undefined && !visitor.is_suspended;
    return this.#write(site, visitor?.email ?? email, { letter: isKnown ? 'password' : 'noAccount' });
  }

  /** Writes to somebody for whom an account was made, so that they choose a password. */
  welcome(database: Database, site: LetterSite, email: string): Promise<void> {
    return this.#write(site, email, { letter: 'welcome' }, database);
  }

  async open(site: SiteKey, token: string): Promise<OpenLetter | null> {
    const at = this.#now();
    const letter = await letterBy(this.#database, site, hashOf(token), at);
    if (!letter) return null;
    const visitor = await visitorByEmail(this.#database, site, letter.email);
    if (letter.link === null) return visitor ? { email: letter.email, audience: null, isKnown: true } : null;
    const link = await usableLink(this.#database, { id: letter.link }, at);
    return link ? { email: letter.email, audience: link.audience, isKnown: visitor !== undefined } : null;
  }

  /** Does what the letter is for, once. Who is new gets an account with this name and password. */
  async finish(site: SiteKey, token: string, given: { name: string; password: string }): Promise<Finished> {
    const at = this.#now();
    const password_hash = given.password === '' ? null : await hashOfPassword(given.password);
    return this.#database.transaction(async (trx): Promise<Finished> => {
      const letter = await takeLetter(trx, site, hashOf(token), at);
      if (!letter) return { outcome: 'ended' };
      const { email, way_on: wayOn } = letter;
      const visitor = await visitorByEmail(trx, site, email);
      if (letter.link === null) {
        if (!visitor || password_hash === null) return { outcome: 'ended' };
        await setPasswordOf(trx, visitor.id, password_hash);
        return { outcome: 'done', email, wayOn };
      }
      const link = await useLink(trx, letter.link, at);
      if (!link) return { outcome: 'ended' };
      const to = link.needs_approval ? 'asked_for' : 'audiences';
      if (!visitor) {
        if (password_hash === null) throw new Error('A new account needs a password.');
        const made = { id: randomUUID(), site, name: given.name, email, password_hash, audiences: [], asked_for: [] };
        await insertVisitor(trx, { ...made, is_suspended: false, made_at: at });
      }
      // Another letter may have made the account in the same moment: it is asked for again.
      const { id, audiences, asked_for } = visitor ?? (await visitorByEmail(trx, site, email))!;
      if (!audiences.includes(link.audience)) {
        const before = to === 'audiences' ? audiences : asked_for;
        await updateVisitor(trx, site, id, { [to]: [...new Set([...before, link.audience])] });
      }
      return { outcome: link.needs_approval ? 'waits' : 'done', email, wayOn };
    });
  }

  async #write(
    site: LetterSite,
    email: string,
    {
      letter,
      link = null,
      wayOn = '/',
      audience = '',
    }: {
      readonly letter: keyof SiteWords['letters'];
      readonly link?: string | null;
      readonly wayOn?: string;
      readonly audience?: string;
    },
    within: Database = this.#database,
  ): Promise<void> {
    const words = siteWords(site.language).letters[letter];
    const token = randomBytes(24).toString('base64url');
    const at = this.#now();
    const expires_at = new Date(at.getTime() + LETTER_LIVES_MS);
    await within.transaction(async (trx) => {
      await putLetter(trx, { token_hash: hashOf(token), site: site.key, email, link, way_on: wayOn, expires_at });
      const about = { site: site.name, audience, address: `${site.address}/~letter/${token}` };
      await this.#mailer.send(trx, [{ to: email, subject: words.subject(about), text: words.text(about) }], at);
    });
  }
}

const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex');
