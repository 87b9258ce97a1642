import { setTimeout as pause } from 'node:timers/promises';
import type { Robot } from 'robots-parser';
import { type OutsideAnswer, outsideLinksOf } from '#core/checks/link-findings.ts';
import { outsideLinksOfSettings } from '#core/checks/settings-links.ts';
import type { SiteKey } from '#core/model/ids.ts';
import type { LinkReport } from '#contract/links.ts';
import type { Database } from '../database/connect.ts';
import type { JobQueue } from '../jobs/job-queue.ts';
import { BackgroundLook, type Tell } from '../looks/background-look.ts';
import { sitesLookedAt } from '../looks/look-repository.ts';
import { AGENT, type FetchLimits, politeFetch } from '../old-site/polite-fetch.ts';
import { CrawlFault, robotsAt } from '../old-site/robots.ts';
import type { SiteCache } from '../sites/site-cache.ts';
import { outsideTextLinks } from './link-repository.ts';

export const NIGHTLY_LINKS = 'nightly-links';
/** By UTC. */
const AT_NIGHT = '0 3 * * *';

/** So many addresses of a site are asked at most. */
const MAX_ADDRESSES = 5000;
/** So many hosts are asked beside each other, each for one address at a time with a pause between two. */
const HOSTS_AT_ONCE = 6;
const PAUSE_MS = 300;
const MAX_WAIT_MS = 10_000;
/** What is larger is there. */
const MAX_SIZE = 200_000;
const MAX_HOPS = 5;

/** What came of asking for an address: null where all is well. */
type Asked = { readonly fault: OutsideAnswer['fault'] | 'not asked'; readonly says: string } | null;

/** Asks the outside addresses that a site's pages, menus and redirects lead to whether they are there still. It reaches what the crawler may, and no more. */
export class LinkService {
  readonly look: BackgroundLook<LinkReport>;
  readonly #database: Database;
  readonly #cache: SiteCache;
  readonly #now: () => Date;
  readonly #limits: FetchLimits;
  #queue: JobQueue | null = null;

  constructor(database: Database, cache: SiteCache, now: () => Date, allowedHosts: ReadonlySet<string>) {
    this.#database = database;
    this.#cache = cache;
    this.#now = now;
    this.#limits = { largest: MAX_SIZE, longestMs: MAX_WAIT_MS, allowedHosts };
    this.look = new BackgroundLook(database, now, 'links', (...given) => this.#ask(...given));
  }

  /** From now on this queue has the asking, and that of each night for sites whose addresses were asked before. */
  async useQueue(queue: JobQueue): Promise<void> {
    this.#queue = queue;
    this.look.useQueue(queue);
    if ((await sitesLookedAt(this.#database, 'links')).length > 0) await queue.repeat(NIGHTLY_LINKS, AT_NIGHT);
  }

  /** Begins to ask the addresses of a site, unless that is under way. Each night they are asked again. */
  async start(site: SiteKey): Promise<void> {
    await this.look.start(site);
    await this.#queue!.repeat(NIGHTLY_LINKS, AT_NIGHT);
  }

  /** Asks again what was asked before, of all sites. */
  async askAtNight(): Promise<void> {
    for (const site of await sitesLookedAt(this.#database, 'links')) await this.look.start(site);
  }

  async #ask(key: SiteKey, tell: Tell, signal: AbortSignal): Promise<LinkReport> {
    const { site } = await this.#cache.current(key);
    const links = [
      ...outsideLinksOf(site, await outsideTextLinks(this.#database, key)),
      ...outsideLinksOfSettings(site.settings),
    ];
    const all = [...new Set(links.map(({ address }) => address))].sort();
    const addresses = all.slice(0, MAX_ADDRESSES);
    const readAt = this.#now().toISOString();
    const faults: LinkReport['faults'] = [];
    const notAsked: LinkReport['notAsked'] = [];
    const robots = new Map<string, Promise<Robot | CrawlFault>>();
    let asked = 0;
    await tell(0, addresses.length);
    const byHost = new Map<string, string[]>();
    for (const address of addresses) byHost.set(hostOf(address), [...(byHost.get(hostOf(address)) ?? []), address]);
    const hosts = byHost.values();
    const work = async () => {
      for (const ofHost of hosts) {
        for (const [index, address] of ofHost.entries()) {
          signal.throwIfAborted();
          if (index > 0) await pause(PAUSE_MS, undefined, { signal });
          const found = await this.#askOne(address, robots, signal);
          if (found?.fault === 'not asked') notAsked.push({ address, says: found.says });
          else if (found) faults.push({ address, fault: found.fault, says: found.says });
          await tell(++asked, addresses.length);
        }
      }
    };
    await Promise.all(Array.from({ length: HOSTS_AT_ONCE }, work));
    const byAddress = (a: { address: string }, b: { address: string }) => (a.address < b.address ? -1 : 1);
    return {
      readAt,
      addresses: addresses.length,
      isWhole: addresses.length === all.length,
      faults: faults.sort(byAddress),
      notAsked: notAsked.sort(byAddress),
    };
  }

  /** Follows an address to where something answers; each hop is checked like the first. */
  async #askOne(start: string, robots: Map<string, Promise<Robot | CrawlFault>>, signal: AbortSignal): Promise<Asked> {
    let address = start;
    let isForGood = true;
    for (let hop = 0; hop <= MAX_HOPS; hop++) {
      const allowed = await this.#robotsFor(address, robots, signal);
      if (allowed instanceof CrawlFault)
        return { fault: allowed.isForbidden ? 'not asked' : 'no answer', says: allowed.message };
      if (allowed?.isAllowed(address, AGENT) === false)
        return { fault: 'not asked', says: 'Its robots.txt asks programs not to read it.' };
      const fetched = await politeFetch(address, this.#limits, signal);
      signal.throwIfAborted();
      if (!fetched.ok) {
        if (fetched.why === 'too-large') break;
        const fault = fetched.why === 'forbidden-host' || fetched.why === 'not-web' ? 'not asked' : 'no answer';
        return { fault, says: fetched.detail };
      }
      const { status, movedTo } = fetched;
      if (movedTo !== null) {
        isForGood &&= status === 301 || status === 308;
        address = movedTo;
        continue;
      }
      if (status === 404 || status === 410)
        return { fault: 'missing', says: `It answers with ${status}: nothing is there.` };
      if (status >= 500) return { fault: 'no answer', says: `It answers with ${status}, a fault of its own.` };
      // Others are there, and do not open for programs.
      break;
    }
    return address !== start && isForGood ? { fault: 'moved', says: address } : null;
  }

  /** What an address's host lets be read; null for an address of no host. */
  #robotsFor(
    address: string,
    robots: Map<string, Promise<Robot | CrawlFault>>,
    signal: AbortSignal,
  ): Promise<Robot | CrawlFault | null> {
    const host = hostOf(address);
    if (host === '') return Promise.resolve(null);
    let known = robots.get(host);
    if (!known) {
      known = robotsAt(address, this.#limits, signal).catch((fault: unknown) => {
        if (fault instanceof CrawlFault) return fault;
        throw fault;
      });
      robots.set(host, known);
    }
    return known;
  }
}

const hostOf = (address: string): string => (URL.canParse(address) ? new URL(address).origin : '');
