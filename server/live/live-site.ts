import { setImmediate as nextTurn } from 'node:timers/promises';
import type { Knex } from 'knex';
import { pathOfOldAddress } from '#core/carryover/old-address.ts';
import { affectedPages } from '#core/changes/affected-pages.ts';
import { resolveRedirect } from '#core/derive/redirects.ts';
import { type Membership, passphrasePage } from '#core/derive/access.ts';
import { nearestPages } from '#core/derive/nearest-pages.ts';
import { visitorView } from '#core/derive/visitor-view.ts';
import { type AudienceId, closureOf } from '#core/model/audience.ts';
import { type PassphraseId, ruleOf } from '#core/model/access.ts';
import { nodeAt } from '#core/model/site.ts';
import { escaped } from './html.ts';
import { type Release, htmlOf, htmlOfAll } from './live-repository.ts';
import { FEED, feedOf, hasFeed, sitemapFiles } from './machine-files.ts';
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
const MAX_READY = 20_000;
/** For a longer address no pages are sought that are near it. */
const MAX_NEAR_LENGTH = 300;
/** So many texts are read at once, and so many pages are made between two looks at what is asked for. */
const TEXTS_AT_ONCE = 100;
const PAGES_AT_ONCE = 2;
/** So many kinds of visitors of one site are remembered; beyond that the one met first makes room. */
const MAX_KINDS = 64;
/** Where nobody says until when a site is closed, robots are asked to come again after so long. */
const USUAL_WORKS_SECONDS = 3600;
/** What everyone gets may be kept by caches that ask again each time; what only some get, by their own browser alone. */
const FOR_EVERYONE = ['Cache-Control', 'public, no-cache'];
const FOR_ONE = ['Cache-Control', 'private, no-cache'];
const NO_INDEX = ['X-Robots-Tag', 'noindex'];

const NO_STORE = ['Cache-Control', 'no-store'];

/** A site as one kind of visitor has it: every answer belongs to one release, to these audiences and passphrases, until the clock turns a page. */
interface Kind {
  readonly asking: Asking;
  readonly view: LiveView;
  /** Ready answers by the path as it stands in requests. */
  readonly ready: Map<string, ReadyAnswer>;
  notFound: ReadyAnswer | null;
  gone: ReadyAnswer | null;
}

/** Where to go instead; 301 for an address of another site, 308 for another form of one of this. */
export interface Moved {
  readonly moved: string;
  readonly status: 301 | 308;
}

export interface LiveParts {
  readonly database: Knex;
  readonly visits: Visits;
  readonly now: () => number;
}

/** One site as it was released: what visitors get of it, by path. Answers are made when they are first asked for. */
export class LiveSite {
  readonly release: Release;
  readonly #place: SitePlace;
  readonly #parts: LiveParts;
  /** What nobody who is signed in gets. */
  #anonymous: Kind;
  /** The others, by the audiences that they belong to and the passphrases that they gave. */
  readonly #kinds = new Map<string, Kind>();
  /** The keys of those who are signed in and gave no passphrase, by their list of audiences. */
  readonly #keys = new WeakMap<readonly AudienceId[], string>();
  /** The passphrases that its pages ask for: no other makes a visitor differ. */
  readonly #passphrases: ReadonlySet<PassphraseId>;

  constructor(release: Release, place: SitePlace, parts: LiveParts) {
    this.release = release;
    this.#place = place;
    this.#parts = parts;
    this.#anonymous = this.#makeKind(ANYBODY);
    const { ruled, nodes } = this.#anonymous.view.derived.outline;
    this.#passphrases = new Set(ruled.flatMap((row) => nodes[row]!.access?.passphrase ?? []));
  }

  /** What a kind of visitors has of it now. */
  view(asking: Asking): LiveView {
    return this.#kind(asking).view;
  }

  /** The answer to a path with the site's own in front (with any query taken off), if it is ready in memory. */
  ready(path: string, asking: Asking): ReadyAnswer | undefined {
    const kind = asking === ANYBODY ? this.#anonymous : this.#kinds.get(this.#keyOf(asking));
    if (!kind) return undefined;
    const { until } = kind.view;
    return until === Infinity || until > this.#parts.now() ? kind.ready.get(path) : undefined;
  }

