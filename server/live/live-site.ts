import { isDeepStrictEqual } from 'node:util';
import { withoutTrailing } from '#core/model/cut-text.ts';
import { pathOfOldAddress } from '#core/carryover/old-address.ts';
import { affectedPages } from '#core/changes/affected-pages.ts';
import { fileContentSchema } from '#core/files/file.ts';
import { nearestPages } from '#core/derive/nearest-pages.ts';
import { resolveRedirect } from '#core/derive/redirects.ts';
import type { PassphraseId } from '#core/model/access.ts';
import type { PageId } from '#core/model/ids.ts';
import type { AudienceId } from '#core/model/audience.ts';
import { logosOf } from '#core/model/look.ts';
import type { FormId } from '#core/model/site-form.ts';
import { HTML, NO_INDEX, NO_STORE, cachingOf } from './answer-headers.ts';
import { ANYBODY, type Asking } from './asking.ts';
import type { FoundFile } from './file-answers.ts';
import { type Html, markup } from './html.ts';
import { filesOfContent, usesOfAll } from './live-file-repository.ts';
import { type FileUse, type LiveFile, fileHref, mayHave } from './live-files.ts';
import { visitorNamed } from '../answers/answer-repository.ts';
import { askFor, passphraseAt } from './asked-passphrase.ts';
import { makeStamp } from './form-stamp.ts';
import type { PostedForm } from './given-answer.ts';
import { asksForState } from './list-states.ts';
import { type Lead, decoded, ownPath, whereTo } from './leads.ts';
import type { LiveReading } from './live-reading.ts';
import { type Release, htmlOf, htmlOfAll } from './live-repository.ts';
import {
  type FormsOnPage,
  type GivenForm,
  type LiveView,
  type ShownList,
  type SitePlace,
  isAnswered,
  pathOf,
} from './live-view.ts';
import { CALENDAR, FEED, calendarOf, feedOf, hasFeed, rowsBelow, sitemapFiles } from './machine-files.ts';
import { listsHoldUntil, withPageLists } from './page-lists.ts';
import { previewOf } from './page-previews.ts';
import type { Preview } from './preview-picture.ts';
import { prepareAgain } from './prepare-again.ts';
import { ReadyAnswer } from './ready-answer.ts';
import { NO_INDEX as NO_INDEX_META, type SignIn, renderFrame, renderNotFound } from './render-page.ts';
import { questionIn, renderSearch } from './site-search.ts';
import { type TextOf, answerAtRow, notFoundPage, signInPage } from './standing-pages.ts';
import { type FormTaking, type TakenForm, acceptedIn, takeForm } from './take-form.ts';
import { textFor } from './text-for.ts';
import { type VisitorClass, VisitorClasses } from './visitor-classes.ts';
import type { Visits } from './visits.ts';
import { worksPage } from './works-page.ts';

/** For a longer address no pages are sought that are near it. */
const MAX_NEAR_LENGTH = 300;

/** So many files are remembered with where they are shown. */
const MAX_FILES = 5000;

interface FileAndUses {
  readonly file: LiveFile;
  readonly uses: readonly FileUse[];
}

/** Where to go instead; 301 for an address of another site, 308 for another form of one of this. */
export interface Moved {
  readonly moved: string;
  readonly status: 301 | 308;
}

/** A page that is not in the tree. */
export interface PlainPage {
  readonly status?: number;
  readonly title: string;
  readonly body: Html;
}

export interface LiveParts {
  readonly reading: LiveReading;
  readonly visits: Visits;
  readonly now: () => number;
  /** What forms are signed with. */
  readonly secret: () => Promise<string>;
}

/** For whom a page is made, and what of a form on it. */
interface Occasion {
  readonly asking: Asking;
  readonly given: GivenForm | null;
  /** What was asked for of its lists, with the `?`. */
  readonly query: string;
}
const PLAIN_OCCASION: Occasion = { asking: ANYBODY, given: null, query: '' };

/** One site as it was released: what visitors get of it, by path. Answers are made when they are first asked for. */
export class LiveSite {
  readonly release: Release;
  /** Whether somebody has asked for something of it lately. */
  wasAsked = false;
  readonly #parts: LiveParts;
  readonly #classes: VisitorClasses;
  /** Files that were asked for, by their contents, with where they are shown. */
  readonly #files = new Map<string, Promise<FileAndUses | undefined>>();

  constructor(release: Release, place: SitePlace, parts: LiveParts) {
    this.release = release;
    this.#parts = parts;
    this.#classes = new VisitorClasses(release.site, release.files, place, parts.now);
  }

