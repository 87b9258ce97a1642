import type { Knex } from 'knex';
import { pathOfOldAddress } from '#core/carryover/old-address.ts';
import { leadOf } from '#core/derive/redirects.ts';
import { type Membership, passphrasePage, passphrasesIn } from '#core/derive/access.ts';
import { nearestPages } from '#core/derive/nearest-pages.ts';
import { visitorView } from '#core/derive/visitor-view.ts';
import { type AudienceId, closureOf } from '#core/model/audience.ts';
import { type PassphraseId, ruleOf } from '#core/model/access.ts';
import { type SiteKey, siteKeySchema } from '#core/model/ids.ts';
import { nodeAt } from '#core/model/site.ts';
import { escaped } from './html.ts';
import { type Release, htmlOf, liveSiteKeys, loadRelease } from './live-repository.ts';
import { FEED, feedOf, hasFeed, robotsFile, sitemapFiles } from './machine-files.ts';
import { ReadyAnswer } from './ready-answer.ts';
import { type TextOf, answerAtRow, notFoundPage, signInPage } from './standing-pages.ts';
import { questionIn, renderSearch } from './site-search.ts';
import { decoded, ownPath, whereTo } from './leads.ts';
import { type LiveView, type SitePlace, isAnswered, pathOf } from './live-view.ts';
import {
  type SignIn,
  NO_INDEX as NO_INDEX_META,
  renderFrame,
  renderNotFound,
  renderPassphrase,
  renderWorks,
} from './render-page.ts';
import { ANYBODY, type Asking } from './asking.ts';
import { withPageLinks } from './text-links.ts';
import type { Visits } from './visits.ts';

const HTML = 'text/html; charset=utf-8';
/** So many answers of one site are kept ready for one kind of visitor; beyond that the one made first makes room. */
const MOST_READY = 20_000;
/** For a longer address no pages are sought that are near it. */
const LONGEST_NEAR = 300;
/** So many kinds of visitors of one site are remembered; beyond that the one met first makes room. */
const MOST_KINDS = 64;
/** Where nobody says until when a site is closed, robots are asked to come again after so long. */
const USUAL_WORKS_SECONDS = 3600;
/** What everyone gets may be kept by caches that ask again each time; what only some get, by their own browser alone. */
const FOR_EVERYONE = ['Cache-Control', 'public, no-cache'];
const FOR_ONE = ['Cache-Control', 'private, no-cache'];
const NO_INDEX = ['X-Robots-Tag', 'noindex'];

/** A site as one kind of visitor has it: every answer belongs to one release, to these audiences and passphrases, until the clock turns a page. */
interface Kind {
  readonly view: LiveView;
  /** Ready answers by the path as it stands in requests. */
  readonly ready: Map<string, ReadyAnswer>;
  notFound: ReadyAnswer | null;
  gone: ReadyAnswer | null;
}

/** One site as it was released. */
interface LiveSite {
  readonly release: Release;
  readonly place: SitePlace;
  /** What nobody who is signed in gets. */
  anonymous: Kind;
  /** The passphrases that its pages ask for: no other makes a visitor differ. */
  readonly passphrases: ReadonlySet<PassphraseId>;
  /** The others, by the audiences that they belong to and the passphrases that they gave. */
  readonly kinds: Map<string, Kind>;
}

/** Where to go instead; 301 for an address of another site, 308 for another form of one of this. */
export interface Moved {
  readonly moved: string;
  readonly status: 301 | 308;
}

/** What visitors get, by path. Answers are made when they are first asked for and dropped with the next release. */
export class LiveSites {
  readonly #database: Knex;
  readonly origin: string;
  readonly #stylesheet: string;
  readonly #visits: Visits;
  readonly #now: () => number;
  readonly #sites = new Map<string, Promise<LiveSite | undefined>>();
  readonly #ready = new Map<string, LiveSite>();
  #robots: Promise<ReadyAnswer> | null = null;

  constructor(database: Knex, origin: string, stylesheet: string, visits: Visits, now = Date.now) {
    this.#database = database;
    this.origin = origin;
    this.#stylesheet = stylesheet;
    this.#visits = visits;
    this.#now = now;
  }

