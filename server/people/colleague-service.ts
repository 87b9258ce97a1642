import { randomUUID } from 'node:crypto';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import { hasAllOf } from '#core/model/permission.ts';
import { type Site, nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { without } from '#core/people/colleague-sync.ts';
import { type Powers, type RoleAt, maySomewhere } from '#core/people/powers.ts';
import { MAX_ROLES, type Role, type RoleId, SHIPPED_ROLES, isShipped, permissionsOf } from '#core/people/role.ts';
import type { Account } from '#contract/api.ts';
import type { Colleague, ColleaguesAnswer, SiteSecurity } from '#contract/people.ts';
import {
  accountByEmail,
  accountById,
  deleteAccount,
  insertAccount,
  namesOfThoseWhoLookAfterAll,
} from '../accounts/account-repository.ts';
import { type AccountLinks } from '../accounts/account-links.ts';
import type { Database } from '../database/connect.ts';
import { colleagueDirectory } from '../directory/colleague-directory-repository.ts';
import { ProblemError } from '../problem.ts';
import { noteSecurity } from '../security/security-log-repository.ts';
import type { SiteCache } from '../sites/site-cache.ts';
import { requireGivable } from './givable.ts';
import type { People } from './people.ts';
import {
  type StoredColleague,
  colleaguesOf,
  countWithRole,
  deleteColleague,
  deleteRole,
  isColleagueAnywhere,
  lockColleagues,
  needsSecondStepAt,
  putColleague,
  putRole,
  rolesMadeFor,
  setNeedsSecondStep,
  setSuspended,
  tellPeople,
  withoutSecondStep,
} from './people-repository.ts';

/** Who does something, and from where. */
export interface Doer {
  readonly account: Account;
  readonly place: string;
}

interface Parts {
  readonly database: Database;
  readonly cache: SiteCache;
  readonly people: People;
  readonly links: AccountLinks;
  readonly now: () => Date;
}

/**
 * Invites colleagues, and changes what they may do. Nobody gives a role, takes one away or changes one that may do more than
 * they may there themselves; and nobody changes their own.
 */
export class ColleagueService {
  readonly #parts: Parts;

  constructor(parts: Parts) {
    this.#parts = parts;
  }

  /** Colleagues and roles, as somebody with these powers is told of them. */
  async list(site: SiteKey, powers: Powers): Promise<ColleaguesAnswer> {
    const { database, people } = this.#parts;
    const isTold = maySomewhere(powers, 'people');
    const [colleagues, roles, lookAfterAll] = await Promise.all([
      colleaguesOf(database, site),
      people.rolesOf(site),
      namesOfThoseWhoLookAfterAll(database),
    ]);
    return { colleagues: colleagues.map((one) => asTold(one, isTold)), roles: [...roles], lookAfterAll };
  }

  /** Makes somebody a colleague. Who has no account yet gets a mail to choose a password by; who has one is told. @throws ProblemError */
  async invite(
    key: SiteKey,
    by: Doer,
    { name, email, roles }: { readonly name: string; readonly email: string; readonly roles: readonly RoleAt[] },
  ): Promise<void> {
    await this.#change(key, by, async (trx, site, powers) => {
      await this.#requireGivable(site, powers, roles);
      const known = await accountByEmail(trx, email);
      if (known && (await colleaguesOf(trx, key, known.id)).length > 0)
        throw new ProblemError('colleague-there', { email });
      if (known?.looksAfterAll) throw new ProblemError('colleague-looks-after-all', { name: known.name });
      const account = known ?? { id: randomUUID(), name, email, looksAfterAll: false, passwordHash: null };
      if (!known) await insertAccount(trx, account, false);
      await putColleague(trx, key, account.id, roles, by.account.id);
      await this.#parts.links.invite(trx, account, { key, name: site.settings.name }, by.account.name);
      return { event: 'invited', about: `${account.name} (${account.email})` };
    });
  }

  /** Sends an invitation once more. @throws ProblemError */
  async inviteAgain(key: SiteKey, by: Doer, id: string): Promise<void> {
    await this.#change(key, by, async (trx, site, powers) => {
      const colleague = await this.#theirs(trx, key, by, id);
      await this.#requireGivable(site, powers, colleague.roles);
      const account = (await accountById(trx, id))!;
      await this.#parts.links.invite(trx, account, { key, name: site.settings.name }, by.account.name);
      return { event: 'invited', about: `${account.name} (${account.email})` };
    });
  }

  /** Gives a colleague other roles. @throws ProblemError */
  async setRoles(key: SiteKey, by: Doer, id: string, roles: readonly RoleAt[]): Promise<void> {
    await this.#change(key, by, async (trx, site, powers) => {
      const before = await this.#theirs(trx, key, by, id);
      const differing = [...without(before.roles, roles), ...without(roles, before.roles)];
      await this.#requireGivable(site, powers, differing);
      const gone = before.placesFromDirectory.find((place) => !roles.some(({ page }) => page === place));
      if (gone !== undefined) throw new ProblemError('role-from-directory', { place: placeWords(site, gone) });
      const given = without(roles, before.roles).map(({ page }) => page);
      const fromDirectory = before.placesFromDirectory.filter((place) => !given.includes(place));
      await putColleague(trx, key, id, roles, null, fromDirectory);
      return { event: 'roles-changed', about: before.name };
    });
  }

  /** Shuts a colleague out of a site, or lets them back in with the roles they had. @throws ProblemError */
  async setSuspended(key: SiteKey, by: Doer, id: string, isSuspended: boolean): Promise<void> {
    await this.#change(key, by, async (trx, site, powers) => {
      const colleague = await this.#theirs(trx, key, by, id);
      await this.#requireGivable(site, powers, colleague.roles);
      await setSuspended(trx, key, id, isSuspended);
      return { event: isSuspended ? 'colleague-suspended' : 'colleague-back', about: colleague.name };
    });
  }

  /** Removes a colleague from a site. What they did stays under their name. @throws ProblemError */
  async remove(key: SiteKey, by: Doer, id: string): Promise<void> {
    await this.#change(key, by, async (trx, site, powers) => {
      const colleague = await this.#theirs(trx, key, by, id);
      await this.#requireGivable(site, powers, colleague.roles);
      await deleteColleague(trx, key, id);
      // Whoever never took an invitation up leaves nothing behind.
      if (!colleague.isHere && !(await isColleagueAnywhere(trx, id))) await deleteAccount(trx, id);
      return { event: 'colleague-removed', about: colleague.name };
    });
  }

  /** Makes a role, or changes one that was made for the site. @throws ProblemError */
  async setRole(key: SiteKey, by: Doer, role: Role): Promise<void> {
    await this.#change(key, by, async (trx, _, powers) => {
      const shipped = SHIPPED_ROLES.find(({ id }) => id === role.id);
      if (shipped) throw new ProblemError('role-shipped', { name: shipped.name });
      const made = await rolesMadeFor(trx, key);
      const before = made.find(({ id }) => id === role.id);
      if (!before && made.length >= MAX_ROLES) throw new ProblemError('role-too-many', { limit: MAX_ROLES });
      for (const one of before ? [before, role] : [role]) requireWithin(powers, one);
      await putRole(trx, key, { ...role, permissions: [...new Set(role.permissions)] });
      return { event: before ? 'role-changed' : 'role-made', about: role.name };
    });
  }

  /** Removes a role that nobody has. @throws ProblemError */
  async removeRole(key: SiteKey, by: Doer, id: RoleId): Promise<void> {
    await this.#change(key, by, async (trx, _, powers) => {
      if (isShipped(id))
        throw new ProblemError('role-shipped', { name: SHIPPED_ROLES.find((one) => one.id === id)!.name });
      const role = (await rolesMadeFor(trx, key)).find((one) => one.id === id);
      if (!role) throw new ProblemError('role-unknown', { role: id });
      requireWithin(powers, role);
      const count = await countWithRole(trx, key, id);
      if (count > 0) throw new ProblemError('role-in-use', { count, name: role.name });
      if ((await colleagueDirectory(trx, key)).groupRoles.some((one) => one.role === id))
        throw new ProblemError('role-of-group', { name: role.name });
      await deleteRole(trx, key, id);
      return { event: 'role-removed', about: role.name };
    });
  }

  /** Whether a site asks for a second step, and who has none. */
  async security(site: SiteKey): Promise<SiteSecurity> {
    const { database } = this.#parts;
    const [needsSecondStep, without] = await Promise.all([
      needsSecondStepAt(database, site),
      withoutSecondStep(database, site),
    ]);
    return { needsSecondStep, without };
  }

  /** Asks colleagues of a site for a second step, or stops asking. @throws ProblemError `second-step-own` for who has none */
  async setNeedsSecondStep(key: SiteKey, by: Doer, isNeeded: boolean): Promise<void> {
    if (isNeeded && !by.account.hasSecondStep) throw new ProblemError('second-step-own');
    await this.#change(key, by, async (trx) => {
      await setNeedsSecondStep(trx, key, isNeeded);
      return { event: isNeeded ? 'second-step-asked-for' : 'second-step-left', about: '' };
    });
  }

  /** Makes one change after the other, each in a transaction with its line in the log; all processes hear of it. */
  async #change(
    key: SiteKey,
    by: Doer,
    make: (
      trx: Database,
      site: Site,
      powers: Powers,
    ) => Promise<{ readonly event: Parameters<typeof noteSecurity>[1]['event']; readonly about: string }>,
  ): Promise<void> {
    const { database, cache, people, now } = this.#parts;
    const { site } = await cache.current(key);
    try {
      await database.transaction(async (trx) => {
        await lockColleagues(trx, key);
        const done = await make(trx, site, await people.powersOf(key, by.account));
        await noteSecurity(trx, { at: now(), site: key, account: by.account, place: by.place, ...done });
        await tellPeople(trx, key);
      });
    } finally {
      people.forget(key);
    }
  }

  async #theirs(trx: Database, key: SiteKey, by: Doer, id: string): Promise<StoredColleague> {
    if (id === by.account.id) throw new ProblemError('colleague-self');
    const [found] = await colleaguesOf(trx, key, id);
    if (!found) throw new ProblemError('colleague-unknown');
    return found;
  }

  async #requireGivable(site: Site, powers: Powers, roles: readonly RoleAt[]): Promise<void> {
    requireGivable(site, await this.#parts.people.rolesOf(site.key), powers, roles);
  }
}

/** @throws ProblemError where a role may do more than who makes it may on the whole site */
function requireWithin({ onSite }: Powers, role: Role): void {
  if (!hasAllOf(onSite?.permissions ?? 0, permissionsOf(role)))
    throw new ProblemError('role-beyond-own', { name: role.name });
}

const placeWords = (site: Site, page: PageId | null): string =>
  page === null ? 'on the whole site' : `in ‘${textIn(nodeAt(site, page).title, site.settings.language)}’`;

const asTold = (one: StoredColleague, isTold: boolean): Colleague => ({
  id: one.account,
  name: one.name,
  email: isTold ? one.email : '',
  state: one.isSuspended ? 'suspended' : one.isHere ? 'here' : 'invited',
  lastSeen: isTold ? (one.lastSeen?.toISOString() ?? null) : null,
  roles: [...one.roles],
  placesFromDirectory: one.directoryId === null ? null : [...one.placesFromDirectory],
});
