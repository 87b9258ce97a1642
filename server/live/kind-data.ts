import { FIELD_TYPE } from '#core/fields/all-types.ts';
import { degreesOf } from '#core/fields/choice-types.ts';
import { daysOfPeriod } from '#core/fields/date-types.ts';
import { partsOfRule, readRepetition } from '#core/fields/repeats.ts';
import { pagesNamed } from '#core/derive/named-by.ts';
import type { FileId } from '#core/files/file.ts';
import { ruleOf } from '#core/model/access.ts';
import type { PageId } from '#core/model/ids.ts';
import type { KindField } from '#core/model/kind-field.ts';
import { type About, kindAmong } from '#core/model/page-label.ts';
import { nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { fieldContext, shownDetails } from './details.ts';
import { fileHref } from './live-files.ts';
import { type LiveView, isNamed, pathOf } from './live-view.ts';

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
    ...shownDetails(view, page).map(({ field, value }) => propertyOf(view, field, value)),
  ) as Record<string, unknown>;
  return {
    '@context': 'https://schema.org',
    '@type': SCHEMA_TYPES[kind.about],
    [kind.about === 'article' ? 'headline' : 'name']: textIn(node.title, site.settings.language),
    ...(description !== '' && { description }),
    url,
    ...said,
  };
}

/** A value as schema.org wants it, under the property that its field stands for; nothing for fields of which machines are told nothing. */
function propertyOf(view: LiveView, field: KindField, value: string): Record<string, unknown> {
  const { property } = field;
  if (property === null) return {};
  const days = daysOf(field, value);
  // A course has its dates by one time that it is held; an event has both of its days.
  if (property === 'hasCourseInstance') {
    const when = days ? { startDate: days[0], endDate: days[1] } : { courseSchedule: scheduleOf(value) };
    return { hasCourseInstance: { '@type': 'CourseInstance', courseMode: 'Onsite', ...when } };
  }
  if (property === 'startDate' && days) return { startDate: days[0], endDate: days[1] };
  const made = dataOf(view, field, value);
  return made === null ? {} : { [property]: made };
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
            name: textIn(node.title, site.settings.language),
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
