import { createHash, randomBytes, randomUUID } from 'node:crypto';
import type { Database } from '../database/connect.ts';
import { ProblemError } from '../problem.ts';
import { hashOfPassword, isPassword } from '../security/passwords.ts';
import {
  type PlainAccount,
  accountByEmail,
  countAccounts,
  insertAccount,
  insertFirstAccount,
  replaceFirstAccountLink,
} from './account-repository.ts';

const LINK_LIVES_MS = 24 * 3600 * 1000;

const hashOfToken = (token: string): string => createHash('sha256').update(token).digest('hex');

/** The account of that mail address and password. @throws ProblemError where they do not belong together. */
export async function authenticate(database: Database, email: string, password: string): Promise<PlainAccount> {
  const account = await accountByEmail(database, email);
  const matches = await isPassword(account?.passwordHash ?? undefined, password);
  if (!account || !matches) throw new ProblemError('sign-in-failed');
  return plainAccount(account);
}

/** An account without its password. */
export const plainAccount = ({ id, name, email, looksAfterAll }: PlainAccount): PlainAccount => ({
  id,
  name,
  email,
  looksAfterAll,
});

export async function makeAccount(
  database: Database,
  given: { name: string; email: string; password: string; looksAfterAll: boolean },
  isDemo: boolean,
): Promise<PlainAccount> {
  const account = { id: randomUUID(), name: given.name, email: given.email, looksAfterAll: given.looksAfterAll };
  await insertAccount(database, { ...account, passwordHash: await hashOfPassword(given.password) }, isDemo);
  return account;
}

/** A one-time link's token while there is no account yet, else null. Earlier tokens stop working. */
export async function offerFirstAccount(database: Database, now: Date): Promise<string | null> {
  if ((await countAccounts(database)) > 0) return null;
  const token = randomBytes(24).toString('base64url');
  await replaceFirstAccountLink(database, hashOfToken(token), new Date(now.getTime() + LINK_LIVES_MS));
  return token;
}

/** Makes the first account, which looks after the installation. @throws ProblemError where the token was used, has expired or never was. */
export async function makeFirstAccount(
  database: Database,
  now: Date,
  given: { token: string; name: string; email: string; password: string },
): Promise<PlainAccount> {
  const account = { id: randomUUID(), name: given.name, email: given.email, looksAfterAll: true };
  const passwordHash = await hashOfPassword(given.password);
  const made = await insertFirstAccount(database, hashOfToken(given.token), now, { ...account, passwordHash });
  if (!made) throw new ProblemError('setup-closed');
  return account;
}
