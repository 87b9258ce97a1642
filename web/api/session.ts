import useSWR, { mutate } from 'swr';
import type { SessionAnswer } from '#contract/api.ts';
import type { BodyOf } from '#contract/routes.ts';
import { call } from './client.ts';

const KEY = '/session';

/** Who is signed in; undefined until it is known. */
export function useSession(): SessionAnswer | undefined {
  return useSWR(KEY, () => call('showSession')).data;
}

/** Whether somebody is signed in who looks after the installation. */
export const useLooksAfterAll = (): boolean => useSession()?.account?.looksAfterAll ?? false;

export async function signIn(email: string, password: string): Promise<void> {
  await mutate(KEY, await call('signIn', {}, { email, password }), { revalidate: false });
}

/** Takes an answer about the session over. */
const become = (answer: SessionAnswer): Promise<unknown> => mutate(KEY, answer, { revalidate: false });

/** Gives the one-time code, or a recovery code, that a sign-in asks for. @throws ServerProblem, NoAnswer */
export const giveCode = async (code: string): Promise<void> =>
  void (await become(await call('giveCode', {}, { code })));

/** Signs in with a passkey. @throws ServerProblem, NoAnswer, and what the browser says where nothing came of it */
export async function signInByPasskey(): Promise<void> {
  const { startAuthentication } = await import('@simplewebauthn/browser');
  const asked = await call('askForPasskey');
  const response = await startAuthentication({ optionsJSON: asked as never });
  await become(await call('signInByPasskey', {}, { response } as never));
}

/** Uses a link from a mail: chooses a password, and is signed in. @throws ServerProblem, NoAnswer */
export const takeAccountLink = async (given: BodyOf<'useAccountLink'>): Promise<void> =>
  void (await become(await call('useAccountLink', {}, given)));

/** @throws ServerProblem, NoAnswer */
export const setOwnName = async (name: string): Promise<void> =>
  void (await become(await call('setOwnAccount', {}, { name })));

/** Asks who is signed in once more: what belongs to the account has changed. */
export const refreshSession = (): Promise<unknown> => mutate(KEY);

export async function makeFirstAccount(given: {
  token: string;
  name: string;
  email: string;
  password: string;
}): Promise<void> {
  await mutate(KEY, await call('makeFirstAccount', {}, given), { revalidate: false });
}

/** Signs out, and leaves the page: nothing of what was fetched stays in the browser's memory. */
export async function signOut(): Promise<void> {
  await call('signOut');
  window.location.assign('/sign-in');
}
