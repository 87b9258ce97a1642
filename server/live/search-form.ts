import { type Html, markup } from './html.ts';

export const MAX_QUESTION_LENGTH = 200;

/** The search field. It stands in the head of each page, and above the results. */
export function renderSearchForm(place: { readonly base: string }, words: string, where: 'head' | 'page'): Html {
  const id = `search-${where}`;
  return markup`<form role="search" class="search in-${where}" action="${place.base}/search"><label class="unseen" for="${id}">Search this site</label><input type="search" id="${id}" name="q" maxlength="${MAX_QUESTION_LENGTH}" placeholder="Search this site" value="${words}"><button>Search</button></form>`;
}
