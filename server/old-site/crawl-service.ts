// A crawl: running → done, stopped or failed; stopped or failed → running again, from where it was. What was read and
// what is still to be read stand in the database, so that a crawl goes on after the process that ran it has died.
import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import type { Robot } from 'robots-parser';
import { FILE_TYPES, type FileKind } from '#core/files/file.ts';
import { MAX_OLD_PAGES, unreadPage } from '#core/carryover/inventory.ts';
import type { SiteKey } from '#core/model/ids.ts';
import type { CrawlBody } from '#contract/old-site.ts';
import type { Database } from '../database/connect.ts';
import type { LibraryService } from '../library/library-service.ts';
import type { JobQueue } from '../jobs/job-queue.ts';
import { ProblemError } from '../problem.ts';
import {
  type Crawl,
  addAddresses,
  countAddresses,
  countLinks,
  crawlAt,
  faultOf,
  holdingCrawl,
  insertCrawl,
  latestCrawl,
  markDone,
  nextAddress,
  reopenAddresses,
  runningCrawls,
  setCrawlState,
} from './crawl-repository.ts';
import { decodeHtml } from './decode-text.ts';
import { normalAddress } from './normal-address.ts';
import { countOldPages, countOldSiteChange, putOldPages } from './old-site-repository.ts';
import { AGENT, type FetchLimits, politeFetch } from './polite-fetch.ts';
import { kindAt, takeOldFile } from './old-files.ts';
import { readHtml } from './read-page.ts';
import { CrawlFault, robotsAt } from './robots.ts';

const MAX_PAGE = 3_000_000;
const MAX_WAIT_MS = 15_000;
/** A site that asks for longer pauses than this is read with this one. */
const MAX_PAUSE_MS = 20_000;
const MAX_FAILURES = 10;

/** Reads old sites page by page, as a guest: it asks `robots.txt` first, stays on the host, and waits between pages. */
export class CrawlService {
  readonly #database: Database;
  readonly #library: LibraryService;
  readonly #now: () => Date;
  readonly #allowedHosts: ReadonlySet<string>;
  #queue: JobQueue | null = null;

  constructor(database: Database, library: LibraryService, now: () => Date, allowedHosts: ReadonlySet<string>) {
    this.#database = database;
    this.#library = library;
    this.#now = now;
    this.#allowedHosts = allowedHosts;
  }

  /** The queue that the crawls go through. It has `run` as its worker, so it comes after this. */
  useQueue(queue: JobQueue): void {
    this.#queue = queue;
  }

