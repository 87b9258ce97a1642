import { type CheerioAPI, load } from 'cheerio';
import type { DescribedThing, DescribedValue } from '#core/fields/from-schema-org.ts';

/** So much is taken of one page: who describes more describes no page. */
const MAX_THINGS = 30;
const MAX_PROPERTIES = 80;
const MAX_VALUES = 30;
const MAX_TEXT_LENGTH = 4000;
const MAX_DEPTH = 6;
const MAX_JSON_LENGTH = 500_000;

/** What a page describes for machines, by JSON-LD (W3C) and microdata (WHATWG HTML), in the words of schema.org. */
export function describedThings(html: string): DescribedThing[] {
  const $ = load(html);
  const things: DescribedThing[] = [];
  $('script[type="application/ld+json"]').each((_, script) => {
    const text = $(script).text();
    if (text.length <= MAX_JSON_LENGTH) things.push(...thingsInJson(text));
  });
  $('[itemscope]:not([itemprop])').each((_, element) => {
    const thing = thingAt($, element, 0);
    if (thing) things.push(thing);
  });
  return things.slice(0, MAX_THINGS);
}

function thingsInJson(text: string): DescribedThing[] {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return [];
  }
  return (Array.isArray(json) ? json : [json]).slice(0, MAX_THINGS).flatMap((one: unknown) => {
    const graph = (one as { '@graph'?: unknown } | null)?.['@graph'];
    return (Array.isArray(graph) ? graph : [one]).slice(0, MAX_THINGS).flatMap((node) => thingOf(node, 0) ?? []);
  });
}

function thingOf(node: unknown, depth: number): DescribedThing | null {
  if (typeof node !== 'object' || node === null || Array.isArray(node) || depth > MAX_DEPTH) return null;
  const says = new Map<string, DescribedValue[]>();
  let types: string[] = [];
  for (const [name, value] of Object.entries(node).slice(0, MAX_PROPERTIES)) {
    const all = (Array.isArray(value) ? value : [value]).slice(0, MAX_VALUES) as unknown[];
    if (name === '@type') types = all.filter((one) => typeof one === 'string').map(nameIn);
    else if (!name.startsWith('@') || name === '@value')
      says.set(
        nameIn(name),
        all.flatMap((one) => valueOf(one, depth + 1) ?? []),
      );
  }
  return { types, says: Object.fromEntries(says) };
}

function valueOf(value: unknown, depth: number): DescribedValue | null {
  if (typeof value === 'string') return value.slice(0, MAX_TEXT_LENGTH);
  if (typeof value === 'number' || typeof value === 'boolean') return String(value);
  return thingOf(value, depth);
}

type Element = Parameters<CheerioAPI>[0];

function thingAt($: CheerioAPI, element: Element, depth: number): DescribedThing | null {
  if (depth > MAX_DEPTH) return null;
  const types = ($(element as never).attr('itemtype') ?? '').split(/\s+/).filter(Boolean).map(nameIn);
  const says = new Map<string, DescribedValue[]>();
  $(element as never)
    .find('[itemprop]')
    .slice(0, MAX_PROPERTIES)
    .each((_, one) => {
      // What stands within another thing is that one's.
      if ($(one).parent().closest('[itemscope]').get(0) !== element) return;
      const value = $(one).is('[itemscope]') ? thingAt($, one as never, depth + 1) : textAt($, one as never);
      if (value === null) return;
      for (const name of $(one).attr('itemprop')!.split(/\s+/).filter(Boolean))
        says.set(nameIn(name), [...(says.get(nameIn(name)) ?? []), value].slice(0, MAX_VALUES));
    });
  return { types, says: Object.fromEntries(says) };
}

/** The value of a property, by the element that has it (HTML, 5.2.4). */
function textAt($: CheerioAPI, element: Element): string {
  const one = $(element as never);
  const said = one.attr('content') ?? one.attr('datetime') ?? one.attr('href') ?? one.attr('src') ?? one.attr('value');
  return (said ?? one.text().replace(/\s+/g, ' ').trim()).slice(0, MAX_TEXT_LENGTH);
}

/** The name of a type or a property without the vocabulary that it is of. */
const nameIn = (name: string): string =>
  name.slice(Math.max(...['/', '#', ':'].map((sign) => name.lastIndexOf(sign))) + 1).slice(0, 60);
