import { type DirectoryPerson, type SyncKind, accountsOf } from '../directory/directory-person.ts';
import type { AudienceId } from '../model/audience.ts';

/** An account of a visitor, as far as the directory matters to it. */
export interface SyncedAccount {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly audiences: readonly AudienceId[];
  readonly isSuspended: boolean;
  /** Who it is in the directory; null where it came about otherwise. */
  readonly directoryId: string | null;
  /** Those of the audiences that the directory gave. */
  readonly directoryAudiences: readonly AudienceId[];
  /** Whether it is suspended because the directory has it no more. */
  readonly hasLeft: boolean;
}

/** The audience of the members of a group, by the id of the group; groups that are not in it count for nothing. */
export type GroupAudiences = Readonly<Record<string, AudienceId>>;

/** One thing that a synchronisation does. */
export interface SyncItem {
  readonly kind: SyncKind;
  /** The account; null where one is made. */
  readonly account: string | null;
  readonly name: string;
  readonly email: string;
  readonly gains: readonly AudienceId[];
  readonly loses: readonly AudienceId[];
  /** Whether the account came about otherwise, and is the directory's from now on. */
  readonly isTakenOver: boolean;
  /** How the account is afterwards; null for what is in the way. */
  readonly after: Omit<SyncedAccount, 'id'> | null;
}

/**
 * What a synchronisation does, in the order of the directory; what is right already is not in it. Whoever is active and in a
 * group that has an audience has an account, found by the directory's id and else by the mail address; where that is somebody
 * else's it is in the way, and seen to when the other has let go of it. The directory gives and
 * takes the audiences of its groups alone: what was given by hand stays. Who leaves loses these and is suspended, and
 * nobody who was suspended by hand is let in again.
 */
export function planSync(
  people: readonly DirectoryPerson[],
  audienceOf: GroupAudiences,
  accounts: readonly SyncedAccount[],
): SyncItem[] {
  const accountOf = accountsOf(people, accounts);
  const items: SyncItem[] = [];
  /** The addresses that accounts have after what is in the list so far. */
  const taken = new Set(accounts.map(({ email }) => email.toLowerCase()));
  const seen = new Set<string>();
  for (const person of people) {
    const wanted = person.isActive ? audiencesFor(person, audienceOf) : [];
    const account = accountOf.get(person.id);
    if (account) seen.add(account.id);
    // Somebody whom no group lets in is no concern of the directory's until they have been.
    if (wanted.length === 0 && (account?.directoryId ?? null) === null) continue;
    const item = account ? itemFor(account, person, wanted, taken) : newAccount(person, wanted, taken);
    if (item) items.push(item);
  }
  for (const account of accounts) {
    if (account.directoryId === null || seen.has(account.id)) continue;
    const item = itemFor(account, null, [], taken);
    if (item) items.push(item);
  }
  return items;
}

function newAccount(person: DirectoryPerson, audiences: readonly AudienceId[], taken: Set<string>): SyncItem {
  const { id, name, email } = person;
  if (taken.has(email.toLowerCase())) return inTheWay(person);
  taken.add(email.toLowerCase());
  const after = { name, email, audiences, isSuspended: false, directoryId: id, directoryAudiences: audiences };
  return {
    kind: 'made',
    account: null,
    name,
    email,
    gains: audiences,
    loses: [],
    isTakenOver: false,
    after: { ...after, hasLeft: false },
  };
}

const audiencesFor = ({ groups }: DirectoryPerson, audienceOf: GroupAudiences): AudienceId[] =>
  [...new Set(groups.flatMap((group) => (Object.hasOwn(audienceOf, group) ? [audienceOf[group]!] : [])))].sort();

const inTheWay = ({ name, email }: DirectoryPerson): SyncItem => ({
  kind: 'in the way',
  account: null,
  name,
  email,
  gains: [],
  loses: [],
  isTakenOver: false,
  after: null,
});

/** What becomes of an account; null where nothing does. */
function itemFor(
  account: SyncedAccount,
  person: DirectoryPerson | null,
  wanted: readonly AudienceId[],
  taken: Set<string>,
): SyncItem | null {
  const byHand = account.audiences.filter((one) => !account.directoryAudiences.includes(one));
  const audiences = [...new Set([...byHand, ...wanted])].sort();
  const leaves = wanted.length === 0;
  const hasNewMail = !leaves && person !== null && person.email.toLowerCase() !== account.email.toLowerCase();
  if (hasNewMail && taken.has(person.email.toLowerCase())) return { ...inTheWay(person), account: account.id };
  const after: Omit<SyncedAccount, 'id'> = {
    name: leaves ? account.name : person!.name,
    email: leaves ? account.email : person!.email,
    audiences,
    isSuspended: leaves ? true : account.hasLeft ? false : account.isSuspended,
    directoryId: person?.id ?? account.directoryId,
    directoryAudiences: wanted,
    hasLeft: leaves && (account.hasLeft || !account.isSuspended),
  };
  if (sameAccount(account, after)) return null;
  if (hasNewMail) {
    taken.delete(account.email.toLowerCase());
    taken.add(person.email.toLowerCase());
  }
  return {
    kind: leaves ? 'suspended' : account.hasLeft ? 'restored' : 'changed',
    account: account.id,
    name: after.name,
    email: after.email,
    gains: audiences.filter((one) => !account.audiences.includes(one)),
    loses: account.audiences.filter((one) => !audiences.includes(one)),
    isTakenOver: account.directoryId === null,
    after,
  };
}

const sameAccount = (a: Omit<SyncedAccount, 'id'>, b: Omit<SyncedAccount, 'id'>): boolean =>
  a.name === b.name &&
  a.email === b.email &&
  a.isSuspended === b.isSuspended &&
  a.hasLeft === b.hasLeft &&
  a.directoryId === b.directoryId &&
  sameSet(a.audiences, b.audiences) &&
  sameSet(a.directoryAudiences, b.directoryAudiences);

const sameSet = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((one) => b.includes(one));