  /** The answer to a path (with any query taken off), if it is ready in memory. */
  ready(path: string, asking: Asking = ANYBODY): ReadyAnswer | undefined {
    const end = path.indexOf('/', 1);
    if (end === -1) return undefined;
    const live = this.#ready.get(path.slice(1, end));
    if (!live) return undefined;
    const kind = asking === ANYBODY ? live.anonymous : live.kinds.get(kindKey(live, asking));
    if (!kind) return undefined;
    const { until } = kind.view;
    return until === Infinity || until > this.#now() ? kind.ready.get(path) : undefined;
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

  /** The sites that have something live. */
  keys(): Promise<SiteKey[]> {
    return liveSiteKeys(this.#database);
  }

  /** What nobody who is known gets of a site now; undefined where there is no such site, or it is closed for works. */
  async forEveryone(key: string): Promise<{ release: Release; view: LiveView } | undefined> {
    const live = await this.#site(key);
    if (!live || live.release.works) return undefined;
    return { release: live.release, view: this.#kind(live, ANYBODY).view };
  }

  robots(): Promise<ReadyAnswer> {
    const made = (this.#robots ??= this.keys().then(
      (keys) => new ReadyAnswer(200, 'text/plain; charset=utf-8', robotsFile(this.origin, keys)),
    ));
    made.catch(() => (this.#robots = null));
    return made;
  }

  /**
   * The answer to a path below a site, and its query (with the `?`) where the old site had such addresses: a page, the
   * sign-in page in place of one with a lock, a sitemap file, the not-found page, or where to go instead.
   * Undefined where there is no such site. `referrer` is the page that led there, as the browser says.
   */
  async answer(
    key: string,
    rest: string,
    query = '',
    asking: Asking = ANYBODY,
    referrer?: string,
  ): Promise<ReadyAnswer | Moved | undefined> {
    const live = await this.#site(key);
    if (!live) return undefined;
    const kind = this.#kind(live, asking);
    const { place, derived } = kind.view;
    const path = place.base + rest;
    const kept = kind.ready.get(path);
    if (kept) return kept;
    if (/^\/sitemap(-\d+)?\.xml$/.test(rest)) {
      // The file is the same for whoever asks.
      const { view, ready } = this.#kind(live, ANYBODY);
      for (const [name, xml] of sitemapFiles(view, live.release.liveAt))
        keep(ready, `${place.base}/${name}`, new ReadyAnswer(200, 'application/xml; charset=utf-8', xml));
      return ready.get(path) ?? this.#notFound(kind, rest, referrer);
    }
    if (rest === '/search') return this.#search(kind, query);
    const address = decoded(rest);
    const row = address === null ? undefined : derived.rowAt.get(address);
    if (row !== undefined && isAnswered(kind.view, row)) {
      const canonical = pathOf(place, address!);
      if (canonical !== path) return { moved: canonical, status: 308 };
      const answer = await this.#page(kind, row, rest);
      keep(kind.ready, path, answer);
      return answer;
    }
    if (address?.endsWith(`/${FEED}`)) {
      // The feed is the same for whoever asks.
      const { view, ready } = this.#kind(live, ANYBODY);
      const of = view.derived.rowAt.get(address.slice(0, -FEED.length - 1) || '/');
      if (of !== undefined && hasFeed(view, of)) {
        const feed = feedOf(view, of, live.release.liveAt);
        const answer = new ReadyAnswer(200, 'application/atom+xml; charset=utf-8', feed);
        if (pathOf(place, address) === path) keep(ready, path, answer);
        return answer;
      }
    }
    // One address a page: with a slash at the end it is another one, which leads to the page.
    if (address !== null && address !== '/' && address.endsWith('/')) {
      const without = derived.rowAt.get(address.replace(/\/+$/, ''));
      if (without !== undefined && isAnswered(kind.view, without))
        return { moved: pathOf(place, derived.addresses[without]!), status: 308 };
    }
    return this.#leadFrom(live, kind, rest, query) ?? this.#notFound(kind, rest, referrer);
  }

  /** The sign-in page; undefined where there is no such site. */
  async signInPage(key: string, asking: Asking, given: Omit<SignIn, 'page'>): Promise<ReadyAnswer | undefined> {
    const live = await this.#site(key);
    if (!live) return undefined;
    const { view } = this.#kind(live, asking);
    const html = await signInPage(view, { page: null, ...given }, this.#textOf(view));
    return new ReadyAnswer(given.isWrong ? 401 : 200, HTML, html, [...NO_STORE, ...NO_INDEX]);
  }

  /** The passphrase that a visitor is to give next for the page at an address; null where they are asked for none. */
  async passphraseAt(key: SiteKey, asking: Asking, address: string): Promise<PassphraseId | null> {
    const live = await this.#site(key);
    if (!live) return null;
    const { view } = this.#kind(live, asking);
    const row = view.derived.rowAt.get(decoded(address) ?? '');
    if (row === undefined || view.asks[row] === 0) return null;
    const { nodes } = view.derived.outline;
    const page = passphrasePage(view.site, nodes[row]!.id, view.visitor);
    return page === null ? null : ruleOf(nodeAt(view.site, page)).passphrase;
  }

  /** The form for the passphrase of the page at an address, for somebody who gave a wrong one; undefined where none is asked for. */
  async askAgain(key: SiteKey, asking: Asking, address: string): Promise<ReadyAnswer | undefined> {
    const live = await this.#site(key);
    if (!live) return undefined;
    const { view } = this.#kind(live, asking);
    const row = view.derived.rowAt.get(decoded(address) ?? '');
    if (row === undefined) return undefined;
    return new ReadyAnswer(401, HTML, renderPassphrase(view, row, address, true), [...NO_STORE, ...NO_INDEX]);
  }

  /** What visitors get wherever they go while the site is closed for works (RFC 9110, 15.6.4); undefined while it is open. */
  async closed(key: string): Promise<ReadyAnswer | undefined> {
    const live = await this.#site(key);
    const works = live?.release.works;
    if (!live || !works) return undefined;
    const { view } = live.anonymous;
    const until = works.until === null ? null : new Date(works.until);
    const seconds = until === null ? USUAL_WORKS_SECONDS : Math.ceil((until.getTime() - this.#now()) / 1000);
    return new ReadyAnswer(503, HTML, renderWorks(view, works.words, until), [
      ...NO_STORE,
      ...NO_INDEX,
      'Retry-After',
      String(Math.max(60, seconds)),
    ]);
  }

  /** What a site is called; undefined where there is none, or nothing of it was ever live. */
  async nameOf(key: SiteKey): Promise<string | undefined> {
    return (await this.#site(key))?.release.site.settings.name;
  }

  async audienceName(key: SiteKey, audience: AudienceId): Promise<string | undefined> {
    return (await this.#site(key))?.release.site.settings.audiences.find(({ id }) => id === audience)?.name;
  }

  /** Where somebody goes on to after signing in: the landing page of the first of their audiences whose page is open to them. */
  async landing(key: SiteKey, audiences: readonly AudienceId[]): Promise<string> {
    const live = await this.#site(key);
    if (!live) return '/';
    const { derived, locked } = this.#kind(live, { isSignedIn: true, audiences, passphrases: [] }).view;
    for (const { id, landing } of live.release.site.settings.audiences) {
      const row = landing === undefined || !audiences.includes(id) ? undefined : derived.outline.rowOf.get(landing);
      if (row !== undefined && derived.hiddenBy[row] === -1 && locked[row] === 0 && derived.addresses[row] !== null)
        return derived.addresses[row]!;
    }
    return '/';
  }

  /** A page that is not in the tree, in the frame that visitors have who are not signed in. */
  async plainPage(key: string, status: number, title: string, body: string): Promise<ReadyAnswer | undefined> {
    const live = await this.#site(key);
    if (!live) return undefined;
    const html = renderFrame(this.#kind(live, ANYBODY).view, {
      title: `${title} – ${live.release.site.settings.name}`,
      head: NO_INDEX_META,
      body: `<main id="content"><h1>${escaped(title)}</h1>${body}</main>`,
      current: null,
    });
    return new ReadyAnswer(status, HTML, html, [...NO_STORE, ...NO_INDEX]);
  }

  async #search({ view }: Kind, query: string): Promise<ReadyAnswer> {
    const html = await renderSearch(this.#database, view, false, questionIn(query));
    return new ReadyAnswer(200, HTML, html, [...cachingOf(view), ...NO_INDEX]);
  }

  async #page({ view }: Kind, row: number, rest: string): Promise<ReadyAnswer> {
    const { status, html } = await answerAtRow(view, row, rest, this.#textOf(view));
    if (status !== 200) {
      const asks = status === 401 ? ['WWW-Authenticate', 'Cookie realm="site"'] : [];
      return new ReadyAnswer(status, HTML, html, [...NO_STORE, ...NO_INDEX, ...asks]);
    }
    const isForm = row === view.standingIn.get('sign-in');
    return new ReadyAnswer(200, HTML, html, [
      ...(isForm ? NO_STORE : cachingOf(view)),
      ...(view.offered[row] === 1 ? [] : NO_INDEX),
    ]);
  }

  #textOf = (view: LiveView): TextOf => {
    return async (content) => withPageLinks(await htmlOf(this.#database, view.site, content, view.visitor), view);
  };

  /** Where an address leads that no page has, by its path with the query, else without. */
  #leadFrom({ release }: LiveSite, kind: Kind, rest: string, query: string): ReadyAnswer | Moved | undefined {
    const found = leadOf(release.whole, release.sources, pathOfOldAddress(rest + query));
    if (!found) return undefined;
    const to = whereTo(kind.view, found.to);
    if (to === undefined) return undefined;
    this.#visits.hit(release.site.key, found.path);
    if (to !== 'gone') return { moved: to, status: 301 };
    return (kind.gone ??= new ReadyAnswer(410, HTML, renderNotFound(kind.view, { isGone: true, near: [], own: null }), [
      ...cachingOf(kind.view),
      ...NO_INDEX,
    ]));
  }

  /** The page for an address that leads nowhere, with the pages nearest to it that the visitor may know of. */
  async #notFound(kind: Kind, rest: string, referrer: string | undefined): Promise<ReadyAnswer> {
    const { view } = kind;
    const { derived, place, site } = view;
    const path = decoded(rest);
    // An address that is in use, and closed to whoever asks, is not asked for in vain.
    if (path !== null && !derived.rowAt.has(path)) this.#visits.miss(site.key, path, ownPath(place, referrer));
    const near =
      path === null || path.length > LONGEST_NEAR
        ? []
        : nearestPages(derived.addresses, path, (row) => view.found[row] === 1);
    const make = async () =>
      new ReadyAnswer(
        404,
        HTML,
        await notFoundPage(
          view,
          near.map(({ row }) => row),
          this.#textOf(view),
        ),
        [...cachingOf(view), ...NO_INDEX],
      );
    return near.length > 0 ? make() : (kind.notFound ??= await make());
  }

  /** The site as one kind of visitor has it now. */
  #kind(live: LiveSite, asking: Asking): Kind {
    const isNow = ({ view }: Kind) => view.until > this.#now();
    if (asking === ANYBODY) {
      if (!isNow(live.anonymous)) live.anonymous = this.#makeKind(live.release, live.place, ANYBODY);
      return live.anonymous;
    }
    const key = kindKey(live, asking);
    let kind = live.kinds.get(key);
    if (!kind || !isNow(kind)) {
      if (live.kinds.size >= MOST_KINDS) live.kinds.delete(live.kinds.keys().next().value!);
      live.kinds.set(key, (kind = this.#makeKind(live.release, live.place, asking)));
    }
    return kind;
  }

  #makeKind({ site }: Release, place: SitePlace, asking: Asking): Kind {
    const member: Membership = new Set([
      ...closureOf(site.settings.audiences, asking.audiences),
      ...asking.passphrases,
    ]);
    const view = { ...visitorView(site, member, this.#now(), asking.isSignedIn), place, walk: null };
    return { view, ready: new Map(), notFound: null, gone: null };
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
    const place = { base: `/${key}`, origin: this.origin, stylesheet: this.#stylesheet };
    const passphrases = passphrasesIn(release.site);
    return { release, place, anonymous: this.#makeKind(release, place, ANYBODY), passphrases, kinds: new Map() };
  }
}

const NO_STORE = ['Cache-Control', 'no-store'];
const cachingOf = ({ isSignedIn, visitor }: LiveView): string[] =>
  isSignedIn || visitor.size > 1 ? FOR_ONE : FOR_EVERYONE;

/** Visitors who belong to the same audiences and gave the same passphrases are of one kind. */
const kindKey = ({ release, passphrases }: LiveSite, asking: Asking): string =>
  [
    String(asking.isSignedIn),
    ...[...closureOf(release.site.settings.audiences, asking.audiences)].sort(),
    ...asking.passphrases.filter((id) => passphrases.has(id)).sort(),
  ].join();

function keep(ready: Kind['ready'], path: string, answer: ReadyAnswer): void {
  if (ready.size >= MOST_READY) ready.delete(ready.keys().next().value!);
  ready.set(path, answer);
}
