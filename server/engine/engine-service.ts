import { engineReport } from '#core/derive/engine-findings.ts';
import type { SiteKey } from '#core/model/ids.ts';
import type { EngineAnswer, EngineReport } from '#contract/engine.ts';
import type { Database } from '../database/connect.ts';
import { loadRelease } from '../live/live-repository.ts';
import { BackgroundLook, type Tell } from '../looks/background-look.ts';
import { ProblemError } from '../problem.ts';
import { readAsEngine } from '../standins/search-engine.ts';

/** So many addresses of a site are read at most, and so many findings are told. */
const MAX_ADDRESSES = 20_000;
const MAX_FINDINGS = 500;

/** Looks at live sites as a search engine does. */
export class EngineService {
  readonly look: BackgroundLook<EngineReport>;
  readonly #database: Database;
  readonly #liveOrigin: string;
  readonly #now: () => Date;

  constructor(database: Database, liveOrigin: string, now: () => Date) {
    this.#database = database;
    this.#liveOrigin = liveOrigin;
    this.#now = now;
    this.look = new BackgroundLook(database, now, 'engine', (...given) => this.#read(...given));
  }

  show(site: SiteKey): Promise<EngineAnswer> {
    return this.look.show(site);
  }

  /** Begins a look, unless one is under way. @throws ProblemError where nothing is live */
  async start(site: SiteKey): Promise<void> {
    if (!(await loadRelease(this.#database, site))) throw new ProblemError('nothing-live');
    await this.look.start(site);
  }

  stop(site: SiteKey): Promise<void> {
    return this.look.stop(site);
  }

  async #read(site: SiteKey, tell: Tell, signal: AbortSignal): Promise<EngineReport> {
    const release = await loadRelease(this.#database, site);
    if (!release) throw new ProblemError('nothing-live');
    const readAt = this.#now();
    const { seen, isWhole } = await readAsEngine(this.#liveOrigin, site, MAX_ADDRESSES, tell, signal);
    const { indexed, intended, findings } = engineReport(release.site, seen, readAt.getTime());
    return {
      readAt: readAt.toISOString(),
      addresses: seen.length,
      isWhole,
      indexed,
      intended,
      count: findings.length,
      findings: findings.slice(0, MAX_FINDINGS),
    };
  }
}
