import { FIELD_TYPE } from '#core/fields/all-types.ts';
import { degreesOf } from '#core/fields/choice-types.ts';
import { fieldContextOf } from '#core/fields/context.ts';
import { daysOfPeriod } from '#core/fields/date-types.ts';
import type { FieldContext } from '#core/fields/field-type.ts';
import { partsOfRule, readRepetition } from '#core/fields/repeats.ts';
import { detailOf, fieldsFor } from '#core/fields/values.ts';
import { labelOf } from '#core/derive/menu.ts';
import { namedBy, pagesNamed } from '#core/derive/named-by.ts';
import { fileTypeOf } from '#core/files/file.ts';
import { ruleOf } from '#core/model/access.ts';
import type { FileId } from '#core/files/file.ts';
import type { PageId } from '#core/model/ids.ts';
import type { KindField } from '#core/model/kind-field.ts';
import { dayIn } from '#core/model/moment-words.ts';
import { type About, kindAmong } from '#core/model/page-label.ts';
import { nodeAt } from '#core/model/site.ts';
import { type Html, type Markup, markup } from './html.ts';
import { fileHref } from './live-files.ts';
import { type LiveView, isNamed, lockOf, pathOf } from './live-view.ts';
import { renderDownload, renderPicture } from './with-files.ts';

const contexts = new WeakMap<LiveView['derived'], FieldContext>();

/** What saying values needs, as a visitor has the site: pages that are hidden from them have no titles. */
export function fieldContext(view: LiveView): FieldContext {
  const { site, at, files, derived } = view;
  let context = contexts.get(derived);
  if (!context) {
    const all = fieldContextOf(site, '', (file) => files.get(file)?.name);
    const isSeen = (page: PageId): boolean => {
      const row = derived.outline.rowOf.get(page);
      return row !== undefined && isNamed(view, row);
    };
    context = {
      ...all,
      titleOf: (page) => (isSeen(page) ? all.titleOf(page) : undefined),
      pagesTitled: (title) => all.pagesTitled(title).filter(isSeen),
    };
    contexts.set(derived, context);
  }
  return { ...context, today: dayIn(site.settings.timeZone, at) };
}

/** Whether a field says on which days something is. */
export const saysWhen = ({ type }: KindField): boolean =>
  type === 'day' || type === 'moment' || type === 'period' || type === 'repeats';

/** What a page says in the fields that visitors see, in their order. */
export function shownDetails(view: LiveView, page: PageId): { readonly field: KindField; readonly value: string }[] {
  const { labels } = view.site.settings;
  const { details, access } = nodeAt(view.site, page);
  const context = fieldContext(view);
  return fieldsFor(ruleOf({ access }).labels, labels).flatMap((field) => {
    const value = field.isForVisitors ? detailOf(details, field, context) : null;
    return value === null ? [] : [{ field, value }];
  });
}

/** The fields of a page with what it says in them; nothing where it says nothing. */
export function renderDetails(view: LiveView, page: PageId): Markup {
  const lines = shownDetails(view, page).flatMap(({ field, value }) => {
    const said = renderValue(view, field, value);
    return said === '' ? [] : [markup`<div><dt>${field.name}</dt><dd>${said}</dd></div>`];
  });
  return lines.length === 0 ? '' : markup`<dl class="fields">${lines}</dl>`;
}

/** One value as a visitor reads it; nothing where all that it names is hidden from them. */
export function renderValue(view: LiveView, field: KindField, value: string): Markup {
  const type = FIELD_TYPE[field.type];
  if (field.type === 'pages') {
    const links = pagesNamed(field, value).flatMap((page) => pageLinkOf(view, page));
    return links.length === 0 ? '' : markup`${links.map((link, at) => markup`${at === 0 ? '' : ', '}${link}`)}`;
  }
  if (field.type === 'file') {
    const file = view.files.get(value as FileId);
    if (!file) return '';
    return fileTypeOf(file.type).kind === 'picture'
      ? renderPicture(view, file, { place: 'tile', alternative: null, isFirst: false })
      : renderDownload(view, file, '');
  }
  const words = type.words(value, field, fieldContext(view));
  const to = type.leadsTo?.(value) ?? null;
  if (to !== null) return markup`<a href="${to}">${words}</a>`;
  const lines = words.split('\n');
  return markup`${lines.map((line, at) => markup`${at === 0 ? '' : markup`<br>`}${line}`)}`;
}

function pageLinkOf(view: LiveView, page: PageId): Html[] {
  const { site, derived, place } = view;
  const row = derived.outline.rowOf.get(page);
  if (row === undefined || !isNamed(view, row)) return [];
  const address = derived.addresses[row] ?? null;
  const title = labelOf(site, derived.outline.nodes[row]!);
  return [
    address === null ? markup`${title}` : markup`<a href="${pathOf(place, address)}">${title}${lockOf(view, page)}</a>`,
  ];
}

/** The pages that name this one, under the headings of the fields in which they do; those that the visitor may not open are not even counted. */
export function renderNamings(view: LiveView, page: PageId): Markup[] {
  const { site, derived, locked } = view;
  return namedBy(site, page).flatMap(({ field, rows }, at) => {
    if (field.backName === '' || !field.isForVisitors) return [];
    const seen = rows.filter((row) => isNamed(view, row) && locked[row] === 0);
    if (seen.length === 0) return [];
    const items = seen.map((row) => markup`<li>${pageLinkOf(view, derived.outline.nodes[row]!.id)}</li>`);
    return [
      markup`<section class="named-by" aria-labelledby="named-by-${at}"><h2 id="named-by-${at}">${field.backName}</h2><ul>${items}</ul></section>`,
    ];
  });
}

