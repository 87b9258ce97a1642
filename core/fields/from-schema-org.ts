import type { Details } from '../model/details.ts';
import type { FieldId, KindField } from '../model/kind-field.ts';
import { FIELD_TYPE } from './all-types.ts';
import type { FieldContext } from './field-type.ts';

/** Something that a page describes for machines, by JSON-LD or microdata: its types and what it says, as schema.org calls both. */
export interface DescribedThing {
  readonly types: readonly string[];
  readonly says: Readonly<Record<string, readonly DescribedValue[]>>;
}
export type DescribedValue = string | DescribedThing;

/** What describes a page itself, or how to get about: it says nothing of what the page is about. */
const NOT_ABOUT: ReadonlySet<string> = new Set([
  'BreadcrumbList',
  'ListItem',
  'WebSite',
  'WebPage',
  'SearchAction',
  'ImageObject',
  'SiteNavigationElement',
]);

/** What was read of a page that describes something: values for fields, and what no field could hold. */
export interface ReadDetails {
  readonly details: Details;
  readonly unread: readonly { readonly field: FieldId; readonly text: string }[];
}

/** The values that things say in the fields of a kind, by the property that each field stands for. */
export function detailsFrom(
  things: readonly DescribedThing[],
  fields: readonly KindField[],
  context: FieldContext,
): ReadDetails {
  const about = things.filter(({ types }) => !types.some((type) => NOT_ABOUT.has(type)));
  const matches = (thing: DescribedThing): number =>
    fields.filter(({ property }) => property !== null && Object.hasOwn(thing.says, property)).length;
  // Of several the one is meant that says most of what is asked for; the first of these.
  const thing = about.reduce<DescribedThing | null>(
    (best, one) => (matches(one) > (best === null ? 0 : matches(best)) ? one : best),
    null,
  );
  const details: Record<FieldId, string> = {};
  const unread: { field: FieldId; text: string }[] = [];
  for (const field of thing ? fields : []) {
    const texts = textsIn(field, thing!);
    if (texts.length === 0) continue;
    const several = field.isSeveral ? texts.join('; ') : texts[0]!;
    const value = FIELD_TYPE[field.type].read(several, field, context);
    if (value === undefined) unread.push({ field: field.id, text: several.slice(0, 200) });
    else details[field.id] = value;
  }
  return { details, unread };
}

/** What a thing says under a field's property, each as it would be typed into the field. */
function textsIn(field: KindField, thing: DescribedThing): string[] {
  const { property, type } = field;
  if (property === null) return [];
  const own = Object.hasOwn(thing.says, property) ? thing.says[property]! : [];
  if (type === 'period') {
    const from = property === 'startDate' ? [thing] : own.filter((one) => typeof one !== 'string');
    const periods = from.flatMap((one) => periodOf(one) ?? []);
    if (periods.length > 0) return periods;
  }
  return own.flatMap((one) => {
    const text = typeof one === 'string' ? one : wordsOf(one, type);
    return text === null || text.trim() === '' ? [] : [asTyped(text.trim(), type)];
  });
}

/** Moments of schema.org bear a time and a zone; days and moments of fields bear what the clock on the spot says. */
function asTyped(text: string, type: KindField['type']): string {
  if (!/^\d{4}-\d{2}-\d{2}/.test(text)) return /^https?:\/\/schema\.org\/True$|^true$/i.test(text) ? 'yes' : text;
  if (type === 'day') return text.slice(0, 10);
  if (type === 'moment') return text.length > 10 ? text.slice(0, 16).replace('T', ' ') : text;
  return text;
}

function periodOf({ says }: DescribedThing): string | null {
  const day = (property: string): string | null => {
    const text = says[property]?.find((one) => typeof one === 'string');
    return text === undefined || !/^\d{4}-\d{2}-\d{2}/.test(text) ? null : text.slice(0, 10);
  };
  const from = day('startDate');
  return from === null ? null : `${from}/${day('endDate') ?? from}`;
}

/** What a thing within another one comes to for a type of field; null for nothing. */
function wordsOf(thing: DescribedThing, type: KindField['type']): string | null {
  const text = (property: string): string | null => {
    const found = thing.says[property]?.[0];
    return found === undefined ? null : typeof found === 'string' ? found : wordsOf(found, 'text');
  };
  if (type === 'money') {
    const amount = text('price') ?? text('lowPrice');
    return amount === null ? null : `${amount} ${text('priceCurrency') ?? ''}`.trim();
  }
  if (type === 'place') {
    const geo = thing.says.geo?.find((one) => typeof one !== 'string');
    if (geo) return wordsOf(geo, 'place');
    const [north, east] = [text('latitude'), text('longitude')];
    return north === null || east === null ? null : `${north}, ${east}`;
  }
  if (type === 'address') {
    const inner = thing.says.address?.find((one) => typeof one !== 'string');
    if (inner) return wordsOf(inner, 'address');
    const town = [text('postalCode'), text('addressLocality')].filter(Boolean).join(' ');
    const lines = [text('streetAddress'), town, text('addressRegion'), text('addressCountry')];
    const said = lines.filter((line) => line !== null && line !== '');
    return said.length > 0 ? said.join('\n') : text('address');
  }
  if (type === 'day' || type === 'moment') return text('startDate') ?? text('@value');
  return text('name') ?? text('@value') ?? text('value') ?? text('url');
}
