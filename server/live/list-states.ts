import { WHOLE_LIST, type ListFilter, type ListPart, type ListState, isByMonth } from '#core/derive/list-part.ts';
import { monthField, monthOfList, weeksOf } from '#core/derive/list-month.ts';
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
export interface PlacedList {
  readonly page: PageId;
  readonly setting: PageListSetting;
  readonly number: number;
  /** The level of the headings of its groups. */
  readonly level: number;
}

/** A value that is asked for is not longer. */
const MAX_ASKED_LENGTH = 300;
const PART = 'part';
const MONTH = 'month';
const IS_MONTH = /^(?:19|20|21)\d\d-(?:0[1-9]|1[0-2])$/;
const nameOf = (number: number, what: string): string => `${number}.${what}`;

/** The name of what stands with a list; with its number where it is not the first one on the page. */
const called = (words: string, { number }: Pick<PlacedList, 'number'>): string =>
  number === 1 ? words : `${words}, ${number}`;

/** Whether a query asks for a state of some list. */
export const asksForState = (query: string): boolean => /[?&]\d{1,3}\./.test(query);

/** The state of a list that a query asks for. */
export function stateIn(query: URLSearchParams, { filters }: PageListSetting, number: number): ListState {
  const part = Number(query.get(nameOf(number, PART)));
  const chosen = filters.flatMap((field): [FieldId, string][] => {
    const value = query.get(nameOf(number, field)) ?? '';
    return value === '' || value.length > MAX_ASKED_LENGTH ? [] : [[field, value]];
  });
  const month = query.get(nameOf(number, MONTH)) ?? '';
  return {
    chosen: new Map(chosen),
    part: Number.isSafeInteger(part) && part > 0 ? part : 1,
    month: IS_MONTH.test(month) ? month : null,
  };
}

/** The address of the page with a list in a state; other lists on it stay as they are. */
function addressOf(view: LiveView, { page, number }: PlacedList, { chosen, part, month }: ListState): string {
  const query = new URLSearchParams(othersIn(view, number));
  for (const [field, value] of chosen) query.set(nameOf(number, field), value);
  if (part > 1) query.set(nameOf(number, PART), String(part));
  if (month !== null) query.set(nameOf(number, MONTH), month);
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
  const whole = addressOf(view, placed, WHOLE_LIST);
  return markup`<form class="filters" method="get" action="${pathHere(view, page)}#list-${number}" aria-label="${called(words.filter, placed)}">${kept}${filters.map((one) => renderFilter(view, number, one, state))}<button>${words.show}</button>${isFiltered ? markup` <a href="${whole}">${words.showAll}</a>` : ''}</form>${isFiltered && part.count > 0 ? markup`<p class="left" role="status">${words.left(part.count)}</p>` : ''}`;
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
  return markup`<nav class="parts" aria-label="${called(words.partsOfList, placed)}">${to(part - 1, 'prev', words.previous)}<span>${words.part(part, parts)}</span>${to(part + 1, 'next', words.next)}</nav>`;
}

/** A month of a list as a table of its weeks, with the ways to those before and after it; nothing where no field says when. */
export function renderMonth(
  view: LiveView,
  placed: PlacedList,
  rows: readonly number[],
  state: ListState,
  linked: (row: number) => Html,
): Markup {
  const found = monthField(view.site, placed.setting);
  if (!found) return '';
  const { language } = view.site.settings;
  const words = siteWords(language);
  const { month, days, before, after } = monthOfList(view.derived, rows, found, fieldContext(view), state.month);
  const firstWeekday = /^en-US\b/i.test(language) ? 7 : 1;
  const { today } = fieldContext(view);
  const heads = Array.from({ length: 7 }, (_, at) => {
    const day = new Date(MONDAY + (firstWeekday - 1 + at) * DAY_MS);
    return markup`<th scope="col"><abbr title="${dateFormat(language, 'name of the day').format(day)}">${dateFormat(language, 'short name of the day').format(day)}</abbr></th>`;
  });
  const cell = (day: string | null): Html => {
    if (day === null) return markup`<td></td>`;
    const on = days.get(day) ?? [];
    const list = on.length === 0 ? '' : markup`<ul>${on.map((row) => markup`<li>${linked(row)}</li>`)}</ul>`;
    return markup`<td${on.length > 0 ? markup` class="has"` : ''}><time datetime="${day}"${day === today ? markup` aria-current="date"` : ''}><span class="on-narrow">${dateFormat(language, 'short name of the day').format(new Date(day))} </span>${Number(day.slice(8))}</time>${list}</td>`;
  };
  const lines = weeksOf(month, firstWeekday).map((week) => markup`<tr>${week.map(cell)}</tr>`);
  const name = (of: string): string => dateFormat(language, 'month').format(new Date(`${of}-01`));
  const to = (of: string | null, rel: 'prev' | 'next'): Markup =>
    of === null
      ? ''
      : markup`<a rel="${rel}" href="${addressOf(view, placed, { ...state, month: of })}">${name(of)}</a>`;
  const isEmpty = days.size === 0 ? markup`<p role="status">${words.noneLeft}</p>` : '';
  return markup`<table class="month"><caption>${name(month)}</caption><thead><tr>${heads}</tr></thead><tbody>${lines}</tbody></table>${isEmpty}<nav class="parts" aria-label="${called(words.partsOfList, placed)}">${to(before, 'prev')}${to(after, 'next')}</nav>`;
}

/** A Monday, from which the days of the week are named. */
const MONDAY = Date.UTC(2027, 0, 4);
const DAY_MS = 86_400_000;
