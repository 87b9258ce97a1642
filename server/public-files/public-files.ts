import { existsSync, mkdirSync, readlinkSync, renameSync, symlinkSync, unlinkSync } from 'node:fs';
import { mkdir, open, readdir, rm, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import type { Logger } from 'pino';
import { leadingAddresses } from '#core/derive/redirects.ts';
import { nginxMaps } from '#core/formats/redirect-rules.ts';
import { leadingRules } from '../exports/leading-rules.ts';
import type { Release } from '../live/live-repository.ts';
import type { LiveSites } from '../live/live-sites.ts';
import type { LiveView } from '../live/live-view.ts';
import { ReadyAnswer } from '../live/ready-answer.ts';
import { fileFor, publicPaths } from './public-paths.ts';
import { nginxConfig } from './nginx-config.ts';

/** The link to what visitors have now, in the folder of a site. */
const NOW = 'now';
/** The longest time that timers take, in milliseconds. */
const LONGEST_WAIT = 2 ** 31 - 1;

/**
 * What everyone gets of each site, as files for a web server to answer from. They are those of one release and one moment, or there
 * are none, and Spur answers:
 *
 *   away ── made whole ──▶ there ── a release, works, the clock ──▶ away
 *
 * To come and to go is one step for the file system, since a site's files are found through one link. They go as soon as a release
 * is heard of, so nobody gets one of the old files after a new answer of Spur.
 */
export class PublicFiles {
  readonly #folder: string;
  readonly #sites: LiveSites;
  readonly #log: Logger;
  readonly #now: () => number;
  /** How often the files of a site have gone away: who makes them sees by it whether they still hold. */
  readonly #rounds = new Map<string, number>();
  readonly #timers = new Map<string, NodeJS.Timeout>();
  #work: Promise<void> = Promise.resolve();
  #isEnded = false;

  private constructor(folder: string, sites: LiveSites, log: Logger, now: () => number) {
    this.#folder = folder;
    this.#sites = sites;
    this.#log = log;
    this.#now = now;
  }

  /**
   * Writes the configuration for nginx, and lays the files of all sites anew.
   * @param folder where they go; it holds nothing else
   * @param upstream host and port at which this side answers
   */
  static async start(
    folder: string,
    upstream: string,
    sites: LiveSites,
    log: Logger,
    now: () => number = Date.now,
  ): Promise<PublicFiles> {
    mkdirSync(folder, { recursive: true });
    const config = nginxConfig({ folder, upstream });
    await writeFile(join(folder, 'nginx-http.conf'), config.http);
    await writeFile(join(folder, 'nginx-server.conf'), config.server);
    const files = new PublicFiles(folder, sites, log, now);
    for (const entry of await readdir(folder, { withFileTypes: true }))
      if (entry.isDirectory()) files.renew(entry.name);
    await files.renewAll();
    return files;
  }

  /** Takes the files of a site away, and makes them anew beside all else. */
  renew(key: string): void {
    this.#rounds.set(key, (this.#rounds.get(key) ?? 0) + 1);
    clearTimeout(this.#timers.get(key));
    try {
      unlinkSync(join(this.#folder, key, NOW));
    } catch {
      // There was none.
    }
    if (this.#isEnded) return;
    this.#work = this.#work
      .then(() => this.#lay(key))
      .catch((fault: unknown) => this.#log.error({ err: fault, site: key }, 'the public files could not be made'));
  }

  async renewAll(): Promise<void> {
    for (const key of await this.#sites.keys()) this.renew(key);
  }

  /** Waits until what was begun is made. */
  settled(): Promise<void> {
    return this.#work;
  }

  /** Ends. The files stay, but for those of sites in which the clock will turn something. */
  async end(): Promise<void> {
    this.#isEnded = true;
    for (const key of this.#timers.keys()) this.renew(key);
    await this.#work;
  }

  async #lay(key: string): Promise<void> {
    const round = this.#rounds.get(key)!;
    const holds = () => this.#rounds.get(key) === round && !this.#isEnded;
    if (!holds()) return;
    const live = await this.#sites.forEveryone(key);
    const top = join(this.#folder, key);
    if (!live) return rm(top, { recursive: true, force: true });
    const name = `release-${process.pid}-${round}`;
    const fresh = join(top, name);
    await mkdir(fresh, { recursive: true });
    await this.#writeRedirects(fresh, live);
    for (const path of publicPaths(live.view, this.#now())) {
      if (!holds()) return rm(fresh, { recursive: true, force: true });
      const answer = await this.#sites.answer(key, path);
      if (answer instanceof ReadyAnswer) await this.#write(fresh, path, answer);
    }
    if (!holds()) return rm(fresh, { recursive: true, force: true });
    const before = leadTo(top, name);
    const { until } = live.view;
    if (until !== Infinity) {
      const wait = Math.min(until - this.#now(), LONGEST_WAIT);
      this.#timers.set(key, setTimeout(() => this.renew(key), wait).unref());
    }
    for (const other of await readdir(top))
      if (other !== name && (other === before || isLeft(other)))
        await rm(join(top, other), { recursive: true, force: true });
  }

  /** The forms of an answer, where everyone gets it alike; the day of a file is the second that its tag names. */
  async #write(fresh: string, path: string, answer: ReadyAnswer): Promise<void> {
    if (answer.status !== 200 || answer.header('Cache-Control') !== 'public, no-cache') return;
    for (const { encoding, body, stamp } of answer.forms()) {
      const name = fileFor(path, answer.header('X-Robots-Tag') === undefined, encoding);
      if (name === null) continue;
      const file = join(fresh, name);
      const handle = await open(file, 'w').catch(async () => {
        await mkdir(dirname(file), { recursive: true });
        return open(file, 'w');
      });
      try {
        await handle.writeFile(body);
        await handle.utimes(stamp, stamp);
      } finally {
        await handle.close();
      }
    }
  }

  async #writeRedirects(fresh: string, { release, view }: { release: Release; view: LiveView }): Promise<void> {
    const { base } = view.place;
    const rules = leadingRules(leadingAddresses(release.whole, release.sources), view.derived, base);
    const { moved, gone } = nginxMaps(rules.map((rule) => ({ ...rule, path: base + rule.path })));
    await writeFile(join(fresh, 'moved.map'), `${moved.join('\n')}\n`);
    await writeFile(join(fresh, 'gone.map'), `${gone.join('\n')}\n`);
  }
}

/** Lets a site's link lead to another of its folders, in one step, and gives the name of the one before. */
function leadTo(top: string, name: string): string | null {
  const before = existsSync(join(top, NOW)) ? readlinkSync(join(top, NOW)) : null;
  const link = join(top, `${name}.link`);
  symlinkSync(name, link);
  renameSync(link, join(top, NOW));
  return before;
}

/** Whether a folder is an earlier one of this process, or of one that has ended. */
function isLeft(name: string): boolean {
  const maker = /^release-(\d+)-/.exec(name)?.[1];
  if (maker === undefined) return false;
  return Number(maker) === process.pid || !existsSync(`/proc/${maker}`);
}
