import useSWR, { mutate } from 'swr';
import type { OwnSession, SecurityEntry, SignInWays } from '#contract/people.ts';
import { call } from './client.ts';
import { refreshSession } from './session.ts';

const WAYS = '/account/sign-in';
const SESSIONS = '/account/sessions';
const LOG = '/account/security-log';

/** How whoever is signed in signs in besides with the password; undefined until it is known. */
export const useSignInWays = (): SignInWays | undefined => useSWR(WAYS, () => call('showSignInWays')).data;

/** Where they are signed in; undefined until it is known. */
export const useOwnSessions = (): readonly OwnSession[] | undefined =>
  useSWR(SESSIONS, () => call('listOwnSessions').then(({ sessions }) => sessions)).data;

/** What has concerned the security of the account, the latest first; undefined until it is known. */
export const useOwnSecurityLog = (): readonly SecurityEntry[] | undefined =>
  useSWR(LOG, () => call('showOwnSecurityLog').then(({ entries }) => entries)).data;

const takeWays = async (ways: SignInWays): Promise<void> => {
  await Promise.all([mutate(WAYS, ways, { revalidate: false }), mutate(LOG), refreshSession()]);
};

/** @throws ServerProblem, NoAnswer */
export async function changePassword(current: string, password: string): Promise<void> {
  await call('changePassword', {}, { current, password });
  await Promise.all([mutate(SESSIONS), mutate(LOG)]);
}

/** Ends one of the sessions, or all but this one. @throws ServerProblem, NoAnswer */
export async function endSession(session: string): Promise<void> {
  const { sessions } = await call('endOwnSession', { session });
  await Promise.all([mutate(SESSIONS, sessions, { revalidate: false }), mutate(LOG)]);
}

/** What an authenticator takes for one-time codes. @throws ServerProblem, NoAnswer */
export const beginCodes = (password: string): Promise<{ secret: string; address: string }> =>
  call('beginCodes', {}, { password });

/** Gives the recovery codes. @throws ServerProblem, NoAnswer */
export async function confirmCodes(code: string): Promise<readonly string[]> {
  const { recoveryCodes } = await call('confirmCodes', {}, { code });
  await takeWays(await call('showSignInWays'));
  return recoveryCodes;
}

/** @throws ServerProblem, NoAnswer */
export const endCodes = async (password: string): Promise<void> => takeWays(await call('endCodes', {}, { password }));

/** Makes a passkey by an authenticator. @throws ServerProblem, NoAnswer, and what the browser says where nothing came of it */
export async function addPasskey(name: string, password: string): Promise<void> {
  const { startRegistration } = await import('@simplewebauthn/browser');
  const asked = await call('beginPasskey', {}, { password });
  const response = await startRegistration({ optionsJSON: asked as never });
  await takeWays(await call('addPasskey', {}, { name, response } as never));
}

/** @throws ServerProblem, NoAnswer */
export const removePasskey = async (passkey: string, password: string): Promise<void> =>
  takeWays(await call('removePasskey', { passkey }, { password }));
