import { randomUUID } from 'node:crypto';
import { mostSuspendedUnseen } from '#core/directory/directory-person.ts';
import type { SiteKey } from '#core/model/ids.ts';
import { type ColleagueSyncItem, planColleagues, without } from '#core/people/colleague-sync.ts';
import type { LastSync } from '#contract/directory.ts';
import type { SecurityEvent } from '#contract/people.ts';
import type { AccountLinks } from '../accounts/account-links.ts';
import { accountByEmail, addressesOfThoseWhoLookAfterAll, insertAccount } from '../accounts/account-repository.ts';
import type { Database } from '../database/connect.ts';
import type { JobQueue } from '../jobs/job-queue.ts';
import { requireGivable } from '../people/givable.ts';
import type { Doer } from '../people/colleague-service.ts';
import type { People } from '../people/people.ts';
import { colleaguesOf, lockColleagues, putColleague, setOfDirectory, tellPeople } from '../people/people-repository.ts';
import { ProblemError } from '../problem.ts';
import { noteSecurity } from '../security/security-log-repository.ts';
import type { SiteCache } from '../sites/site-cache.ts';
import {
  type ColleagueDirectory,
  colleagueDirectory,
  nightlyColleagueSites,
  putColleagueDirectory,
  putLastColleagueSync,
} from './colleague-directory-repository.ts';
import { AT_NIGHT, type DirectoryService, NIGHTLY_SYNC, toldSync } from './directory-service.ts';
import type { DirectoryContents } from './scim-client.ts';

/** Who stands in the log for what is done at night, and in the invitations that go out then. */
const NIGHT = { words: 'the night', inviter: 'the organisation’s directory' };

const EVENTS: Readonly<Record<ColleagueSyncItem['kind'], SecurityEvent>> = {
  made: 'invited',
  changed: 'roles-changed',
  suspended: 'colleague-suspended',
  restored: 'colleague-back',
  'in the way': 'roles-changed',
};

interface Parts {
  readonly database: Database;
  readonly cache: SiteCache;
  readonly people: People;
  readonly links: AccountLinks;
  readonly directory: DirectoryService;
  readonly now: () => Date;
}

/**
 * Keeps the colleagues of a site in step with the organisation's directory: looked at first, then done; or by itself at night.
 * Who says which role a group gives must hold all of it there; the groups decide from then on who has it.
 */
export class ColleagueSync {
  readonly #parts: Parts;
  #queue: JobQueue | null = null;

  constructor(parts: Parts) {
    this.#parts = parts;
  }

