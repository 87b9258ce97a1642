import { TZDate } from '@date-fns/tz';
import { addDays, startOfDay } from 'date-fns';
import { type ListPart, type ListState, hasStates, partOfList } from '#core/derive/list-part.ts';
import { type ListGroup, goesByTheDay, listedPages } from '#core/derive/page-list.ts';
import { labelOf, leadsTo } from '#core/derive/menu.ts';
import { FIELD_TYPE, saysWhen } from '#core/fields/all-types.ts';
import { dayWords } from '#core/fields/date-types.ts';
import { dateFormat } from '#core/fields/formats.ts';
import { type FieldOfSite, detailIn, maybeUsedField } from '#core/fields/values.ts';
import type { PageId } from '#core/model/ids.ts';
import type { KindField } from '#core/model/kind-field.ts';
import { nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { PAGE_LIST_DATA, type PageListSetting, pageListSchema } from '#core/sections/page-list.ts';
import { fieldContext, renderValue } from './details.ts';
import { type Html, type Markup, markup, sound } from './html.ts';
import { elementsOf, withElements } from './html-elements.ts';
import { type LiveView, type ShownList, hrefOf, pathOf } from './live-view.ts';
import { type PlacedList, renderFilters, renderMonth, renderParts, stateIn } from './list-states.ts';
import { calendarAddress } from './machine-files.ts';
import { items } from './render-listing.ts';
import { siteWords } from './site-words.ts';

/** A text with the pages in its lists of pages, as the visitor has them. @param page the page that the text is of */
export function withPageLists(text: Html | '', view: LiveView, page: PageId): Html | '' {
  if (text === '' || !text.text.includes(PAGE_LIST_DATA)) return text;
  const lists = elementsOf(text.text, (name, attributes) => name === 'div' && PAGE_LIST_DATA in attributes);
  let number = 0;
  return sound(
    withElements(text.text, lists, ({ attributes, from }) => {
      const setting = settingIn(attributes[PAGE_LIST_DATA]!);
      if (setting === null) return '';
      const groups = groupsFor(view, page, setting);
      view.listed?.({ page, setting, shown: pagesIn(view, groups), isOfTheDay: goesByTheDay(setting, view.site) });
      number += 1;
      const list = renderList(view, { page, setting, number, level: levelAt(text.text, from) + 1 }, groups);
      return list === '' ? '' : list.text;
    }),
  );
}

const groupsFor = (view: LiveView, page: PageId, setting: PageListSetting): ListGroup[] =>
  listedPages(view.site, view.derived, page, setting, fieldContext(view), (row) => view.locked[row] === 1);

const pagesIn = ({ derived }: LiveView, groups: readonly ListGroup[]): PageId[] =>
  groups.flatMap(({ rows }) => rows.map((row) => derived.outline.nodes[row]!.id));

/** Whether a list shows something else after a release. @param view as it is then @param touched the pages that say something else */
export function isListTouched(
  { page, setting, shown }: ShownList,
  view: LiveView,
  touched: ReadonlySet<PageId>,
): boolean {
  if (shown.some((one) => touched.has(one))) return true;
  const now = pagesIn(view, groupsFor(view, page, setting));
  return now.length !== shown.length || now.some((one, at) => one !== shown[at]);
}

/** Until when lists are right: where the clock changes one, to the end of the day by the site's clock. In milliseconds since 1970. */
export const listsHoldUntil = ({ site, at }: LiveView, lists: readonly ShownList[]): number =>
  lists.some(({ isOfTheDay }) => isOfTheDay)
    ? startOfDay(addDays(new TZDate(at, site.settings.timeZone), 1)).getTime()
    : Infinity;

/** The setting was checked when the text came in; one that cannot be read lists nothing. */
function settingIn(text: string): PageListSetting | null {
  try {
    return pageListSchema.safeParse(JSON.parse(text)).data ?? null;
  } catch {
    return null;
  }
}

function renderList(view: LiveView, placed: PlacedList, all: readonly ListGroup[]): Markup {
  if (all.length === 0) return '';
  const { page, setting, number } = placed;
  const calendar = renderCalendarLink(view, page, shownIn(view, setting));
  // Where nothing can be asked for all of it is shown.
  if (!view.query || !hasStates(setting))
    return markup`<div class="section listed">${renderGroups(view, placed, all)}${calendar}</div>`;
  const state = stateIn(view.query, setting, number);
  const part = partOfList(view.site, view.derived, all, setting, fieldContext(view), state);
  const filters = renderFilters(view, placed, part, state);
  return markup`<div class="section listed" id="list-${number}">${filters}${renderPart(view, placed, part, state)}${calendar}</div>`;
}

/** What is shown of a list in a state: a month of it, or a part of its groups. */
function renderPart(view: LiveView, placed: PlacedList, part: ListPart, state: ListState): Markup {
  if (placed.setting.look === 'month') {
    const rows = [...new Set(part.groups.flatMap((group) => group.rows))];
    const month = renderMonth(view, placed, rows, state, (row) => linked(view, row));
    if (month !== '') return month;
  }
  if (part.groups.length === 0) return markup`<p role="status">${siteWords(view.site.settings.language).noneLeft}</p>`;
  return markup`${renderGroups(view, placed, part.groups)}${renderParts(view, placed, part, state)}`;
}

function renderGroups(view: LiveView, { setting, level }: PlacedList, groups: readonly ListGroup[]): Html {
  const { labels, language } = view.site.settings;
  const shown = shownIn(view, setting);
  const by = setting.group === null ? undefined : maybeUsedField(labels, setting.group)?.field;
  const tag = sound(`h${level}`);
  const parts = groups.map(({ value, rows }) => {
    const words = !by?.isForVisitors
      ? null
      : value === null
        ? siteWords(language).notSaid
        : groupWords(view, by, value);
    const heading = words === null ? '' : markup`<${tag} class="group">${words}</${tag}>`;
    return markup`${heading}${renderRows(view, setting, rows, shown)}`;
  });
  return markup`${parts}`;
}

/** The level of the last heading of a text before a place in it; 1 where there is none, since a page's title is above. */
function levelAt(text: string, at: number): number {
  const places = [2, 3, 4].map((level) => ({ level, place: text.lastIndexOf(`<h${level}`, at) }));
  const last = places.reduce((a, b) => (b.place > a.place ? b : a));
  return last.place === -1 ? 1 : last.level;
}

/** The fields that a list shows of each page. */
const shownIn = ({ site }: LiveView, { fields }: PageListSetting): FieldOfSite[] =>
  fields.flatMap((id) => maybeUsedField(site.settings.labels, id) ?? []).filter(({ field }) => field.isForVisitors);

/** The way to the calendar of a page whose list says when things are, where everyone is offered the page. */
function renderCalendarLink(
  { site, place, derived, offered, walk }: LiveView,
  page: PageId,
  shown: readonly FieldOfSite[],
): Markup {
  const row = derived.outline.rowOf.get(page);
  const address = row === undefined || offered[row] !== 1 ? null : derived.addresses[row]!;
  if (address === null || place.isStatic === true || walk !== null || !shown.some(({ field }) => saysWhen(field.type)))
    return '';
  return markup`<p><a href="${pathOf(place, calendarAddress(address))}" type="text/calendar">${siteWords(site.settings.language).asCalendar}</a></p>`;
}

function renderRows(
  view: LiveView,
  { look }: PageListSetting,
  rows: readonly number[],
  shown: readonly FieldOfSite[],
): Html {
  if (look === 'table') return renderTable(view, rows, shown);
  if (look === 'dates') return renderDates(view, rows, shown);
  const plain = items(
    view,
    rows.map((row) => ({ row, below: [] })),
    true,
    (row) => renderShown(view, row, shown),
  );
  return markup`<ul${look === 'cards' ? markup` class="cards"` : ''}>${plain}</ul>`;
}

/** What a page says in a field; nothing of a page with a lock. */
function valueIn(view: LiveView, row: number, found: FieldOfSite): Markup {
  if (view.locked[row] === 1) return '';
  const node = view.derived.outline.nodes[row]!;
  const value = detailIn(node, found, fieldContext(view));
  return value === null ? '' : renderValue(view, found.field, value);
}

function renderShown(view: LiveView, row: number, shown: readonly FieldOfSite[]): Markup {
  const said = shown.flatMap((found) => {
    const value = valueIn(view, row, found);
    return value === '' ? [] : [markup`<div><dt>${found.field.name}</dt><dd>${value}</dd></div>`];
  });
  return said.length === 0 ? '' : markup`<dl class="fields">${said}</dl>`;
}

/** The title of a row as a link, where it leads anywhere. */
function linked(view: LiveView, row: number): Html {
  const node = nodeAt(view.site, view.derived.outline.nodes[row]!.id);
  const to = leadsTo(view.derived, row);
  return to === null
    ? markup`${labelOf(view.site, node)}`
    : markup`<a href="${hrefOf(view.place, to)}">${labelOf(view.site, node)}</a>`;
}

function renderDates(view: LiveView, rows: readonly number[], shown: readonly FieldOfSite[]): Html {
  const { language } = view.site.settings;
  const lines = rows.map((row) => {
    const day = view.derived.outline.nodes[row]!.frame?.date;
    return markup`<li>${day ? markup`<time datetime="${day}">${dayWords(day, language)}</time> ` : ''}${linked(view, row)}${renderShown(view, row, shown)}</li>`;
  });
  return markup`<ul class="dates">${lines}</ul>`;
}

/** A row a page: its title, and a column for each field; without fields its description. */
function renderTable(view: LiveView, rows: readonly number[], shown: readonly FieldOfSite[]): Html {
  const { language } = view.site.settings;
  const words = siteWords(language);
  const names = shown.length === 0 ? [words.description] : shown.map(({ field }) => field.name);
  const lines = rows.map((row) => {
    const description = view.locked[row] === 0 ? textIn(view.derived.outline.nodes[row]!.description, language) : '';
    const cells = shown.length === 0 ? [description] : shown.map((found) => valueIn(view, row, found));
    return markup`<tr><th scope="row">${linked(view, row)}</th>${cells.map((cell) => markup`<td>${cell}</td>`)}</tr>`;
  });
  return markup`<table><thead><tr><th scope="col">${words.page}</th>${names.map((name) => markup`<th scope="col">${name}</th>`)}</tr></thead><tbody>${lines}</tbody></table>`;
}

/** What a group is called: a month, or the value that its pages have in common. */
function groupWords(view: LiveView, field: KindField, value: string): string {
  if (saysWhen(field.type)) return dateFormat(view.site.settings.language, 'month').format(new Date(`${value}-01`));
  return FIELD_TYPE[field.type].words(value, field, fieldContext(view));
}
