import { setTimeout as pause } from 'node:timers/promises';
import type { Robot } from 'robots-parser';
import type { FileKind } from '#core/files/file.ts';
import type { SiteKey } from '#core/model/ids.ts';
import type { OldTextAnswer } from '#contract/old-site.ts';
import type { Database } from '../database/connect.ts';
import type { LibraryService } from '../library/library-service.ts';
import { ProblemError } from '../problem.ts';
import { decodeHtml } from './decode-text.ts';
import { describedThings } from './described-things.ts';
import { kindAt, takeOldFile } from './old-files.ts';
import { oldPageAt } from './old-site-repository.ts';
import { oldText } from './old-text.ts';
import { AGENT, type FetchLimits, type Fetched, politeFetch } from './polite-fetch.ts';
import { CrawlFault, robotsAt } from './robots.ts';

const MAX_PAGE = 3_000_000;
const MAX_WAIT_MS = 15_000;
const MAX_HOPS = 5;
/** So many files come along with one text, for so long; the rest is told. */
const MAX_FILES = 60;
const LONGEST_MS = 90_000;
const PAUSE_MS = 150;

/** What is taken over of an old page. */
export interface Taking {
  readonly site: SiteKey;
  readonly address: string;
  /** Files up to so many bytes come along. */
  readonly largest: number;
  readonly account: string;
}

/** Takes the texts of old pages over, with the pictures and documents that they show. It asks as politely as the crawler does. */
export class OldTextService {
  readonly #parts: { readonly database: Database; readonly library: LibraryService };
  readonly #allowedHosts: ReadonlySet<string>;

  constructor(database: Database, library: LibraryService, allowedHosts: ReadonlySet<string>) {
    this.#parts = { database, library };
    this.#allowedHosts = allowedHosts;
  }

  /** @throws ProblemError `old-page-unknown` where the inventory has no such page, `old-page-unread` where it cannot be read */
  async take({ site, address, largest, account }: Taking, signal: AbortSignal): Promise<OldTextAnswer> {
    const page = await oldPageAt(this.#parts.database, site, address);
    if (!page) throw new ProblemError('old-page-unknown', { address });
    const limits: FetchLimits = { largest: MAX_PAGE, longestMs: MAX_WAIT_MS, allowedHosts: this.#allowedHosts };
    const robots = await robotsAt(address, limits, signal).catch(unread(address));
    const { body, type } = await this.#read(address, robots, limits, signal);
    const decoded = decodeHtml(body, type);
    const text = oldText(decoded, address, page.title);
    const { host } = new URL(address);
    const isTaken = (one: string, kinds: readonly FileKind[] | null) =>
      new URL(one).host === host && (kinds === null || kinds.includes(kindAt(one)!));
    const wanted = [
      ...text.pictures.filter((one) => isTaken(one, null)),
      ...text.links.filter((one) => isTaken(one, ['document', 'film', 'sound', 'picture'])),
    ];
    const files: OldTextAnswer['files'] = [];
    const left: OldTextAnswer['left'] = text.pictures
      .filter((one) => !isTaken(one, null))
      .map((one) => ({ address: one, why: 'It stands on another host.' }));
    const until = Date.now() + LONGEST_MS;
    for (const [at, one] of [...new Set(wanted)].entries()) {
      signal.throwIfAborted();
      const leave = (why: string) => left.push({ address: one, why });
      if (at >= MAX_FILES || Date.now() > until) leave('There were too many. Take the text over again for the rest.');
      else if (robots.isAllowed(one, AGENT) === false) leave('robots.txt asks not to read it.');
      else {
        const fetched = await politeFetch(one, { ...limits, largest }, signal);
        if (!fetched.ok) leave(fetched.detail);
        else if (fetched.status !== 200) leave(`It answers with ${fetched.status}.`);
        else {
          const taken = await takeOldFile(this.#parts, { site, address: one, bytes: fetched.body, account });
          if (typeof taken === 'string') leave(taken);
          else files.push({ address: one, file: taken });
        }
        await pause(PAUSE_MS, undefined, { signal });
      }
    }
    return { html: text.html, things: describedThings(decoded), files, left };
  }

  async #read(
    start: string,
    robots: Robot,
    limits: FetchLimits,
    signal: AbortSignal,
  ): Promise<Extract<Fetched, { ok: true }>> {
    let address = start;
    for (let hop = 0; hop <= MAX_HOPS; hop++) {
      if (robots.isAllowed(address, AGENT) === false)
        throw new ProblemError('old-page-unread', { address, reason: 'Its robots.txt asks programs not to read it.' });
      const fetched = await politeFetch(address, limits, signal);
      if (!fetched.ok) throw new ProblemError('old-page-unread', { address, reason: fetched.detail });
      if (fetched.movedTo !== null && new URL(fetched.movedTo).host === new URL(start).host) {
        address = fetched.movedTo;
        continue;
      }
      if (fetched.status !== 200 || !/html/i.test(fetched.type)) {
        const what =
          fetched.status === 200 ? `It is no page but ${fetched.type}.` : `It answers with ${fetched.status}.`;
        throw new ProblemError('old-page-unread', { address, reason: what });
      }
      return fetched;
    }
    throw new ProblemError('old-page-unread', { address: start, reason: 'It leads on and on.' });
  }
}

const unread =
  (address: string) =>
  (fault: unknown): never => {
    if (!(fault instanceof CrawlFault)) throw fault;
    throw new ProblemError('old-page-unread', { address, reason: fault.message });
  };
