import { existsSync, lstatSync, mkdirSync, readlinkSync, renameSync, symlinkSync, unlinkSync } from 'node:fs';
import { mkdir, open, readdir, rm, writeFile } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
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

/** The folder of what was made, of all sites; a link with a site's key leads to what visitors have of it now. No site has such a key. */
const MADE = '.made';
/** So many pages are made and written at once. */
const AT_ONCE = 6;
/** The longest time that timers take, in milliseconds. */
const MAX_WAIT_LENGTH = 2 ** 31 - 1;

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
    mkdirSync(join(folder, MADE), { recursive: true });
    const config = nginxConfig({ folder, upstream });
    await writeFile(join(folder, 'nginx-http.conf'), config.http);
    await writeFile(join(folder, 'nginx-server.conf'), config.server);
    const files = new PublicFiles(folder, sites, log, now);
    for (const name of await readdir(folder)) if (lstatSync(join(folder, name)).isSymbolicLink()) files.renew(name);
    await files.renewAll();
    return files;
  }

  /** Takes the files of a site away, and makes them anew beside all else. */
  renew(key: string): void {
    this.#rounds.set(key, (this.#rounds.get(key) ?? 0) + 1);
    clearTimeout(this.#timers.get(key));
    try {
      unlinkSync(join(this.#folder, key));
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
    const name = `${key}-${process.pid}-${round}`;
    const fresh = join(this.#folder, MADE, name);
    const isMade = live !== undefined && (await this.#make(fresh, key, live, holds));
    const before = isMade && holds() ? this.#leadTo(key, name) : null;
    if (before === null) await rm(fresh, { recursive: true, force: true });
    else if (live!.view.until !== Infinity) {
      const wait = Math.min(live!.view.until - this.#now(), MAX_WAIT_LENGTH);
      this.#timers.set(key, setTimeout(() => this.renew(key), wait).unref());
    }
    for (const other of await readdir(join(this.#folder, MADE)))
      if (other !== name && (other === before || isLeft(other, key)))
        await rm(join(this.#folder, MADE, other), { recursive: true, force: true });
  }

  /** Makes all files of a site in a new folder. Gives whether they are whole: not, where they do not hold any more before the end. */
  async #make(
    fresh: string,
    key: string,
    live: { release: Release; view: LiveView },
    holds: () => boolean,
  ): Promise<boolean> {
    await mkdir(fresh, { recursive: true });
    await this.#writeRedirects(fresh, live);
    const paths = publicPaths(live.view, this.#now()).values();
    const work = async () => {
      for (const path of paths) {
        if (!holds()) return;
        const answer = await this.#sites.answer(key, path);
        if (answer instanceof ReadyAnswer) await this.#write(fresh, path, answer);
      }
    };
    await Promise.all(Array.from({ length: AT_ONCE }, work));
    return holds();
  }

  /** Lets a site's link lead to a folder, in one step, and gives the name of the one before; '' where there was none. */
  #leadTo(key: string, name: string): string {
    const link = join(this.#folder, key);
    const before = existsSync(link) ? basename(readlinkSync(link)) : '';
    const fresh = join(this.#folder, MADE, `${name}.link`);
    symlinkSync(join(MADE, name), fresh);
    renameSync(fresh, link);
    return before;
  }

  /** The forms of an answer, where everyone gets it alike; the day of a file is the second that its tag names. */
  async #write(fresh: string, path: string, answer: ReadyAnswer): Promise<void> {
    const isForAll = answer.header('Cache-Control') === 'public, no-cache';
    // What has headers of its own, Spur answers by itself.
    if (
      answer.status !== 200 ||
      !isForAll ||
      answer.hasFrames ||
      answer.hasStates ||
      answer.until !== Infinity ||
      answer.header('X-Robots-Tag') !== undefined
    )
      return;
    await answer.prepare(['br', 'gzip']);
    for (const { encoding, body, stamp } of answer.forms()) {
      const name = fileFor(path, encoding);
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

/** Whether a folder is an earlier one of a site by this process, or one of a process that has ended. */
function isLeft(name: string, key: string): boolean {
  const [, site, maker] = /^(.*)-(\d+)-\d+$/.exec(name) ?? [];
  if (maker === undefined) return false;
  return Number(maker) === process.pid ? site === key : !existsSync(`/proc/${maker}`);
}
