import type { PageId, SiteKey } from '#core/model/ids.ts';
import { type Permission, has } from '#core/model/permission.ts';
import { forbiddenWords } from '#core/people/forbidden.ts';
import { FULL_POWERS, NO_POWERS, type Powers, mayAt, maySomewhere, powersOf } from '#core/people/powers.ts';
import { type Role, SHIPPED_ROLES } from '#core/people/role.ts';
import type { Account } from '#contract/api.ts';
import type { Database } from '../database/connect.ts';
import { ProblemError } from '../problem.ts';
import type { SiteCache } from '../sites/site-cache.ts';
import { needsSecondStepAt, rolesInForce, rolesMadeFor } from './people-repository.ts';

/** What is known of a site's colleagues is read again after so long, should the word that it changed not have come through. */
const KNOWN_MS = 30_000;

interface Known {
  /** Whether it asks its colleagues for a second step. */
  readonly needsSecondStep: boolean;
  readonly powers: ReadonlyMap<string, Powers>;
  readonly until: number;
}

/**
 * Who may do what on each site. It is asked with each request, so it is remembered; what changes here is forgotten at once, and what
 * another process changes as soon as it is told (`forget`).
 */
export class People {
  readonly #database: Database;
  readonly #cache: SiteCache;
  readonly #now: () => Date;
  readonly #known = new Map<SiteKey, Known>();
  #forgettings = 0;

  constructor(database: Database, cache: SiteCache, now: () => Date) {
    this.#database = database;
    this.#cache = cache;
    this.#now = now;
  }

  forget(site: SiteKey): void {
    this.#forgettings += 1;
    this.#known.delete(site);
  }

  forgetAll(): void {
    this.#forgettings += 1;
    this.#known.clear();
  }

  /** What an account may do on a site; nothing where it is no colleague. */
  powersOf(site: SiteKey, account: Pick<Account, 'id' | 'looksAfterAll'>): Powers | Promise<Powers> {
    if (account.looksAfterAll) return FULL_POWERS;
    const known = this.#remembered(site);
    if (known) return known.powers.get(account.id) ?? NO_POWERS;
    return this.#read(site).then(({ powers }) => powers.get(account.id) ?? NO_POWERS);
  }

  #remembered(site: SiteKey): Known | undefined {
    const known = this.#known.get(site);
    return known && known.until > this.#now().getTime() ? known : undefined;
  }

  /** Whether an account is known to be a colleague of a site, without asking the database. */
  isKnownColleague(site: SiteKey, account: Pick<Account, 'id' | 'looksAfterAll' | 'hasSecondStep'>): boolean {
    const known = this.#remembered(site);
    if (!known || (known.needsSecondStep && !account.hasSecondStep)) return false;
    return account.looksAfterAll || maySomewhere(known.powers.get(account.id) ?? NO_POWERS, 'read');
  }

  #isColleague(site: SiteKey, { id }: Pick<Account, 'id'>): boolean {
    return maySomewhere(this.#remembered(site)?.powers.get(id) ?? NO_POWERS, 'read');
  }

  /** All roles of a site: those that every site has, and those that were made for it. */
  async rolesOf(site: SiteKey): Promise<readonly Role[]> {
    return [...SHIPPED_ROLES, ...(await rolesMadeFor(this.#database, site))];
  }

  async #read(site: SiteKey): Promise<Known> {
    const before = this.#forgettings;
    const [needsSecondStep, roles, inForce] = await Promise.all([
      needsSecondStepAt(this.#database, site),
      this.rolesOf(site),
      rolesInForce(this.#database, site),
    ]);
    const powers = new Map([...inForce].map(([account, rolesAt]) => [account, powersOf(roles, rolesAt)]));
    const known = { needsSecondStep, powers, until: this.#now().getTime() + KNOWN_MS };
    // What was read while something changed may be out of date: it is not kept.
    if (this.#forgettings === before) this.#known.set(site, known);
    return known;
  }

  /**
   * Makes sure that an account holds a permission: on the whole site, at a page, or somewhere.
   * @throws ProblemError `site-unknown` for who is no colleague, who is not told whether there is such a site; `second-step-needed`; `not-allowed`
   */
  async require(
    site: SiteKey,
    account: Pick<Account, 'id' | 'looksAfterAll' | 'hasSecondStep'>,
    permission: Permission,
    at: PageId | null | 'somewhere',
  ): Promise<void> {
    const { needsSecondStep } = this.#remembered(site) ?? (await this.#read(site));
    if (needsSecondStep && !account.hasSecondStep && (account.looksAfterAll || this.#isColleague(site, account)))
      throw new ProblemError('second-step-needed');
    if (account.looksAfterAll) return;
    const powers = await this.powersOf(site, account);
    if (!maySomewhere(powers, 'read')) throw new ProblemError('site-unknown', { site });
    if (at === 'somewhere') {
      if (maySomewhere(powers, permission)) return;
      const { site: tree } = await this.#cache.current(site);
      throw notAllowed(forbiddenWords(powers, { permission, at: null, site: tree }));
    }
    if (at === null && powers.onSite && has(powers.onSite.permissions, permission)) return;
    const { site: tree } = await this.#cache.current(site);
    if (mayAt(tree, powers, permission, at)) return;
    throw notAllowed(forbiddenWords(powers, { permission, at, site: tree }));
  }
}

/** @param reason which role holds where, as sentences */
export const notAllowed = (reason: string): ProblemError => new ProblemError('not-allowed', { reason });
