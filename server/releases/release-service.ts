import type { PlainAccount } from '../accounts/account-repository.ts';
import { settingsDifferences } from '#core/changes/waiting-settings.ts';
import { planRelease, waitingPages } from '#core/changes/release-plan.ts';
import type { TextNeeds } from '#core/changes/settings-along.ts';
import { type TakeBackPlan, planTakeBack } from '#core/changes/take-back.ts';
import type { SiteKey } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import type { Operation } from '#core/operations/operation.ts';
import { forbiddenIn, forbiddenWords } from '#core/people/forbidden.ts';
import type { Powers } from '#core/people/powers.ts';
import type { ReleaseBody } from '#contract/releases.ts';
import type { Database } from '../database/connect.ts';
import type { Done, EditService } from '../edits/edit-service.ts';
import { notAllowed } from '../people/people.ts';
import { ProblemError } from '../problem.ts';
import type { SiteCache } from '../sites/site-cache.ts';
import type { ReleaseCounts } from '../edits/outcome.ts';
import { textNeeds } from './text-needs-repository.ts';
import { releaseDone, releasesSince } from './release-repository.ts';

/** What a release was: its number, and what it counts. */
export interface Released extends ReleaseCounts {
  readonly revision: number;
}

/** What is asked before a release is made, and told after it. */
export interface ReleaseGate {
  /** Gives what refuses, for the site as it is when the release is made, what lacks approval. @param site as it is known */
  gate(
    site: Site,
    account: PlainAccount,
    override: string | undefined,
  ): Promise<(site: Site, operation: Extract<Operation, { name: 'release.make' }>) => void>;
  closeLive(site: Site): Promise<void>;
}

/** Where nothing ever needs approval. */
export const OPEN_GATE: ReleaseGate = {
  gate: () => Promise.resolve(() => undefined),
  closeLive: () => Promise.resolve(),
};

/** Makes releases and takes them back. */
export class ReleaseService {
  readonly #database: Database;
  readonly #cache: SiteCache;
  readonly #edits: EditService;
  readonly #gate: ReleaseGate;

  constructor(database: Database, cache: SiteCache, edits: EditService, gate: ReleaseGate) {
    this.#gate = gate;
    this.#database = database;
    this.#cache = cache;
    this.#edits = edits;
  }

