/** Somebody in the organisation's directory. */
export interface DirectoryPerson {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  /** Whoever has left the organisation is kept by directories as not active. */
  readonly isActive: boolean;
  /** The ids of the groups that they are in. */
  readonly groups: readonly string[];
}

/** What a synchronisation does with somebody; `in the way` is what it cannot do, and leaves. */
export const SYNC_KINDS = ['made', 'changed', 'suspended', 'restored', 'in the way'] as const;
export type SyncKind = (typeof SYNC_KINDS)[number];

/** An account, as far as it can be somebody's in the directory. */
interface Known {
  readonly email: string;
  /** Who it is in the directory; null where it came about otherwise. */
  readonly directoryId: string | null;
}

/**
 * Whose account is whose: by the directory's id, else by the mail address where the account is nobody else's.
 * @returns the accounts by the ids of the directory
 */
export function accountsOf<Account extends Known>(
  people: readonly DirectoryPerson[],
  accounts: readonly Account[],
): Map<string, Account> {
  const present = new Set(people.map(({ id }) => id));
  const free = new Map<string, Account>();
  const found = new Map<string, Account>();
  for (const account of accounts)
    if (account.directoryId !== null && present.has(account.directoryId)) found.set(account.directoryId, account);
    else free.set(account.email.toLowerCase(), account);
  for (const { id, email } of people) {
    const account = found.has(id) ? undefined : free.get(email.toLowerCase());
    if (!account) continue;
    found.set(id, account);
    free.delete(email.toLowerCase());
  }
  return found;
}

/** How many suspensions are let through while nobody looks: a directory that is empty by mistake must not shut everybody out. */
export const mostSuspendedUnseen = (
  accounts: readonly (Pick<Known, 'directoryId'> & { readonly hasLeft: boolean })[],
): number =>
  Math.max(5, Math.floor(accounts.filter(({ directoryId, hasLeft }) => directoryId !== null && !hasLeft).length / 5));
