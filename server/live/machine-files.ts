import { type Listed, listedBelow, listingOf } from '#core/derive/listing.ts';
import { textIn } from '#core/model/texts.ts';
import { type CalendarEvent, writeCalendar } from '#core/formats/calendar-file.ts';
import { saysWhen } from '#core/fields/all-types.ts';
import { shownDetails } from './details.ts';
import { type Html, markup } from './html.ts';
import type { Release } from './live-repository.ts';
import { type LiveView, pathOf } from './live-view.ts';

/** A sitemap file holds at most so many addresses (sitemaps.org 0.9). */
export const MAX_IN_ONE_FILE = 50_000;
const NAMESPACE = 'http://www.sitemaps.org/schemas/sitemap/0.9';

/** The addresses that are offered to search engines, in tree order: those that everyone can open and that are not held back. */
function offeredPages({ derived: { outline, addresses }, offered }: LiveView): { id: string; address: string }[] {
  return outline.nodes.flatMap((node, row) => {
    const address = addresses[row]!;
    return address === null || offered[row] === 0 ? [] : [{ id: node.id, address }];
  });
}

/**
 * The sitemap files by name: `sitemap.xml` alone, or an index of that name with `sitemap-1.xml` and so on where there
 * are more addresses than one file holds.
 */
export function sitemapFiles(view: LiveView, liveAt: Release['liveAt'], most = MAX_IN_ONE_FILE): Map<string, string> {
  const { place } = view;
  const entries = offeredPages(view).map(({ id, address }) => {
    const changed = liveAt.get(id);
    return markup`<url><loc>${place.origin + pathOf(place, address)}</loc>${changed ? markup`<lastmod>${changed.toISOString()}</lastmod>` : ''}</url>`;
  });
  const file = (part: Html[]) =>
    markup`<?xml version="1.0" encoding="UTF-8"?>\n<urlset xmlns="${NAMESPACE}">\n${lines(part)}</urlset>\n`.text;
  if (entries.length <= most) return new Map([['sitemap.xml', file(entries)]]);
  const files = new Map<string, string>();
  for (let at = 0; at < entries.length; at += most)
    files.set(`sitemap-${at / most + 1}.xml`, file(entries.slice(at, at + most)));
  const index = [...files.keys()].map(
    (name) => markup`<sitemap><loc>${place.origin}${place.base}/${name}</loc></sitemap>`,
  );
  files.set(
    'sitemap.xml',
    markup`<?xml version="1.0" encoding="UTF-8"?>\n<sitemapindex xmlns="${NAMESPACE}">\n${lines(index)}</sitemapindex>\n`
      .text,
  );
  return files;
}

/** Each on a line of its own. */
const lines = (all: readonly Html[]): Html[] => all.map((one) => markup`${one}\n`);

/** The name of a collection's feed, as the last step of an address below the collection's own. */
export const FEED = 'feed.xml';
/** A feed holds so many entries, the latest. */
const MAX_IN_FEED = 50;

/** Whether a page has a feed: it lists what stands below it in the order of days, and everyone is offered it. */
export function hasFeed({ derived, offered }: LiveView, row: number): boolean {
  const { type } = derived.outline.nodes[row]!;
  const { order, look } = listingOf(derived, row);
  return type === 'page' && offered[row] === 1 && order === 'date' && look !== 'none';
}

/** The address of a collection's feed. */
export const feedAddress = (address: string): string => `${address === '/' ? '' : address}/${FEED}`;

/** The pages that a page lists below it, as rows. */
export const rowsBelow = ({ site, derived }: LiveView, row: number): number[] => {
  const flat = (listed: readonly Listed[]): number[] => listed.flatMap((one) => [one.row, ...flat(one.below)]);
  return flat(listedBelow(site, derived.outline.nodes[row]!.id, derived));
};

/**
 * The feed of a page (Atom, RFC 4287): the pages that it lists and that everyone is offered, in the order of the list.
 * @param view what everyone has @param listed the rows of the pages that it lists
 */
export function feedOf(view: LiveView, row: number, listed: readonly number[], liveAt: Release['liveAt']): string {
  const { site, place, derived, offered } = view;
  const { language } = site.settings;
  const { outline, addresses } = derived;
  const whole = (address: string) => place.origin + pathOf(place, address);
  const rows = listed.filter((one) => addresses[one] !== null && offered[one] === 1);
  const changedAt = (one: number) => liveAt.get(outline.nodes[one]!.id)?.toISOString() ?? new Date(0).toISOString();
  const entries = rows.slice(0, MAX_IN_FEED).map((one) => {
    const node = outline.nodes[one]!;
    const summary = textIn(node.description, language);
    const date = node.frame?.date;
    return markup`${[
      markup`<entry><title>${textIn(node.title, language)}</title><id>${idOf(place, node.id)}</id>`,
      markup`<link href="${whole(addresses[one]!)}"/><updated>${changedAt(one)}</updated>`,
      date ? markup`<published>${date}T00:00:00Z</published>` : '',
      summary === '' ? '' : markup`<summary>${summary}</summary>`,
      markup`</entry>`,
    ]}`;
  });
  const node = outline.nodes[row]!;
  const updated = [row, ...rows].map(changedAt).sort().at(-1)!;
  const own = addresses[row]!;
  return markup`<?xml version="1.0" encoding="UTF-8"?>
<feed xmlns="http://www.w3.org/2005/Atom" xml:lang="${language}">
<title>${textIn(node.title, language)} – ${site.settings.name}</title><id>${idOf(place, node.id)}</id>
<link href="${whole(own)}"/><link rel="self" type="application/atom+xml" href="${whole(feedAddress(own))}"/>
<author><name>${site.settings.name}</name></author><updated>${updated}</updated>
${lines(entries)}</feed>
`.text;
}

/** The name of the calendar of a page, as the last step of an address below its own. */
export const CALENDAR = 'calendar.ics';
export const calendarAddress = (address: string): string => `${address === '/' ? '' : address}/${CALENDAR}`;
/** A calendar holds so many events. */
const MAX_EVENTS = 500;

/** The calendar of a page: when it is itself, and the pages that it lists and that everyone is offered; null where none of them says when. @param view what everyone has */
export function calendarOf(view: LiveView, row: number, listed: readonly number[]): string | null {
  const { site, place, derived, offered, at } = view;
  const { outline, addresses } = derived;
  const { language } = site.settings;
  const rows = [...new Set([row, ...listed])].filter((one) => addresses[one] !== null && offered[one] === 1);
  const events = rows.flatMap((one): CalendarEvent[] => {
    const { id, title, description } = outline.nodes[one]!;
    return shownDetails(view, id)
      .filter(({ field }) => saysWhen(field.type))
      .map(({ field, value }) => ({
        id: `${id}.${field.id}@${site.key}.spur`,
        title: textIn(title, language),
        description: textIn(description, language),
        url: place.origin + pathOf(place, addresses[one]!),
        type: field.type,
        value,
      }));
  });
  return events.length === 0 ? null : writeCalendar(site.settings.name, events.slice(0, MAX_EVENTS), at);
}

/** What an entry is known by for ever: it names the page, and not where it stands. */
const idOf = (place: LiveView['place'], page: string): string => `${place.origin}${place.base}/~page/${page}`;

/** The robots file of the whole origin (RFC 9309), with each site's sitemap file. */
export const robotsFile = (origin: string, keys: readonly string[]): string =>
  ['User-agent: *', 'Allow: /', '', ...keys.map((key) => `Sitemap: ${origin}/${key}/sitemap.xml`), ''].join('\n');
