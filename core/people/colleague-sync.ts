import { type DirectoryPerson, type SyncKind, accountsOf } from '../directory/directory-person.ts';
import { canonicalJson, isSameJson } from '../model/canonical-json.ts';
import type { PageId } from '../model/ids.ts';
import { listOf } from '../model/permission.ts';
import type { RoleAt } from './powers.ts';
import { type Role, permissionsOf } from './role.ts';

/** The role that the members of a group of the directory have, on the whole site or on a branch. */
export interface GroupRole extends RoleAt {
  /** The id of the group. */
  readonly group: string;
}

/** A colleague of a site, as far as the directory matters to it. */
export interface SyncedColleague {
  readonly account: string;
  readonly name: string;
  readonly email: string;
  readonly roles: readonly RoleAt[];
  /** Where the role is one that the directory gave. */
  readonly placesFromDirectory: readonly (PageId | null)[];
  readonly isSuspended: boolean;
  readonly directoryId: string | null;
  /** Whether they are suspended because the directory has them no more. */
  readonly hasLeft: boolean;
}

/** How a colleague is after a synchronisation. */
export type AfterSync = Omit<SyncedColleague, 'account' | 'name' | 'email'>;

/** One thing that a synchronisation does. */
export interface ColleagueSyncItem {
  readonly kind: SyncKind;
  /** The account of the colleague; null for somebody who was none. */
  readonly account: string | null;
  readonly name: string;
  readonly email: string;
  readonly gains: readonly RoleAt[];
  readonly loses: readonly RoleAt[];
  /** Whether the colleague came about otherwise, and is the directory's from now on. */
  readonly isTakenOver: boolean;
  /** Null for what is in the way. */
  readonly after: AfterSync | null;
}

/**
 * What a synchronisation does with the colleagues of a site, in the order of the directory; what is right already is not in it.
 * Whoever is active and in a group that has a role is a colleague, found by the directory's id and else by the mail address.
 * The directory gives and takes the roles of its groups alone: a role that was given by hand stays, and holds where a group
 * would give another one for the same place. Of several groups the role that may do most holds. Who leaves the organisation is
 * suspended with the roles they had, and comes back with those of their groups; who leaves the groups alone keeps what was given by hand,
 * and is nobody of the directory's any more. Nobody who was suspended by hand is let in again. Names and mail addresses of
 * accounts are their owners' own, so they stay.
 * @param roles the roles of the site; groups with others count for nothing
 * @param mayAll the mail addresses of those who look after the installation, in lower case; they need no roles
 */
export function planColleagues(
  people: readonly DirectoryPerson[],
  groupRoles: readonly GroupRole[],
  roles: readonly Role[],
  colleagues: readonly SyncedColleague[],
  mayAll: ReadonlySet<string>,
): ColleagueSyncItem[] {
  const colleagueOf = accountsOf(people, colleagues);
  const taken = new Set(colleagues.map(({ email }) => email.toLowerCase()));
  const rolesFor = rolesOfGroups(groupRoles, roles);
  const seen = new Set<string>();
  const items: ColleagueSyncItem[] = [];
  for (const person of people) {
    const colleague = colleagueOf.get(person.id);
    if (colleague) seen.add(colleague.account);
    else if (mayAll.has(person.email.toLowerCase())) continue;
    const wanted = person.isActive ? rolesFor(person) : [];
    if (colleague) items.push(...itemsFor(colleague, person, wanted));
    else if (wanted.length > 0) items.push(newColleague(person, wanted, taken));
  }
  for (const colleague of colleagues)
    if (colleague.directoryId !== null && !seen.has(colleague.account)) items.push(...itemsFor(colleague, null, []));
  return items;
}