  /** From now on nights are kept by this queue, if any site asks for it. */
  async useQueue(queue: JobQueue): Promise<void> {
    this.#queue = queue;
    if ((await nightlyColleagueSites(this.#parts.database)).length > 0) await queue.repeat(NIGHTLY_SYNC, AT_NIGHT);
  }

  settings(site: SiteKey): Promise<ColleagueDirectory> {
    return colleagueDirectory(this.#parts.database, site);
  }

  /** Says which groups give which roles. @throws ProblemError where one may do more than who says so, or is not of the site */
  async set(key: SiteKey, by: Doer, settings: Pick<ColleagueDirectory, 'groupRoles' | 'isNightly'>): Promise<void> {
    const { database, cache, people, now } = this.#parts;
    const { site } = await cache.current(key);
    await database.transaction(async (trx) => {
      await lockColleagues(trx, key);
      const before = (await colleagueDirectory(trx, key)).groupRoles;
      const [given, taken] = [without(settings.groupRoles, before), without(before, settings.groupRoles)];
      const roles = await people.rolesOf(key);
      // What was given in a branch that is gone is taken away by anybody.
      const standing = taken.filter(({ page }) => page === null || site.nodes.has(page));
      requireGivable(site, roles, await people.powersOf(key, by.account), [...given, ...standing]);
      await putColleagueDirectory(trx, key, settings);
      if (given.length + taken.length > 0)
        await noteSecurity(trx, {
          at: now(),
          event: 'groups-changed',
          site: key,
          account: by.account,
          place: by.place,
        });
    });
    if (settings.isNightly) await this.#queue?.repeat(NIGHTLY_SYNC, AT_NIGHT);
  }

  /** What a synchronisation would do now. @throws ProblemError where the directory cannot be read */
  async look(site: SiteKey): Promise<ColleagueSyncItem[]> {
    return this.#plan(this.#parts.database, site, await this.#parts.directory.read());
  }

  /** Synchronises a site: all of it or nothing. Whoever is new gets an invitation. @throws ProblemError */
  async sync(site: SiteKey, by: Doer): Promise<ColleagueSyncItem[]> {
    return this.#sync(site, by);
  }

  /** Synchronises every site that asks for it; what cannot be done is told with the site, and the others go on. */
  async syncAtNight(): Promise<void> {
    for (const site of await nightlyColleagueSites(this.#parts.database)) {
      try {
        await this.#sync(site, null);
      } catch (fault) {
        if (!(fault instanceof ProblemError)) throw fault;
        await putLastColleagueSync(this.#parts.database, site, this.#told([], null, fault.message));
      }
    }
  }

  async #plan(database: Database, site: SiteKey, { people }: DirectoryContents): Promise<ColleagueSyncItem[]> {
    const { groupRoles } = await colleagueDirectory(database, site);
    const [roles, colleagues, mayAll] = [
      await this.#parts.people.rolesOf(site),
      await colleaguesOf(database, site),
      await addressesOfThoseWhoLookAfterAll(database),
    ];
    return planColleagues(people, groupRoles, roles, colleagues, new Set(mayAll.map((one) => one.toLowerCase())));
  }

  /** @param by null at night, when few may be suspended at once */
  async #sync(key: SiteKey, by: Doer | null): Promise<ColleagueSyncItem[]> {
    const { database, cache, people, directory } = this.#parts;
    const contents = await directory.read();
    const { name } = (await cache.current(key)).site.settings;
    try {
      return await database.transaction(async (trx) => {
        await lockColleagues(trx, key);
        const items = await this.#plan(trx, key, contents);
        const suspended = items.filter(({ kind }) => kind === 'suspended').length;
        const limit = by === null ? mostSuspendedUnseen(await colleaguesOf(trx, key)) : Infinity;
        if (suspended > limit) throw new ProblemError('directory-doubtful', { count: suspended, limit });
        for (const item of items) await this.#apply(trx, { key, name }, by, item);
        await putLastColleagueSync(trx, key, this.#told(items, by, null));
        await tellPeople(trx, key);
        return items;
      });
    } finally {
      people.forget(key);
    }
  }

  async #apply(
    trx: Database,
    site: { readonly key: SiteKey; readonly name: string },
    by: Doer | null,
    { kind, account, name, email, after }: ColleagueSyncItem,
  ): Promise<void> {
    if (after === null) return;
    const { links, now } = this.#parts;
    const id = account ?? (await this.#accountOf(trx, name, email));
    await putColleague(trx, site.key, id, after.roles, by?.account.id ?? null, after.placesFromDirectory);
    await setOfDirectory(trx, site.key, id, after);
    if (account === null)
      await links.invite(trx, (await accountByEmail(trx, email))!, site, by?.account.name ?? NIGHT.inviter);
    const about = `${name} (${email}), by the directory`;
    await noteSecurity(trx, {
      at: now(),
      event: EVENTS[kind],
      site: site.key,
      account: by?.account ?? null,
      about,
      place: by?.place ?? '',
    });
  }

  /** The account of a mail address; one is made where there is none, and a password is chosen by the invitation. */
  async #accountOf(trx: Database, name: string, email: string): Promise<string> {
    const known = await accountByEmail(trx, email);
    if (known) return known.id;
    const id = randomUUID();
    await insertAccount(trx, { id, name, email, looksAfterAll: false, passwordHash: null }, false);
    return id;
  }

  #told(items: readonly ColleagueSyncItem[], by: Doer | null, fault: string | null): LastSync {
    return toldSync(items, this.#parts.now(), by?.account.name ?? NIGHT.words, fault);
  }
}
