import type { Knex } from 'knex';
import { derivedOf } from '#core/derive/derived.ts';
import { type SiteKey, siteKeySchema } from '#core/model/ids.ts';
import { type Release, htmlOf, liveSiteKeys, loadRelease } from './live-repository.ts';
import { robotsFile, sitemapFiles } from './machine-files.ts';
import { ReadyAnswer } from './ready-answer.ts';
import { type SitePlace, pathOf, renderNotFound, renderPage } from './render-page.ts';

const HTML = 'text/html; charset=utf-8';
/** So many answers of one site are kept ready; beyond that the one made first makes room. */
const MOST_READY = 20_000;
const NO_INDEX = ['Cache-Control', 'no-cache', 'X-Robots-Tag', 'noindex'];

/** One site as it was released: every answer belongs to this release, so that no visitor gets a mixture of two. */
interface LiveSite {
  readonly release: Release;
  readonly place: SitePlace;
  /** Ready answers by the path as it stands in requests. */
  readonly ready: Map<string, ReadyAnswer>;
  notFound: ReadyAnswer | null;
}

/** What visitors get, by path. Answers are made when they are first asked for and dropped with the next release. */
export class LiveSites {
  readonly #database: Knex;
  readonly #origin: string;
  readonly #stylesheet: string;
  readonly #sites = new Map<string, Promise<LiveSite | undefined>>();
  readonly #ready = new Map<string, LiveSite>();
  #robots: Promise<ReadyAnswer> | null = null;

  constructor(database: Knex, origin: string, stylesheet: string) {
    this.#database = database;
    this.#origin = origin;
    this.#stylesheet = stylesheet;
  }

  /** The answer to a path (with any query taken off), if it is ready in memory. */
  ready(path: string): ReadyAnswer | undefined {
    const end = path.indexOf('/', 1);
    return end === -1 ? undefined : this.#ready.get(path.slice(1, end))?.ready.get(path);
  }

  /** Forgets what was read of a site: its next request reads the release that is live then. */
  forget(key: string): void {
    this.#sites.delete(key);
    this.#ready.delete(key);
    this.#robots = null;
  }

  forgetAll(): void {
    for (const key of [...this.#sites.keys()]) this.forget(key);
    this.#robots = null;
  }

  robots(): Promise<ReadyAnswer> {
    const made = (this.#robots ??= liveSiteKeys(this.#database).then(
      (keys) => new ReadyAnswer(200, 'text/plain; charset=utf-8', robotsFile(this.#origin, keys)),
    ));
    made.catch(() => (this.#robots = null));
    return made;
  }

  /**
   * The answer to a path below a site: a page, a sitemap file, the not-found page, or where to go instead.
   * Undefined where there is no such site.
   */
  async answer(key: string, rest: string): Promise<ReadyAnswer | { moved: string } | undefined> {
    const live = await this.#site(key);
    if (!live) return undefined;
    const { release, place } = live;
    const path = place.base + rest;
    const kept = live.ready.get(path);
    if (kept) return kept;
    if (/^\/sitemap(-\d+)?\.xml$/.test(rest)) {
      for (const [name, xml] of sitemapFiles(release, place))
        this.#keep(live, `${place.base}/${name}`, new ReadyAnswer(200, 'application/xml; charset=utf-8', xml));
      return live.ready.get(path) ?? this.#notFound(live);
    }
    const address = decoded(rest);
    const derived = derivedOf(release.site);
    const row = address === null ? undefined : derived.rowAt.get(address);
    if (row !== undefined && derived.hiddenBy[row] === -1) {
      const node = derived.outline.nodes[row]!;
      const canonical = pathOf(place, address!);
      if (canonical !== path) return { moved: canonical };
      const html = node.content === null ? '' : await htmlOf(this.#database, release.site.key, node.content);
      const answer = new ReadyAnswer(200, HTML, renderPage(release.site, place, node.id, html));
      this.#keep(live, path, answer);
      return answer;
    }
    // One address a page: with a slash at the end it is another one, which leads to the page.
    if (address !== null && address !== '/' && address.endsWith('/')) {
      const without = derived.rowAt.get(address.replace(/\/+$/, ''));
      if (without !== undefined && derived.hiddenBy[without] === -1)
        return { moved: pathOf(place, derived.addresses[without]!) };
    }
    return this.#notFound(live);
  }

  #notFound(live: LiveSite): ReadyAnswer {
    return (live.notFound ??= new ReadyAnswer(404, HTML, renderNotFound(live.release.site, live.place), NO_INDEX));
  }

  #keep(live: LiveSite, path: string, answer: ReadyAnswer): void {
    if (live.ready.size >= MOST_READY) live.ready.delete(live.ready.keys().next().value!);
    live.ready.set(path, answer);
  }

  #site(key: string): Promise<LiveSite | undefined> {
    const parsed = siteKeySchema.safeParse(key);
    if (!parsed.success) return Promise.resolve(undefined);
    const known = this.#sites.get(key);
    if (known) return known;
    const loading = this.#load(parsed.data);
    this.#sites.set(key, loading);
    loading.then(
      (live) => {
        if (this.#sites.get(key) !== loading) return;
        if (live) this.#ready.set(key, live);
        else this.#sites.delete(key);
      },
      () => {
        if (this.#sites.get(key) === loading) this.#sites.delete(key);
      },
    );
    return loading;
  }

  async #load(key: SiteKey): Promise<LiveSite | undefined> {
    const release = await loadRelease(this.#database, key);
    if (!release) return undefined;
    return {
      release,
      place: { base: `/${key}`, origin: this.#origin, stylesheet: this.#stylesheet },
      ready: new Map(),
      notFound: null,
    };
  }
}

function decoded(path: string): string | null {
  try {
    return decodeURIComponent(path).normalize('NFC');
  } catch {
    return null;
  }
}
