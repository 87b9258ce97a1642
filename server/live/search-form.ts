import { escaped } from './html.ts';

export const MAX_QUESTION_LENGTH = 200;

/** The search field. It stands in the head of each page, and above the results. */
export function renderSearchForm(place: { readonly base: string }, words: string, where: 'head' | 'page'): string {
  const id = `search-${where}`;
  return `<form role="search" class="search in-${where}" action="${escaped(place.base)}/search"><label class="unseen" for="${id}">Search this site</label><input type="search" id="${id}" name="q" maxlength="${MAX_QUESTION_LENGTH}" placeholder="Search this site" value="${escaped(words)}"><button>Search</button></form>`;
}
