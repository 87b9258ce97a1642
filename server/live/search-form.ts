import { type Html, markup } from './html.ts';
import type { LiveView } from './live-view.ts';
import { siteWords } from './site-words.ts';

export const MAX_QUESTION_LENGTH = 200;

/** The search field. It stands in the head of each page, and above the results. */
export function renderSearchForm({ site, place }: LiveView, words: string, where: 'head' | 'page'): Html {
  const own = siteWords(site.settings.language);
  const id = `search-${where}`;
  return markup`<form role="search" class="search in-${where}" action="${place.base}/search"><label class="unseen" for="${id}">${own.searchThisSite}</label><input type="search" id="${id}" name="q" maxlength="${MAX_QUESTION_LENGTH}" placeholder="${own.searchThisSite}" value="${words}"><button>${own.search}</button></form>`;
}