  /** @throws ProblemError where the address is none, or a crawl of the site is under way. */
  async start(site: SiteKey, { start, mostPages, pauseMs, files }: CrawlBody): Promise<void> {
    const address = normalAddress(start.trim());
    if (address === null) throw new ProblemError('not-an-address', { address: start.slice(0, 200) });
    if ((await latestCrawl(this.#database, site))?.state === 'running') throw new ProblemError('crawl-running');
    const id = randomUUID();
    await insertCrawl(this.#database, {
      id,
      site,
      start: address,
      most_pages: mostPages,
      pause_ms: pauseMs,
      file_kinds: files.kinds,
      largest_file: files.largest,
      began_at: this.#now(),
    });
    await this.#queue!.send('crawl', { crawl: id });
  }

  async stop(site: SiteKey): Promise<void> {
    const crawl = await this.#latest(site);
    await setCrawlState(this.#database, crawl.id, ['running'], 'stopped', null, this.#now());
  }

  /** Goes on with a crawl that was stopped or has failed, from where it was. */
  async resume(site: SiteKey): Promise<void> {
    const crawl = await this.#latest(site);
    if (crawl.state === 'running') throw new ProblemError('crawl-running');
    if (await setCrawlState(this.#database, crawl.id, ['stopped', 'failed'], 'running', null, this.#now()))
      await this.#queue!.send('crawl', { crawl: crawl.id });
  }

  /** At the start of a process: takes up the crawls that were under way when one ended. */
  async takeUp(): Promise<void> {
    for (const id of await runningCrawls(this.#database)) await this.#queue!.send('crawl', { crawl: id });
  }

  /** The work of one crawl, until nothing is left to read, somebody stops it, or the process ends. */
  readonly run = async ({ crawl: id }: { crawl: string }, signal: AbortSignal): Promise<void> => {
    await holdingCrawl(this.#database, id, async () => {
      const crawl = await crawlAt(this.#database, id);
      if (crawl?.state !== 'running') return;
      try {
        await this.#read(crawl, signal);
      } catch (fault) {
        if (signal.aborted) return;
        await setCrawlState(this.#database, id, ['running'], 'failed', (fault as Error).message, this.#now());
        if (!(fault instanceof CrawlFault)) throw fault;
      }
    });
  };

  async #read(crawl: Crawl, signal: AbortSignal): Promise<void> {
    const limits: FetchLimits = {
      largest: Math.max(MAX_PAGE, crawl.largest_file),
      longestMs: MAX_WAIT_MS,
      allowedHosts: this.#allowedHosts,
    };
    const robots = await robotsAt(crawl.start, limits, signal);
    const asked = (robots.getCrawlDelay(AGENT) ?? 0) * 1000;
    const waitMs = Math.min(MAX_PAUSE_MS, Math.max(crawl.pause_ms, asked));
    /** Addresses in a row that got no answer: they are read again when the crawl goes on. */
    let unanswered: string[] = [];
    for (;;) {
      signal.throwIfAborted();
      const [now, counts] = await Promise.all([
        crawlAt(this.#database, crawl.id),
        countAddresses(this.#database, crawl.id),
      ]);
      if (now?.state !== 'running') return this.#count(crawl);
      const address = await nextAddress(this.#database, crawl.id);
      const isFull = counts.read >= crawl.most_pages;
      if (address === undefined || isFull) {
        const why =
          isFull && address !== undefined ? `It stopped at ${crawl.most_pages} pages, as it was told to.` : null;
        await this.#count(crawl);
        await setCrawlState(this.#database, crawl.id, ['running'], 'done', why, this.#now());
        return;
      }
      const answered = await this.#readOne(crawl, address, robots, limits, signal);
      unanswered = answered ? [] : [...unanswered, address];
      const isFirst = counts.read === 0 && !answered;
      if (isFirst || unanswered.length >= MAX_FAILURES) {
        const why = isFirst ? await faultOf(this.#database, crawl.id, address) : null;
        await reopenAddresses(this.#database, crawl.id, unanswered);
        throw new CrawlFault(why ?? `The site no longer answers: ${MAX_FAILURES} pages in a row failed. Go on later.`);
      }
      await pause(waitMs, undefined, { signal });
    }
  }

  /** What is known only when all, or enough, is read. */
  async #count({ id, site }: Crawl): Promise<void> {
    await countLinks(this.#database, site, id);
    await countOldSiteChange(this.#database, site);
  }

  /** Reads one address and notes what came of it. Gives whether the site answered. */
  async #readOne(
    crawl: Crawl,
    address: string,
    robots: Robot,
    limits: FetchLimits,
    signal: AbortSignal,
  ): Promise<boolean> {
    const done = (fault: string | null, links: readonly string[] | null = null) =>
      markDone(this.#database, crawl.id, address, { fault, links });
    if (robots.isAllowed(address, AGENT) === false) {
      await done('robots.txt asks not to read it');
      return true;
    }
    const fetched = await politeFetch(address, limits, signal);
    signal.throwIfAborted();
    if (!fetched.ok) {
      await done(fetched.detail);
      return fetched.why === 'too-large' || fetched.why === 'forbidden-host' ? address !== crawl.start : false;
    }
    const { status } = fetched;
    if (fetched.movedTo !== null) {
      const target = normalAddress(fetched.movedTo);
      const isHere = target !== null && new URL(target).host === new URL(crawl.start).host;
      await this.#keep(crawl, [{ ...unreadPage(address), status }], isHere ? [target] : []);
      await done(null, isHere ? [target] : []);
    } else if (status >= 400) await done(`It answers with ${status}`);
    else if (!/html/i.test(fetched.type)) await done(await this.#takeFile(crawl, address, fetched.body, fetched.type));
    else if (fetched.body.length > MAX_PAGE) await done(`It is larger than ${MAX_PAGE / 1_000_000} MB`);
    else {
      const { page, links, pictures } = readHtml(decodeHtml(fetched.body, fetched.type), address);
      const wanted = crawl.file_kinds.includes('picture') ? pictures : [];
      await this.#keep(crawl, [{ ...unreadPage(address), ...page, status }], [...links, ...wanted]);
      await done(null, links);
    }
    return status < 500;
  }

  /** Takes a file into the library that the crawl was told to bring; why it was not taken, in words, else null. */
  async #takeFile(crawl: Crawl, address: string, bytes: Uint8Array, type: string): Promise<string | null> {
    const kind = kindAt(address) ?? kindOfType(type);
    if (kind === null || !crawl.file_kinds.includes(kind)) return `It is no page but ${type || 'a file'}`;
    if (bytes.length > crawl.largest_file) return `It is larger than ${crawl.largest_file / 1_000_000} MB`;
    const parts = { database: this.#database, library: this.#library };
    const taken = await takeOldFile(parts, { site: crawl.site, address, bytes, account: null });
    return typeof taken === 'string' ? taken : null;
  }

  async #keep(crawl: Crawl, pages: Parameters<typeof putOldPages>[2], links: readonly string[]): Promise<void> {
    if ((await countOldPages(this.#database, crawl.site)) >= MAX_OLD_PAGES)
      throw new CrawlFault(`The inventory holds ${MAX_OLD_PAGES} addresses, and no more are taken.`);
    await putOldPages(this.#database, crawl.site, pages);
    await addAddresses(this.#database, crawl.id, links);
  }

  async #latest(site: SiteKey): Promise<Crawl> {
    const crawl = await latestCrawl(this.#database, site);
    if (!crawl) throw new ProblemError('crawl-unknown');
    return crawl;
  }
}

/** What a file is by the type that its host names; null where the library takes no such files. */
const kindOfType = (type: string): FileKind | null =>
  FILE_TYPES[type.split(';', 1)[0]!.trim().toLowerCase()]?.kind ?? null;