/** What pages of a kind are about, in the words of schema.org. */
const SCHEMA_TYPES: Readonly<Record<About, string>> = {
  page: 'WebPage',
  person: 'Person',
  place: 'Place',
  course: 'Course',
  event: 'Event',
  article: 'Article',
  organisation: 'Organization',
};

/** What a page of a kind is, for machines: JSON-LD with the types and properties of schema.org. Null for a page like any other. */
export function kindData(view: LiveView, page: PageId, description: string, url: string): object | null {
  const { site } = view;
  const node = nodeAt(site, page);
  const kind = kindAmong(ruleOf(node).labels, site.settings.labels);
  if (kind === null) return null;
  const said = Object.assign(
    {},
    ...shownDetails(view, page).map(({ field, value }) => propertyOf(view, kind.about, field, value)),
  ) as Record<string, unknown>;
  return {
    '@context': 'https://schema.org',
    '@type': SCHEMA_TYPES[kind.about],
    [kind.about === 'article' ? 'headline' : 'name']: labelOf(site, { ...node, label: {} }),
    ...(description !== '' && { description }),
    url,
    ...said,
  };
}

/** A value as schema.org wants it, under the property that its field stands for; nothing for fields of which machines are told nothing. */
function propertyOf(view: LiveView, about: About, { ...field }: KindField, value: string): Record<string, unknown> {
  const { property } = field;
  if (property === null) return {};
  // What happens between two days is an event with both; a course has its dates by one time that it is held.
  const days = daysOf(field, value);
  if (property === 'instance' && field.type === 'repeats')
    return {
      hasCourseInstance: { '@type': 'CourseInstance', courseMode: 'Onsite', courseSchedule: scheduleOf(value) },
    };
  if (property === 'instance')
    return days
      ? { hasCourseInstance: { '@type': 'CourseInstance', courseMode: 'Onsite', startDate: days[0], endDate: days[1] } }
      : {};
  if (property === 'startDate' && days) return { startDate: days[0], endDate: days[1] };
  const made = dataOf(view, field, value);
  return made === null ? {} : { [about === 'organisation' && property === 'logo' ? 'logo' : property]: made };
}

function daysOf({ type }: KindField, value: string): readonly [string, string] | null {
  if (type === 'period') return daysOfPeriod(value);
  return type === 'day' || type === 'moment' ? [value, value] : null;
}

/** Days that repeat as a Schedule of schema.org: the frequency as a duration of ISO 8601, days of the week as iCalendar has them. */
function scheduleOf(value: string): object | null {
  const repetition = readRepetition(value);
  if (!repetition) return null;
  const { start, times, rule, without } = repetition;
  const { FREQ, INTERVAL = '1', BYDAY, BYMONTHDAY, COUNT, UNTIL } = partsOfRule(rule);
  const unit = { DAILY: 'D', WEEKLY: 'W', MONTHLY: 'M', YEARLY: 'Y' }[FREQ!]!;
  return {
    '@type': 'Schedule',
    startDate: start,
    ...(times && { startTime: times[0], endTime: times[1] }),
    repeatFrequency: `P${INTERVAL}${unit}`,
    ...(BYDAY !== undefined && { byDay: BYDAY.split(',') }),
    ...(BYMONTHDAY !== undefined && { byMonthDay: Number(BYMONTHDAY) }),
    ...(COUNT !== undefined && { repeatCount: Number(COUNT) }),
    ...(UNTIL !== undefined && { endDate: `${UNTIL.slice(0, 4)}-${UNTIL.slice(4, 6)}-${UNTIL.slice(6)}` }),
    ...(without.length > 0 && { exceptDate: without }),
  };
}

function dataOf(view: LiveView, field: KindField, value: string): unknown {
  const { site, derived, place, locked, files } = view;
  switch (field.type) {
    case 'number':
      return Number(value);
    case 'yesNo':
      return value === 'yes';
    case 'money': {
      const [price, priceCurrency] = value.split(' ');
      return { '@type': 'Offer', price: Number(price), priceCurrency };
    }
    case 'place': {
      const [latitude, longitude] = degreesOf(value);
      return { '@type': 'GeoCoordinates', latitude, longitude };
    }
    case 'repeats':
      return scheduleOf(value);
    case 'address':
      return { '@type': 'PostalAddress', streetAddress: value.split('\n').join(', ') };
    case 'file': {
      const file = files.get(value as FileId);
      return file ? place.origin + fileHref(place, file) : null;
    }
    case 'pages': {
      const seen = pagesNamed(field, value).flatMap((page) => {
        const row = derived.outline.rowOf.get(page);
        if (row === undefined || !isNamed(view, row) || locked[row] === 1) return [];
        const node = derived.outline.nodes[row]!;
        const kind = kindAmong(ruleOf(node).labels, site.settings.labels);
        const address = derived.addresses[row] ?? null;
        return [
          {
            '@type': kind === null || kind.about === 'page' ? 'Thing' : SCHEMA_TYPES[kind.about],
            name: labelOf(site, { ...node, label: {} }),
            ...(address !== null && { url: place.origin + pathOf(place, address) }),
          },
        ];
      });
      return seen.length === 0 ? null : seen.length === 1 ? seen[0] : seen;
    }
    case 'day':
    case 'moment':
    case 'period':
    case 'telephone':
    case 'mail':
    case 'link':
      return value;
    default:
      return FIELD_TYPE[field.type].words(value, field, fieldContext(view));
  }
}