  /**
   * Makes a release of what is asked for and all that must come along.
   * @throws ProblemError where a page is not known, or nothing of it would differ for visitors
   */
  make(
    key: SiteKey,
    account: PlainAccount,
    asked: Pick<ReleaseBody, 'pages' | 'retire'> & Partial<ReleaseBody>,
  ): Promise<Released> {
    return this.#cache.inTurn(key, async () => {
      const made = await this.#edits.repeated(key, asked.request);
      if (made) return releasedBy(made);
      const { site: known } = await this.#cache.catchUp(key);
      const needs = await textNeeds(this.#database, known);
      const refuse = await this.#gate.gate(known, account, asked.override);
      const done = await this.#edits.commit(key, account, asked.request ?? null, undefined, (site) => {
        const { operation, after } = this.#plan(site, asked, needs);
        const settings = partsOf(site, after);
        refuse(site, operation);
        if (after === site) throw new ProblemError('nothing-to-release');
        return {
          operations: [operation],
          kind: 'release',
          words: releaseWords(operation, asked.name ?? ''),
          release: {
            name: asked.name ?? '',
            note: asked.note ?? '',
            override: asked.override ?? '',
            pages: operation.pages.length,
            retired: operation.retire.length,
            settings,
            takesBack: null,
          },
        };
      });
      // The release is made: what could not be closed is closed with the next one.
      await this.#gate.closeLive(done.site).catch(() => undefined);
      return releasedBy(done);
    });
  }

  /** The release that a request has made; null where it has made none. */
  async madeBy(key: SiteKey, request: string): Promise<Released | null> {
    const made = await this.#cache.inTurn(key, () => this.#edits.repeated(key, request));
    return made && releasedBy(made);
  }

  /** Makes sure that somebody may make a release, as the site is now. @throws ProblemError */
  async requireAllowed(
    key: SiteKey,
    account: PlainAccount,
    powers: Powers,
    asked: Pick<ReleaseBody, 'pages' | 'retire'> & Partial<ReleaseBody>,
  ): Promise<void> {
    const { site } = await this.#cache.current(key);
    const { operation } = this.#plan(site, asked, await textNeeds(this.#database, site));
    const forbidden = forbiddenIn(site, powers, [operation]);
    if (forbidden) throw notAllowed(forbiddenWords(powers, forbidden));
    (await this.#gate.gate(site, account, asked.override))(site, operation);
  }

  /** What it is to take back a release as the site is now. @throws ProblemError where there is none of that number */
  async takeBackPlan(key: SiteKey, number: number): Promise<{ plan: TakeBackPlan; revision: number }> {
    const { site, revision } = await this.#cache.current(key);
    return { plan: await this.#takeBackPlan(site, number), revision };
  }

  /**
   * Takes back a release by a new one.
   * @throws ProblemError `take-back-blocked` where later releases build on it, unless `anyway`: then the rest is taken back
   */
  takeBack(
    key: SiteKey,
    account: PlainAccount,
    number: number,
    { anyway = false, request }: { anyway?: boolean; request?: string },
  ): Promise<Released> {
    return this.#cache.inTurn(key, async () => {
      const repeated = await this.#edits.repeated(key, request);
      if (repeated) return releasedBy(repeated);
      // The plan is made of the site that is saved on: where another process is first, it is refused and made again.
      for (;;) {
        const { site, revision } = await this.#cache.catchUp(key);
        const plan = await this.#takeBackPlan(site, number);
        const inTheWay = plan.left.length + plan.leftSettings.length;
        if (!plan.operation) throw new ProblemError('nothing-to-take-back', { release: number });
        if (inTheWay > 0 && !anyway) throw new ProblemError('take-back-blocked', { release: number, count: inTheWay });
        const { operation } = plan;
        try {
          const done = await this.#edits.commit(key, account, request ?? null, revision, () => ({
            operations: [operation],
            kind: 'release',
            words: `took back release ${number}`,
            release: {
              name: `Release ${number} taken back`,
              note: '',
              override: '',
              pages: plan.madeLive,
              retired: plan.takenDown,
              settings: plan.settings,
              takesBack: number,
            },
          }));
          return releasedBy(done);
        } catch (fault) {
          if (!(fault instanceof ProblemError) || fault.code !== 'stale-revision') throw fault;
        }
      }
    });
  }

  #plan(site: Site, asked: Pick<ReleaseBody, 'pages' | 'retire'> & Partial<ReleaseBody>, needs: TextNeeds) {
    const unknown = [...(asked.pages === 'all' ? [] : asked.pages), ...asked.retire].find(
      (page) => !site.nodes.has(page) && !site.live.has(page),
    );
    if (unknown !== undefined) throw new ProblemError('page-unknown', { page: unknown });
    return planRelease(site, {
      pages: asked.pages === 'all' ? waitingPages(site) : asked.pages,
      retire: asked.retire,
      needs,
      ...(asked.settings && { settings: asked.settings }),
      ...(asked.leadsTo && { leadsTo: asked.leadsTo }),
    });
  }

  async #takeBackPlan(site: Site, number: number): Promise<TakeBackPlan> {
    const done = await releaseDone(this.#database, site.key, number);
    if (!done) throw new ProblemError('release-unknown', { release: number });
    const releases = [done, ...(await releasesSince(this.#database, site.key, number))];
    // What visitors had after one is what they had before the next one.
    const [taken, ...later] = releases.map(({ settings, ...one }, at) => {
      const next = releases[at + 1];
      return { ...one, settingsBefore: settings, settingsAfter: next ? next.settings : site.liveSettings };
    });
    return planTakeBack(site, taken!, later);
  }
}

/** @throws ProblemError where the request had made an edit that is no release */
function releasedBy({ revision, release }: Done): Released {
  if (!release) throw new ProblemError('request-reused');
  return { revision, ...release };
}

/** The parts of the settings that a release changes for visitors; none with the first one, which brings all of it. */
const partsOf = (before: Site, after: Site) =>
  before.liveSettings === null || after.liveSettings === null
    ? []
    : settingsDifferences(before.liveSettings, after.liveSettings);

function releaseWords(operation: Extract<Operation, { name: 'release.make' }>, name: string): string {
  const count = (n: number) => (n === 1 ? '1 page' : `${n} pages`);
  const did = [
    operation.pages.length > 0 && `made ${count(operation.pages.length)} live`,
    operation.retire.length > 0 && `took ${count(operation.retire.length)} down`,
  ].filter((words) => words !== false);
  const words = did.join(' and ') || 'made settings of the site live';
  return name === '' ? words : `${words}: ‘${name}’`;
}
