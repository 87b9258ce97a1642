import { createHash, randomBytes } from 'node:crypto';
import type { SiteKey } from '#core/model/ids.ts';
import type { AccountLinkAnswer } from '#contract/people.ts';
import type { Database } from '../database/connect.ts';
import type { Mail, Mailer } from '../mail/mailer.ts';
import { ProblemError } from '../problem.ts';
import { hashOfPassword } from '../security/passwords.ts';
import { noteSecurity } from '../security/security-log-repository.ts';
import { requireGoodPassword } from './password-rules.ts';
import { type PlainAccount, type StoredAccount, accountByEmail, setName, setPassword } from './account-repository.ts';
import { linkBy, putLink, takeLinksOf } from './account-link-repository.ts';

const INVITATION_LIVES_MS = 7 * 24 * 3600 * 1000;
const PASSWORD_LIVES_MS = 3600 * 1000;

interface Parts {
  readonly database: Database;
  readonly mailer: Mailer;
  /** Where links to the workbench lead. */
  readonly origin: string;
  readonly now: () => Date;
}

/**
 * Links in mails by which somebody takes up an invitation, or chooses a new password. Each works once and for a while, and a newer one ends
 * those before it. Only a hash of it is kept. It stands behind a `#`, so that browsers send it to no server on the way.
 */
export class AccountLinks {
  readonly #parts: Parts;

  constructor(parts: Parts) {
    this.#parts = parts;
  }

  /** Writes to somebody who was made a colleague: who has no password yet chooses one by the link. */
  async invite(
    trx: Database,
    account: StoredAccount,
    site: { readonly key: SiteKey; readonly name: string },
    by: string,
  ): Promise<void> {
    const { mailer, origin, now } = this.#parts;
    const link =
      account.passwordHash === null
        ? await this.#make(trx, account, 'invitation', site.key, INVITATION_LIVES_MS)
        : `${origin}/sites/${site.key}`;
    await mailer.send(trx, [invitation(account, site.name, by, link, account.passwordHash === null)], now());
  }

  /** Writes to somebody who has forgotten the password. To an address without an account nothing goes, and as long is taken. */
  async askForPassword(email: string, place: string): Promise<void> {
    const { database, mailer, now } = this.#parts;
    await database.transaction(async (trx) => {
      const account = await accountByEmail(trx, email);
      if (!account) return;
      const link = await this.#make(trx, account, 'password', null, PASSWORD_LIVES_MS);
      await noteSecurity(trx, { at: now(), event: 'password-asked-for', account, place });
      await mailer.send(trx, [newPassword(account, link)], now());
    });
  }

  /** What a link is for; it is not used up by that. @throws ProblemError `account-link-ended` */
  async open(token: string): Promise<AccountLinkAnswer> {
    const link = await linkBy(this.#parts.database, hashOf(token), this.#parts.now());
    if (!link) throw new ProblemError('account-link-ended');
    const { purpose, name, email, siteName } = link;
    return { purpose, name, email, site: siteName };
  }

  /** Sets the password, once; all other links of the account end. @throws ProblemError `account-link-ended`, `password-known` */
  async use(
    token: string,
    given: { readonly name?: string | undefined; readonly password: string },
    place: string,
  ): Promise<PlainAccount> {
    const { database, now } = this.#parts;
    const at = now();
    const open = await linkBy(database, hashOf(token), at);
    if (!open) throw new ProblemError('account-link-ended');
    requireGoodPassword(given.password, [open.email, given.name ?? open.name]);
    const hash = await hashOfPassword(given.password);
    return database.transaction(async (trx) => {
      // Of two at the same moment one finds it gone.
      if (!(await takeLinksOf(trx, open.account, hashOf(token)))) throw new ProblemError('account-link-ended');
      await setPassword(trx, open.account, hash);
      const name = open.purpose === 'invitation' && given.name ? given.name : open.name;
      if (name !== open.name) await setName(trx, open.account, name);
      const account = { id: open.account, name, email: open.email, looksAfterAll: open.looksAfterAll };
      const event = open.purpose === 'invitation' ? 'invitation-taken-up' : 'password-changed';
      await noteSecurity(trx, { at, event, site: open.site, account, place });
      return account;
    });
  }

  async #make(
    trx: Database,
    account: PlainAccount,
    purpose: 'invitation' | 'password',
    site: SiteKey | null,
    livesMs: number,
  ): Promise<string> {
    const token = randomBytes(24).toString('base64url');
    const expires_at = new Date(this.#parts.now().getTime() + livesMs);
    await putLink(trx, { token_hash: hashOf(token), account: account.id, purpose, site, expires_at });
    return `${this.#parts.origin}/join#${token}`;
  }
}

const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex');

const invitation = (account: PlainAccount, site: string, by: string, link: string, isNew: boolean): Mail => ({
  to: account.email,
  subject: `${by} invites you to work on ${site}`,
  text: [
    `Dear ${account.name},`,
    `${by} has made you a colleague on ‘${site}’, a site that is planned and written with Spur.`,
    isNew ? `Choose a password to begin: ${link}` : `Sign in with the account that you have: ${link}`,
    ...(isNew ? ['The link works once, within seven days. If it has run out, ask for another invitation.'] : []),
  ].join('\n\n'),
});

const newPassword = (account: PlainAccount, link: string): Mail => ({
  to: account.email,
  subject: 'Choose a new password for Spur',
  text: [
    `Dear ${account.name},`,
    `Somebody, probably you, has asked for a new password for your account. Choose it here: ${link}`,
    'The link works once, within an hour. If you did not ask for it, leave this mail alone: your password stays as it is.',
  ].join('\n\n'),
});