  /** Whether somebody who is known of loses a page by it, beside the site as it was before: then it does not wait. */
  closesPages(before: LiveSite): boolean {
    return [before.#anonymous, ...before.#kinds.values()].some(({ asking, view: was }) => {
      const is = this.view(asking);
      const isOpen = ({ derived, locked }: LiveView, row: number | undefined) =>
        row !== undefined && derived.hiddenBy[row] === -1 && locked[row] === 0;
      const { nodes, rowOf } = is.derived.outline;
      return was.derived.outline.nodes.some(
        // Most releases leave each page in its row.
        ({ id }, row) => isOpen(was, row) && !isOpen(is, nodes[row]?.id === id ? row : rowOf.get(id)),
      );
    });
  }

  /**
   * Makes ready what visitors had asked for of the site as it was before, a few pages at a time, so that requests are answered
   * meanwhile. Pages that the release has not touched are taken as they are.
   * @param longestMs so long at most; what is left is made when it is asked for
   */
  async prepare(before: LiveSite, longestMs: number): Promise<void> {
    const end = performance.now() + longestMs;
    const affected = affectedPages(before.release.site, this.release.site);
    // One at a time: the other core is for those who are served meanwhile.
    let packing = Promise.resolve();
    for (const was of [before.#anonymous, ...before.#kinds.values()]) {
      const kind = this.#kind(was.asking);
      const { view } = kind;
      // What was made before the clock turned a page is not kept.
      const touched = was.view.until > this.#parts.now() ? affected : null;
      const { outline, addresses, rowAt } = view.derived;
      const touchedPaths =
        touched && new Set([...touched].map((id) => pathOf(this.#place, addresses[outline.rowOf.get(id)!] ?? '')));
      const wanted = [...was.ready].flatMap(([path, answer]) => {
        if (!answer.isPage || kind.ready.has(path)) return [];
        if (touchedPaths && !touchedPaths.has(path)) {
          keep(kind.ready, path, answer);
          return [];
        }
        const rest = path.slice(this.#place.base.length);
        const row = rowAt.get(decoded(rest) ?? '');
        return row !== undefined && isAnswered(view, row) ? [{ path, rest, row, answer }] : [];
      });
      for (let at = 0; at < wanted.length; at += TEXTS_AT_ONCE) {
        const some = wanted.slice(at, at + TEXTS_AT_ONCE);
        const contents = some.flatMap(({ row }) => view.derived.outline.nodes[row]!.content ?? []);
        const texts = await htmlOfAll(this.#parts.database, view.site, contents, view.visitor);
        for (const [index, { path, rest, row, answer }] of some.entries()) {
          if (performance.now() > end) return packing;
          const page = await this.#page(kind, row, rest, texts);
          keep(kind.ready, path, page);
          await packing;
          packing = page.prepareLike(answer);
          if (index % PAGES_AT_ONCE === 0) await nextTurn();
        }
      }
    }
    await packing;
  }

  /**
   * The answer to a path below the site, and its query (with the `?`) where the old site had such addresses: a page, the
   * sign-in page in place of one with a lock, a sitemap file, the not-found page, or where to go instead.
   * `referrer` is the page that led there, as the browser says.
   */
  async answer(rest: string, query = '', asking: Asking = ANYBODY, referrer?: string): Promise<ReadyAnswer | Moved> {
    const kind = this.#kind(asking);
    const { place, derived } = kind.view;
    const path = place.base + rest;
    const kept = kind.ready.get(path);
    if (kept) return kept;
    if (/^\/sitemap(-\d+)?\.xml$/.test(rest)) {
      // The file is the same for whoever asks.
      const { view, ready } = this.#kind(ANYBODY);
      for (const [name, xml] of sitemapFiles(view, this.release.liveAt))
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
      const { view, ready } = this.#kind(ANYBODY);
      const of = view.derived.rowAt.get(address.slice(0, -FEED.length - 1) || '/');
      if (of !== undefined && hasFeed(view, of)) {
        const feed = feedOf(view, of, this.release.liveAt);
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
    return this.#leadFrom(kind, rest, query) ?? this.#notFound(kind, rest, referrer);
  }

  /** The sign-in page. */
  async signInPage(asking: Asking, given: Omit<SignIn, 'page'>): Promise<ReadyAnswer> {
    const { view } = this.#kind(asking);
    const html = await signInPage(view, { page: null, ...given }, this.#textOf(view));
    return new ReadyAnswer(given.isWrong ? 401 : 200, HTML, html, [...NO_STORE, ...NO_INDEX]);
  }

  /** The passphrase that a visitor is to give next for the page at an address; null where they are asked for none. */
  passphraseAt(asking: Asking, address: string): PassphraseId | null {
    const { view } = this.#kind(asking);
    const row = view.derived.rowAt.get(decoded(address) ?? '');
    if (row === undefined || view.asks[row] === 0) return null;
    const { nodes } = view.derived.outline;
    const page = passphrasePage(view.site, nodes[row]!.id, view.visitor);
    return page === null ? null : ruleOf(nodeAt(view.site, page)).passphrase;
  }

  /** The form for the passphrase of the page at an address, for somebody who gave a wrong one; undefined where none is asked for. */
  askAgain(asking: Asking, address: string): ReadyAnswer | undefined {
    const { view } = this.#kind(asking);
    const row = view.derived.rowAt.get(decoded(address) ?? '');
    if (row === undefined) return undefined;
    return new ReadyAnswer(401, HTML, renderPassphrase(view, row, address, true), [...NO_STORE, ...NO_INDEX]);
  }

  /** What visitors get wherever they go while the site is closed for works (RFC 9110, 15.6.4); undefined while it is open. */
  closed(): ReadyAnswer | undefined {
    const { works } = this.release;
    if (!works) return undefined;
    const { view } = this.#anonymous;
    const until = works.until === null ? null : new Date(works.until);
    const seconds = until === null ? USUAL_WORKS_SECONDS : Math.ceil((until.getTime() - this.#parts.now()) / 1000);
    return new ReadyAnswer(503, HTML, renderWorks(view, works.words, until), [
      ...NO_STORE,
      ...NO_INDEX,
      'Retry-After',
      String(Math.max(60, seconds)),
    ]);
  }

  /** Where somebody goes on to after signing in: the landing page of the first of their audiences whose page is open to them. */
  landing(audiences: readonly AudienceId[]): string {
    const { derived, locked } = this.#kind({ isSignedIn: true, audiences, passphrases: [] }).view;
    for (const { id, landing } of this.release.site.settings.audiences) {
      const row = landing === undefined || !audiences.includes(id) ? undefined : derived.outline.rowOf.get(landing);
      if (row !== undefined && derived.hiddenBy[row] === -1 && locked[row] === 0 && derived.addresses[row] !== null)
        return derived.addresses[row]!;
    }
    return '/';
  }

  /** A page that is not in the tree, in the frame that visitors have who are not signed in. */
  plainPage(status: number, title: string, body: string): ReadyAnswer {
    const html = renderFrame(this.#kind(ANYBODY).view, {
      title: `${title} – ${this.release.site.settings.name}`,
      head: NO_INDEX_META,
      body: `<main id="content"><h1>${escaped(title)}</h1>${body}</main>`,
      current: null,
    });
    return new ReadyAnswer(status, HTML, html, [...NO_STORE, ...NO_INDEX]);
  }

  async #search({ view }: Kind, query: string): Promise<ReadyAnswer> {
    const html = await renderSearch(this.#parts.database, view, false, questionIn(query));
    return new ReadyAnswer(200, HTML, html, [...cachingOf(view), ...NO_INDEX]);
  }

  /** @param texts those that are at hand already */
  async #page({ view }: Kind, row: number, rest: string, texts?: ReadonlyMap<string, string>): Promise<ReadyAnswer> {
    const { status, html } = await answerAtRow(view, row, rest, this.#textOf(view, texts));
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

  #textOf(view: LiveView, texts?: ReadonlyMap<string, string>): TextOf {
    return async (content) => {
      const html = texts?.get(content) ?? (await htmlOf(this.#parts.database, view.site, content, view.visitor));
      return withPageLinks(html, view);
    };
  }

  /** Where an address leads that no page has, by its path with the query, else without. */
  #leadFrom(kind: Kind, rest: string, query: string): ReadyAnswer | Moved | undefined {
    const found = resolveRedirect(this.release.whole, this.release.sources, pathOfOldAddress(rest + query));
    if (!found) return undefined;
    const to = whereTo(kind.view, found.to);
    if (to === undefined) return undefined;
    this.#parts.visits.hit(this.release.site.key, found.path);
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
    if (path !== null && !derived.rowAt.has(path)) this.#parts.visits.miss(site.key, path, ownPath(place, referrer));
    const near =
      path === null || path.length > MAX_NEAR_LENGTH
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
  #kind(asking: Asking): Kind {
    const isNow = ({ view }: Kind) => view.until > this.#parts.now();
    if (asking === ANYBODY) {
      if (!isNow(this.#anonymous)) this.#anonymous = this.#makeKind(ANYBODY);
      return this.#anonymous;
    }
    const key = this.#keyOf(asking);
    let kind = this.#kinds.get(key);
    if (!kind || !isNow(kind)) {
      if (this.#kinds.size >= MAX_KINDS) this.#kinds.delete(this.#kinds.keys().next().value!);
      this.#kinds.set(key, (kind = this.#makeKind(asking)));
    }
    return kind;
  }

  /** Visitors who belong to the same audiences and gave the same passphrases are of one kind. */
  #keyOf(asking: Asking): string {
    if (!asking.isSignedIn || asking.passphrases.length > 0) return this.#newKeyOf(asking);
    // Who is signed in asks with the same list again and again.
    let key = this.#keys.get(asking.audiences);
    if (key === undefined) this.#keys.set(asking.audiences, (key = this.#newKeyOf(asking)));
    return key;
  }

  #newKeyOf(asking: Asking): string {
    return [
      String(asking.isSignedIn),
      ...[...closureOf(this.release.site.settings.audiences, asking.audiences)].sort(),
      ...asking.passphrases.filter((id) => this.#passphrases.has(id)).sort(),
    ].join();
  }

  #makeKind(asking: Asking): Kind {
    const { site } = this.release;
    const member: Membership = new Set([
      ...closureOf(site.settings.audiences, asking.audiences),
      ...asking.passphrases,
    ]);
    const place = this.#place;
    const view = { ...visitorView(site, member, this.#parts.now(), asking.isSignedIn), place, walk: null };
    return { asking, view, ready: new Map(), notFound: null, gone: null };
  }
}

const cachingOf = ({ isSignedIn, visitor }: LiveView): string[] =>
  isSignedIn || visitor.size > 1 ? FOR_ONE : FOR_EVERYONE;

function keep(ready: Kind['ready'], path: string, answer: ReadyAnswer): void {
  if (ready.size >= MAX_READY) ready.delete(ready.keys().next().value!);
  ready.set(path, answer);
}
