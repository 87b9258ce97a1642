import type { Request } from 'express';
import type { Account } from '#contract/api.ts';
import type { Database } from '../database/connect.ts';
import { noteSecurity } from '../security/security-log-repository.ts';
import { noteSeen } from './account-repository.ts';
import { browserWords } from './browser-words.ts';
import { signInWaysOf } from './sign-in-ways-repository.ts';

/**
 * Starts the session of somebody who has proved who they are, under a new id, so that an id known from before is worth nothing.
 * Gives the account as the session has it.
 * @param hasSecondStep whether more than a password proved it this time: a passkey, a one-time code, or what the provider of the
 *   organisation asked for. That the account could have been asked for more does not count.
 */
export async function startSession(
  { database, now }: { readonly database: Database; readonly now: () => Date },
  request: Request,
  { id, name, email, looksAfterAll }: Omit<Account, 'hasSecondStep'>,
  hasSecondStep: boolean,
): Promise<Account> {
  const account = { id, name, email, looksAfterAll, hasSecondStep };
  await renewSession(request);
  const at = now();
  request.session.account = account;
  request.session.since = at.toISOString();
  request.session.browser = browserWords(request.get('user-agent'));
  await noteSeen(database, id, at);
  const about = request.session.browser;
  await noteSecurity(database, { at, event: 'signed-in', account, about, place: placeOf(request) });
  return account;
}

/** After the password, a one-time code is waited for so long; and so long an authenticator's answer. */
export const ANSWERED_WITHIN_MS = 5 * 60_000;

/**
 * Where an account asks for one-time codes: begins a session in which one is waited for, of somebody who has proved that they have the
 * password or its mailbox. False where it asks for none.
 */
export async function waitForCode(
  { database, now }: { readonly database: Database; readonly now: () => Date },
  request: Request,
  account: string,
): Promise<boolean> {
  if ((await signInWaysOf(database, account)).codesSince === null) return false;
  await renewSession(request);
  request.session.waiting = { account, until: now().getTime() + ANSWERED_WITHIN_MS };
  return true;
}

/** Begins an empty session under a new id. */
const renewSession = (request: Request): Promise<void> =>
  new Promise((resolve, reject) => request.session.regenerate((fault) => (fault ? reject(fault) : resolve())));

/** Where a request comes from, as the log of security says it. */
export const placeOf = (request: Request): string => request.ip ?? '';
