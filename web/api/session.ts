import useSWR, { mutate } from 'swr';
import { ROLES, type Permission, type SessionAnswer } from '#contract/api.ts';
import { call } from './client.ts';

const KEY = '/session';

/** Who is signed in; undefined until it is known. */
export function useSession(): SessionAnswer | undefined {
  return useSWR(KEY, () => call('showSession')).data;
}

/** Whether the person's role has the permission. */
export function useMay(permission: Permission): boolean {
  const account = useSession()?.account;
  return account != null && (ROLES[account.role] as readonly Permission[]).includes(permission);
}

export async function signIn(email: string, password: string): Promise<void> {
  await mutate(KEY, await call('signIn', {}, { email, password }), { revalidate: false });
}

export async function makeFirstAccount(given: {
  token: string;
  name: string;
  email: string;
  password: string;
}): Promise<void> {
  await mutate(KEY, await call('makeFirstAccount', {}, given), { revalidate: false });
}

/** Signs out and forgets everything that was fetched. */
export async function signOut(): Promise<void> {
  const answer = await call('signOut');
  await mutate(() => true, undefined, { revalidate: false });
  await mutate(KEY, answer, { revalidate: false });
}
