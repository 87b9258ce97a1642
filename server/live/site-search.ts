import { type SiteWords, siteWords } from './site-words.ts';
import { trailOf } from '#core/derive/trail.ts';
import type { PageId } from '#core/model/ids.ts';
import { nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import type { Database } from '../database/connect.ts';
import {
  MARK,
  type Query,
  type Searched,
  closeQuery,
  exactQuery,
  extractsOf,
  pagesFound,
} from '../search/search-repository.ts';
import { type Html, type Markup, markup } from './html.ts';
import { type LiveView, pathOf } from './live-view.ts';
import { NO_INDEX, renderFrame } from './render-page.ts';
import { MAX_QUESTION_LENGTH, renderSearchForm } from './search-form.ts';

const ON_ONE_PAGE = 10;

/** What was typed into the search field, and which ten of the results are asked for. */
export interface SearchQuestion {
  readonly words: string;
  /** From 1 on. */
  readonly part: number;
}

/** The question in a query string, such as `?q=words&part=2`. */
export function questionIn(query: string): SearchQuestion {
  const given = new URLSearchParams(query);
  // PostgreSQL knows no text with a zero in it.
  const words = (given.get('q') ?? '').replace(/\p{Cc}+/gu, ' ').trim();
  const part = Number(given.get('part'));
  return {
    words: words.slice(0, MAX_QUESTION_LENGTH),
    part: Number.isInteger(part) && part > 1 && part < 1000 ? part : 1,
  };
}

/**
 * The page of results: what the visitor may open and search does not hold back, each with its trail and an extract.
 * Where no page has the words, those that have words close to them stand there instead. Neither the results nor their
 * number nor the words proposed tell anything of other pages.
 */
export async function renderSearch(
  database: Database,
  view: LiveView,
  isDraft: boolean,
  { words, part }: SearchQuestion,
): Promise<Html> {
  const { site } = view;
  const searched = {
    site: site.key,
    language: site.settings.language,
    isDraft,
    visitor: view.visitor,
    audiences: site.settings.audiences.map(({ id }) => id),
  };
  const { pages, query, isClose } = await find(database, searched, words, view);
  const shown = pages.slice((part - 1) * ON_ONE_PAGE, part * ON_ONE_PAGE);
  const extracts = query === null ? new Map<PageId, string>() : await extractsOf(database, searched, shown, query);
  const own = siteWords(site.settings.language);
  const results = shown.map((page) => renderResult(view, page, extracts.get(page) ?? ''));
  const body = markup`<main id="content"><h1>${own.search}</h1>${renderSearchForm(view, words, 'page')}
${words === '' ? '' : markup`<p role="status">${outcome(own, words, pages.length, isClose)}</p>`}
${results.length === 0 ? '' : markup`<ol class="results" start="${(part - 1) * ON_ONE_PAGE + 1}">${results}</ol>`}
${renderParts(view, words, part, Math.ceil(pages.length / ON_ONE_PAGE))}</main>`;
  const { name } = site.settings;
  return renderFrame(view, {
    title: `${words === '' ? own.search : own.searchFor(words)} – ${name}`,
    head: NO_INDEX,
    body,
    current: null,
    isSearch: true,
  });
}

const known = new WeakMap<LiveView, Parameters<typeof pagesFound>[3]>();

/** The pages that search may find for a visitor, or those that it may not. */
function mineIn(view: LiveView): Parameters<typeof pagesFound>[3] {
  let mine = known.get(view);
  if (!mine) {
    const pages = view.derived.outline.nodes.map(({ id }) => id);
    const only = pages.filter((_, row) => view.found[row] === 1);
    mine = only.length * 2 < pages.length ? { only } : { but: pages.filter((_, row) => view.found[row] !== 1) };
    known.set(view, mine);
  }
  return mine;
}

/** Looks for the words as they are, then for words with one typing mistake and with two, until something is found. */
async function find(
  database: Database,
  searched: Searched,
  words: string,
  view: LiveView,
): Promise<{ pages: PageId[]; query: Query | null; isClose: boolean }> {
  const none = { pages: [], query: null, isClose: false };
  if (words === '') return none;
  const { found, derived } = view;
  // What was released a moment ago is another tree than the words that are searched.
  const isMine = (page: PageId) => found[derived.outline.rowOf.get(page) ?? -1] === 1;
  for (const mistakes of [0, 1, 2] as const) {
    const query =
      mistakes === 0
        ? await exactQuery(database, searched, words)
        : await closeQuery(database, searched, words, mistakes);
    const pages = query === null ? [] : (await pagesFound(database, searched, query, mineIn(view))).filter(isMine);
    if (pages.length > 0) return { pages, query, isClose: mistakes > 0 };
  }
  return none;
}

function outcome(own: SiteWords, words: string, count: number, isClose: boolean): string {
  if (count === 0) return own.nothingFound(words);
  return isClose ? own.nearlyFound(count, words) : own.found(count, words);
}

function renderResult(view: LiveView, page: PageId, extract: string): Html {
  const { site, place, derived } = view;
  const address = derived.addresses[derived.outline.rowOf.get(page)!]!;
  const trail = trailOf(site, page, derived).slice(0, -1);
  const cut = extract === '' || /[.!?…]$/.test(extract) ? extract : `${extract} …`;
  // The database marks the words by signs that no text has.
  const marked = cut.split(MARK.start).map((part, at) => {
    const [found = '', rest] = part.split(MARK.end);
    return at === 0 || rest === undefined ? part : markup`<mark>${found}</mark>${rest}`;
  });
  return markup`<li><a href="${pathOf(place, address)}">${textIn(nodeAt(site, page).title, site.settings.language)}</a>
${trail.length === 0 ? '' : markup`<p class="where">${trail.map((step) => step.text).join(' › ')}</p>`}
${cut === '' ? '' : markup`<p>${marked}</p>`}</li>`;
}

function renderParts({ site, place }: LiveView, words: string, part: number, parts: number): Markup {
  if (parts < 2) return '';
  const own = siteWords(site.settings.language);
  const to = (number: number, text: string) => {
    const query = new URLSearchParams({ q: words, ...(number > 1 && { part: String(number) }) }).toString();
    return markup`<a href="${place.base}/search?${query}">${text}</a>`;
  };
  return markup`<nav aria-label="${own.results}" class="parts">${part > 1 ? to(part - 1, own.previousTen) : ''} <span>${own.part(part, parts)}</span> ${part < parts ? to(part + 1, own.nextTen) : ''}</nav>`;
}
