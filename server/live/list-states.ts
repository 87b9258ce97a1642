import { type ListFilter, type ListPart, type ListState, isByMonth } from '#core/derive/list-part.ts';
import { FIELD_TYPE } from '#core/fields/all-types.ts';
import { dateFormat } from '#core/fields/formats.ts';
import type { PageId } from '#core/model/ids.ts';
import type { FieldId } from '#core/model/kind-field.ts';
import type { PageListSetting } from '#core/sections/page-list.ts';
import { fieldContext } from './details.ts';
import { type Html, type Markup, markup } from './html.ts';
import { type LiveView, pathOf } from './live-view.ts';
import { siteWords } from './site-words.ts';

/** A list on a page: which one of them it is, from 1. */
interface PlacedList {
  readonly page: PageId;
  readonly setting: PageListSetting;
  readonly number: number;
}

/** A value that is asked for is not longer. */
const MAX_ASKED_LENGTH = 300;
const PART = 'part';
const nameOf = (number: number, what: string): string => `${number}.${what}`;

/** The state of a list that a query asks for. */
export function stateIn(query: URLSearchParams, { filters }: PageListSetting, number: number): ListState {
  const part = Number(query.get(nameOf(number, PART)));
  const chosen = filters.flatMap((field): [FieldId, string][] => {
    const value = query.get(nameOf(number, field)) ?? '';
    return value === '' || value.length > MAX_ASKED_LENGTH ? [] : [[field, value]];
  });
  return { chosen: new Map(chosen), part: Number.isSafeInteger(part) && part > 0 ? part : 1 };
}

/** The address of the page with a list in a state; other lists on it stay as they are. */
function addressOf(view: LiveView, { page, number }: PlacedList, { chosen, part }: ListState): string {
  const query = new URLSearchParams(othersIn(view, number));
  for (const [field, value] of chosen) query.set(nameOf(number, field), value);
  if (part > 1) query.set(nameOf(number, PART), String(part));
  const asked = query.toString();
  return `${pathHere(view, page)}${asked === '' ? '' : `?${asked}`}#list-${number}`;
}

/** What a query asks of the other lists on a page. */
const othersIn = ({ query }: LiveView, number: number): [string, string][] =>
  [...(query ?? [])].filter(([name]) => /^\d{1,3}\./.test(name) && !name.startsWith(`${number}.`)).slice(0, 20);

const pathHere = ({ place, derived }: LiveView, page: PageId): string => {
  const row = derived.outline.rowOf.get(page);
  return pathOf(place, (row === undefined ? null : derived.addresses[row]) ?? '/');
};

/** What a list is filtered by, as a form that sends its choices in the query; nothing where there is nothing to choose. */
export function renderFilters(view: LiveView, placed: PlacedList, part: ListPart, state: ListState): Markup {
  const filters = part.filters.filter(({ values, found }) => values.length > 1 || state.chosen.has(found.field.id));
  if (filters.length === 0) return '';
  const words = siteWords(view.site.settings.language);
  const { number, page } = placed;
  const isFiltered = state.chosen.size > 0;
  const kept = othersIn(view, number).map(
    ([name, value]) => markup`<input type="hidden" name="${name}" value="${value}">`,
  );
  const whole = addressOf(view, placed, { chosen: new Map(), part: 1 });
  return markup`<form class="filters" method="get" action="${pathHere(view, page)}#list-${number}" aria-label="${words.filter}">${kept}${filters.map((one) => renderFilter(view, number, one, state))}<button>${words.show}</button>${isFiltered ? markup` <a href="${whole}">${words.showAll}</a>` : ''}</form>${isFiltered && part.count > 0 ? markup`<p class="left" role="status">${words.left(part.count)}</p>` : ''}`;
}

function renderFilter(view: LiveView, number: number, { found, values }: ListFilter, { chosen }: ListState): Html {
  const { field } = found;
  const { language } = view.site.settings;
  const now = chosen.get(field.id);
  const wordsOf = (value: string): string =>
    isByMonth(field.type)
      ? dateFormat(language, 'month').format(new Date(`${value}-01`))
      : FIELD_TYPE[field.type].words(value, field, fieldContext(view));
  const options = values.map(
    (value) => markup`<option value="${value}"${value === now ? markup` selected` : ''}>${wordsOf(value)}</option>`,
  );
  return markup`<label>${field.name} <select name="${nameOf(number, field.id)}"><option value="">${siteWords(language).all}</option>${options}</select></label>`;
}

/** The ways to the other parts of a list; nothing where there is one. */
export function renderParts(view: LiveView, placed: PlacedList, { part, parts }: ListPart, state: ListState): Markup {
  if (parts === 1) return '';
  const words = siteWords(view.site.settings.language);
  const to = (next: number, rel: 'prev' | 'next', text: string): Markup =>
    next < 1 || next > parts
      ? ''
      : markup`<a rel="${rel}" href="${addressOf(view, placed, { ...state, part: next })}">${text}</a>`;
  return markup`<nav class="parts" aria-label="${words.partsOfList}">${to(part - 1, 'prev', words.previous)}<span>${words.part(part, parts)}</span>${to(part + 1, 'next', words.next)}</nav>`;
}