  /** The file with a content, where whoever asks may have it: by the live pages that show it. */
  async file(content: string, asking: Asking): Promise<FoundFile | undefined> {
    if (!fileContentSchema.safeParse(content).success) return undefined;
    const known = (this.#files.get(content) ?? this.#findFile(content)) as Promise<FileAndUses | undefined>;
    if (this.#files.size >= MAX_FILES) this.#files.clear();
    this.#files.set(content, known);
    const found = await known.catch((fault: unknown) => {
      this.#files.delete(content);
      throw fault;
    });
    if (!found) {
      // What is asked for in vain is not kept.
      this.#files.delete(content);
      return undefined;
    }
    // Whoever comes to the site sees its sign.
    if (logosOf(this.release.site.settings.look).includes(found.file.id))
      return { file: found.file, isForAll: true, isOffered: true };
    if (!mayHave(this.view(asking), found.uses)) return undefined;
    const everyone = this.view(ANYBODY);
    const { rowOf } = everyone.derived.outline;
    return {
      file: found.file,
      isForAll: mayHave(everyone, found.uses),
      isOffered: found.uses.some(({ page }) => everyone.offered[rowOf.get(page) ?? -1] === 1),
    };
  }

  /** What the preview picture of a page is made of; undefined where search engines are not offered the page. */
  preview(page: string): Preview | undefined {
    const view = this.view(ANYBODY);
    const row = view.derived.outline.rowOf.get(page as PageId);
    return row === undefined || view.offered[row] !== 1 ? undefined : previewOf(view, page as PageId);
  }

  async #findFile(content: string): Promise<FileAndUses | undefined> {
    const { site, files, filesByContent } = this.release;
    const found = filesOfContent(files, filesByContent, content);
    const [file] = found;
    return (
      file && {
        file,
        uses: await this.#parts.reading.read((database) => usesOfAll(database, site, found, 'live_node')),
      }
    );
  }

  /** What a class of visitors has of it now. */
  view(asking: Asking): LiveView {
    return this.#classes.of(asking).view;
  }

  /** The answer to a path with the site's own in front (with any query taken off), if it is ready in memory. */
  ready(path: string, asking: Asking): ReadyAnswer | undefined {
    return this.#classes.known(asking)?.ready(path);
  }

  /** Whether somebody who is known of loses a page by it, beside the site as it was before: then it does not wait. */
  closesPages(before: LiveSite): boolean {
    return before.#classes.all.some(({ asking, view: was }) => {
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

  /** Whether the library says the same of its files as before. */
  hasFilesOf(before: LiveSite): boolean {
    return isDeepStrictEqual(this.release.files, before.release.files);
  }

  /**
   * Makes ready what visitors had asked for of the site as it was before, a few pages at a time, so that requests are answered
   * meanwhile. Pages that the release has not touched are taken as they are.
   * @param longestMs so long at most; what is left is made when it is asked for
   */
  prepare(before: LiveSite, longestMs: number): Promise<void> {
    const end = performance.now() + longestMs;
    const affected = affectedPages(before.release.site, this.release.site);
    return prepareAgain(before.#classes.all, {
      affected,
      end,
      now: this.#parts.now,
      classOf: (asking) => this.#classes.of(asking),
      textsOf: (view, contents) =>
        this.#parts.reading.read((database) => htmlOfAll(database, view.site, contents, view.visitor)),
      pageOf: (visitors, row, rest, texts) => this.#page(visitors, row, rest, texts),
    });
  }

  /**
   * The answer to a path below the site, and its query (with the `?`) where the old site had such addresses: a page, the
   * sign-in page in place of one with a lock, a sitemap file, the not-found page, or where to go instead.
   * `referrer` is the page that led there, as the browser says.
   */
  async answer(rest: string, query = '', asking: Asking = ANYBODY, referrer?: string): Promise<ReadyAnswer | Moved> {
    const visitors = this.#classes.of(asking);
    const { place, derived } = visitors.view;
    const path = place.base + rest;
    const kept = visitors.ready(path);
    // Lists are looked at in parts, and as they are filtered.
    if (kept && !(kept.hasStates && asksForState(query))) return kept;
    if (/^\/sitemap(-\d+)?\.xml$/.test(rest)) {
      // The file is the same for whoever asks.
      const anybody = this.#classes.of(ANYBODY);
      for (const [name, xml] of sitemapFiles(anybody.view, this.release.liveAt))
        anybody.keep(`${place.base}/${name}`, new ReadyAnswer(200, 'application/xml; charset=utf-8', xml));
      return anybody.ready(path) ?? this.#notFound(visitors, rest, asking, referrer);
    }
    if (rest === '/search') return this.#search(visitors, query);
    const address = decoded(rest);
    const row = address === null ? undefined : derived.rowAt.get(address);
    if (row !== undefined && isAnswered(visitors.view, row)) {
      const canonical = pathOf(place, address!);
      if (canonical !== path) return { moved: canonical, status: 308 };
      const answer = await this.#page(visitors, row, rest, undefined, {
        asking,
        given: acceptedIn(query),
        query,
      });
      const isPlain = !(answer.hasStates && asksForState(query));
      if (isPlain && answer.until > this.#parts.now()) visitors.keep(path, answer);
      return answer;
    }
    if (address?.endsWith(`/${FEED}`)) {
      // The feed is the same for whoever asks.
      const anybody = this.#classes.of(ANYBODY);
      const { view } = anybody;
      const of = view.derived.rowAt.get(address.slice(0, -FEED.length - 1) || '/');
      const listed = of === undefined || view.offered[of] !== 1 ? null : await this.#listedOn(view, of);
      if (of !== undefined && listed !== null && (hasFeed(view, of) || listed.rows.length > 0)) {
        const rows = hasFeed(view, of) ? rowsBelow(view, of) : listed.rows;
        const feed = feedOf(view, of, rows, this.release.liveAt);
        const answer = new ReadyAnswer(200, 'application/atom+xml; charset=utf-8', feed, undefined, listed.holds);
        if (pathOf(place, address) === path) anybody.keep(path, answer);
        return answer;
      }
    }
    if (address?.endsWith(`/${CALENDAR}`)) {
      const anybody = this.#classes.of(ANYBODY);
      const { view } = anybody;
      const of = view.derived.rowAt.get(address.slice(0, -CALENDAR.length - 1) || '/');
      const listed = of === undefined || view.offered[of] !== 1 ? null : await this.#listedOn(view, of);
      const calendar = listed && calendarOf({ ...view, at: this.#parts.now() }, of!, listed.rows);
      if (listed && calendar !== null) {
        // Search engines are to find the pages, not a file of their days.
        const headers = ['Cache-Control', 'public, no-cache', ...NO_INDEX];
        const answer = new ReadyAnswer(200, 'text/calendar; charset=utf-8', calendar, headers, listed.holds);
        if (pathOf(place, address) === path) anybody.keep(path, answer);
        return answer;
      }
    }
    // One address a page: with a slash at the end it is another one, which leads to the page.
    if (address !== null && address !== '/' && address.endsWith('/')) {
      const without = derived.rowAt.get(withoutTrailing(address, '/'));
      if (without !== undefined && isAnswered(visitors.view, without))
        return { moved: pathOf(place, derived.addresses[without]!), status: 308 };
    }
    return (
      this.#leadFrom(visitors, rest, query) ??
      (await this.#oldFileFrom(visitors, rest, query)) ??
      this.#notFound(visitors, rest, asking, referrer)
    );
  }

  /** The sign-in page. */
  async signInPage(asking: Asking, given: Omit<SignIn, 'page'>): Promise<ReadyAnswer> {
    const { view } = this.#classes.of(asking);
    const html = await signInPage(view, { page: null, ...given }, this.#textOf(view));
    return new ReadyAnswer(given.isWrong ? 401 : 200, HTML, html.text, [...NO_STORE, ...NO_INDEX]);
  }

  /** What visitors get wherever they go while the site is closed for works; undefined while it is open. */
  closed(): ReadyAnswer | undefined {
    return worksPage(this.release, this.view(ANYBODY), this.#parts.now());
  }

  /** Where somebody goes on to after signing in: the landing page of the first of their audiences whose page is open to them. */
  landing(audiences: readonly AudienceId[]): string {
    const { derived, locked } = this.view({ isSignedIn: true, audiences, passphrases: [], visitor: null });
    for (const { id, landing } of this.release.site.settings.audiences) {
      const row = landing === undefined || !audiences.includes(id) ? undefined : derived.outline.rowOf.get(landing);
      if (row !== undefined && derived.hiddenBy[row] === -1 && locked[row] === 0 && derived.addresses[row] !== null)
        return derived.addresses[row]!;
    }
    return '/';
  }

  /** A page that is not in the tree, in the frame that whoever asks has. */
  plainPage(asking: Asking, { status = 200, title, body }: PlainPage): ReadyAnswer {
    const html = renderFrame(this.view(asking), {
      title: `${title} – ${this.release.site.settings.name}`,
      head: NO_INDEX_META,
      body: markup`<main id="content"><h1>${title}</h1>${body}</main>`,
      current: null,
    });
    return new ReadyAnswer(status, HTML, html.text, [...NO_STORE, ...NO_INDEX]);
  }

  async #search({ view }: VisitorClass, query: string): Promise<ReadyAnswer> {
    const html = await this.#parts.reading.read((database) => renderSearch(database, view, false, questionIn(query)));
    return new ReadyAnswer(200, HTML, html.text, [...cachingOf(view), ...NO_INDEX]);
  }

  /** The rows of the pages that the lists on a page show, and until when they do. */
  async #listedOn(view: LiveView, row: number): Promise<{ rows: number[]; holds: { lists: []; until: number } }> {
    const { id, content } = view.derived.outline.nodes[row]!;
    const lists: ShownList[] = [];
    const watched: LiveView = { ...view, at: this.#parts.now(), listed: (list) => lists.push(list) };
    if (content !== null) withPageLists(await this.#textOf(watched)(content), watched, id);
    const rows = lists.flatMap(({ shown }) => shown.map((one) => view.derived.outline.rowOf.get(one)!));
    return { rows: [...new Set(rows)], holds: { lists: [], until: listsHoldUntil(watched, lists) } };
  }

  /** @param texts those that are at hand already */
  async #page(
    { view }: VisitorClass,
    row: number,
    rest: string,
    texts?: ReadonlyMap<string, string>,
    occasion: Occasion = PLAIN_OCCASION,
  ): Promise<ReadyAnswer> {
    const { made, holds, isPersonal } = await this.#watch(view, occasion, (watched) =>
      answerAtRow(watched, row, rest, this.#textOf(watched, texts)),
    );
    const { status, html } = made;
    if (status !== 200) {
      const asks = status === 401 ? ['WWW-Authenticate', 'Cookie realm="site"'] : [];
      return new ReadyAnswer(status, HTML, html.text, [...NO_STORE, ...NO_INDEX, ...asks]);
    }
    const isForm = row === view.standingIn.get('sign-in') || isPersonal;
    const headers = [...(isForm ? NO_STORE : cachingOf(view)), ...(view.offered[row] === 1 ? [] : NO_INDEX)];
    return new ReadyAnswer(200, HTML, html.text, headers, holds);
  }

  /**
   * Makes something of a view as it is now, and tells until when that is right. What has a form is right for nobody else: a form bears
   * when it was shown, and what is known of whoever is signed in.
   */
  async #watch<Made>(
    view: LiveView,
    { asking, given, query }: Occasion,
    make: (watched: LiveView) => Promise<Made>,
  ): Promise<{ made: Made; holds: Pick<ReadyAnswer, 'lists' | 'until'>; shown: Set<FormId>; isPersonal: boolean }> {
    const { site } = view;
    let lists: ShownList[] = [];
    const shown = new Set<FormId>();
    const secret = site.settings.forms.length > 0 ? await this.#parts.secret() : null;
    const at = this.#parts.now();
    const forms: FormsOnPage | null =
      secret === null
        ? null
        : {
            stampOf: (form) => makeStamp(secret, site.key, form, at),
            shown: (form) => shown.add(form),
            given,
            visitor: null,
          };
    // What visitors share was made some time ago; lists go by the day of now.
    const watched: LiveView = {
      ...view,
      at,
      listed: (list) => lists.push(list),
      query: new URLSearchParams(query),
      ...(forms && { forms }),
    };
    let made = await make(watched);
    const visitor =
      asking.visitor !== null && given === null && this.#asksForKnown(shown)
        ? await visitorNamed(this.#parts.reading.primary, site.key, asking.visitor)
        : undefined;
    if (visitor) {
      lists = [];
      made = await make({ ...watched, forms: { ...forms!, visitor } });
    }
    const until = shown.size > 0 ? 0 : listsHoldUntil(watched, lists);
    return {
      made,
      holds: { lists, until },
      shown,
      isPersonal: shown.size > 0 && (visitor !== undefined || given !== null),
    };
  }

  #asksForKnown(shown: ReadonlySet<FormId>): boolean {
    return this.release.site.settings.forms.some(
      ({ id, fields }) => shown.has(id) && fields.some(({ filledWith }) => filledWith !== null),
    );
  }

  /** Holds a form that was sent against what visitors have. */
  async takeForm(
    id: FormId,
    posted: PostedForm,
    asking: Asking,
    tooMany: number | null,
  ): Promise<TakenForm | undefined> {
    const { view } = this.#classes.of(asking);
    const taking: FormTaking = {
      view: { ...view, at: this.#parts.now() },
      release: this.release.number,
      secret: await this.#parts.secret(),
      pageWith: async (row, given) => {
        const to = view.derived.addresses[row]!;
        const { made, shown } = await this.#watch(view, { ...PLAIN_OCCASION, given }, (watched) =>
          answerAtRow(watched, row, to, this.#textOf(watched)),
        );
        return { html: made.html, shown };
      },
    };
    return takeForm(taking, id, posted, tooMany);
  }

  #textOf(view: LiveView, texts?: ReadonlyMap<string, string>): TextOf {
    return async (content) => {
      const html =
        texts?.get(content) ??
        (await this.#parts.reading.read((database) => htmlOf(database, view.site, content, view.visitor)));
      return textFor(html, view);
    };
  }

  /** The passphrase that a visitor is to give next for the page at an address; null where they are asked for none. */
  passphraseAt(asking: Asking, address: string): PassphraseId | null {
    const view = this.view(asking);
    return passphraseAt(view, this.#askingRow(view, address));
  }

  /** The form for the passphrase of the page at an address, for somebody who gave a wrong one; undefined where there is no page. */
  askAgain(asking: Asking, address: string): ReadyAnswer | undefined {
    const view = this.view(asking);
    const row = this.#askingRow(view, address);
    return row === undefined ? undefined : askFor(view, row, address, true);
  }

  /** The row of the page at an address, or of one that it leads to once the passphrase was given. */
  #askingRow(view: LiveView, address: string): number | undefined {
    const row = view.derived.rowAt.get(decoded(address) ?? '');
    if (row !== undefined) return row;
    const lead = this.#lead(view, address)?.lead;
    return typeof lead === 'object' && 'asks' in lead ? lead.asks : undefined;
  }

  #lead(view: LiveView, address: string): { readonly path: string; readonly lead: Lead | undefined } | undefined {
    const found = resolveRedirect(this.release.whole, this.release.sources, pathOfOldAddress(address));
    return found && { path: found.path, lead: whereTo(view, found.to) };
  }

  /** Where an address leads that no page has, by its path with the query, else without. */
  #leadFrom(visitors: VisitorClass, rest: string, query: string): ReadyAnswer | Moved | undefined {
    const { path, lead } = this.#lead(visitors.view, rest + query) ?? {};
    if (path === undefined || lead === undefined) return undefined;
    this.#parts.visits.hit(this.release.site.key, path);
    if (lead !== 'gone') return 'to' in lead ? { moved: lead.to, status: 301 } : askFor(visitors.view, lead.asks, rest);
    return (visitors.gone ??= new ReadyAnswer(
      410,
      HTML,
      renderNotFound(visitors.view, { isGone: true, near: [], own: null }).text,
      [...cachingOf(visitors.view), ...NO_INDEX],
    ));
  }

  /** Where an address of the old site leads that a file had, by its path with the query, else without; for who may have the file. */
  async #oldFileFrom({ asking, view }: VisitorClass, rest: string, query: string): Promise<Moved | undefined> {
    const { oldFiles, files } = this.release;
    const id = oldFiles.get(pathOfOldAddress(rest + query)) ?? oldFiles.get(pathOfOldAddress(rest));
    const file = id && files.get(id);
    if (!file || !(await this.file(file.content, asking))) return undefined;
    return { moved: fileHref(view.place, file), status: 301 };
  }

  /** The page for an address that leads nowhere, with the pages nearest to it that the visitor may know of. */
  async #notFound(
    visitors: VisitorClass,
    rest: string,
    asking: Asking,
    referrer: string | undefined,
  ): Promise<ReadyAnswer> {
    const { view } = visitors;
    const { derived, place, site } = view;
    const path = decoded(rest);
    // An address that is in use, and closed to whoever asks, is not asked for in vain.
    if (path !== null && !derived.rowAt.has(path)) this.#parts.visits.miss(site.key, path, ownPath(place, referrer));
    const near =
      path === null || path.length > MAX_NEAR_LENGTH
        ? []
        : nearestPages(derived.addresses, path, (row) => view.found[row] === 1);
    const make = async () => {
      const { made, holds } = await this.#watch(view, { asking, given: null, query: '' }, (watched) =>
        notFoundPage(
          watched,
          near.map(({ row }) => row),
          this.#textOf(watched),
        ),
      );
      return new ReadyAnswer(404, HTML, made.text, [...cachingOf(view), ...NO_INDEX], holds);
    };
    if (near.length > 0) return make();
    const kept = visitors.notFound;
    if (kept && kept.until > this.#parts.now()) return kept;
    return (visitors.notFound = await make());
  }
}