/** The roles that groups give to somebody: one for each place, the one that may do most. */
function rolesOfGroups(
  groupRoles: readonly GroupRole[],
  roles: readonly Role[],
): (person: DirectoryPerson) => RoleAt[] {
  const strength = new Map(roles.map((role, at) => [role.id, listOf(permissionsOf(role)).length * 1000 - at]));
  const known = groupRoles.filter(({ role }) => strength.has(role));
  return ({ groups }) => {
    const isIn = new Set(groups);
    const strongest = new Map<PageId | null, RoleAt>();
    for (const { group, page, role } of known) {
      const before = strongest.get(page);
      if (isIn.has(group) && (!before || strength.get(role)! > strength.get(before.role)!))
        strongest.set(page, { page, role });
    }
    return [...strongest.values()];
  };
}

function newColleague(person: DirectoryPerson, wanted: readonly RoleAt[], taken: Set<string>): ColleagueSyncItem {
  const { id, name, email } = person;
  const isInTheWay = taken.has(email.toLowerCase());
  taken.add(email.toLowerCase());
  return {
    kind: isInTheWay ? 'in the way' : 'made',
    account: null,
    name,
    email,
    gains: isInTheWay ? [] : wanted,
    loses: [],
    isTakenOver: false,
    after: isInTheWay
      ? null
      : {
          roles: wanted,
          placesFromDirectory: wanted.map(({ page }) => page),
          isSuspended: false,
          directoryId: id,
          hasLeft: false,
        },
  };
}

/** What becomes of a colleague: one thing, or nothing. */
function itemsFor(
  colleague: SyncedColleague,
  person: DirectoryPerson | null,
  wanted: readonly RoleAt[],
): ColleagueSyncItem[] {
  const { account, name, email, roles, directoryId } = colleague;
  const after = afterSync(colleague, person, wanted);
  if (isSameState(colleague, after)) return [];
  const kind =
    after.hasLeft && !colleague.hasLeft ? 'suspended' : colleague.hasLeft && !after.hasLeft ? 'restored' : 'changed';
  return [
    {
      kind,
      account,
      name,
      email,
      gains: without(after.roles, roles),
      loses: without(roles, after.roles),
      isTakenOver: directoryId === null,
      after,
    },
  ];
}

function afterSync(
  { roles, placesFromDirectory, isSuspended, directoryId, hasLeft }: SyncedColleague,
  person: DirectoryPerson | null,
  wanted: readonly RoleAt[],
): AfterSync {
  const fromDirectory = new Set(placesFromDirectory);
  const byHand = roles.filter(({ page }) => !fromDirectory.has(page));
  const isKeptOut = isSuspended && !hasLeft;
  if (wanted.length === 0) {
    if (directoryId === null) return { roles, placesFromDirectory, isSuspended, directoryId, hasLeft };
    if (person?.id === directoryId && person.isActive && byHand.length > 0)
      return { roles: byHand, placesFromDirectory: [], isSuspended: isKeptOut, directoryId: null, hasLeft: false };
    return { roles, placesFromDirectory, isSuspended: true, directoryId, hasLeft: !isKeptOut };
  }
  const isByHand = new Set(byHand.map(({ page }) => page));
  const given = wanted.filter(({ page }) => !isByHand.has(page));
  return {
    roles: [...byHand, ...given],
    placesFromDirectory: given.map(({ page }) => page),
    isSuspended: isKeptOut,
    directoryId: person!.id,
    hasLeft: false,
  };
}

const isSameState = (a: AfterSync, b: AfterSync): boolean =>
  a.isSuspended === b.isSuspended &&
  a.directoryId === b.directoryId &&
  a.hasLeft === b.hasLeft &&
  isSameSet(a.roles, b.roles) &&
  isSameSet(a.placesFromDirectory, b.placesFromDirectory);

const isSameSet = (a: readonly unknown[], b: readonly unknown[]): boolean => isSameJson(sorted(a), sorted(b));
const sorted = (list: readonly unknown[]): string[] => list.map((one) => canonicalJson(one)).sort();

/** The roles that are not among others. */
export function without<Given extends RoleAt>(roles: readonly Given[], others: readonly Given[]): Given[] {
  const those = new Set(others.map((one) => canonicalJson(one)));
  return roles.filter((one) => !those.has(canonicalJson(one)));
}
