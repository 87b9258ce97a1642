import { escaped } from './html.ts';
import type { Release } from './live-repository.ts';
import { type LiveView, pathOf } from './live-view.ts';

/** A sitemap file holds at most so many addresses (sitemaps.org 0.9). */
export const MOST_IN_ONE_FILE = 50_000;
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
export function sitemapFiles(view: LiveView, liveAt: Release['liveAt'], most = MOST_IN_ONE_FILE): Map<string, string> {
  const { place } = view;
  const entries = offeredPages(view).map(({ id, address }) => {
    const changed = liveAt.get(id);
    return `<url><loc>${escaped(place.origin + pathOf(place, address))}</loc>${changed ? `<lastmod>${changed.toISOString()}</lastmod>` : ''}</url>`;
  });
  const file = (part: string[]) =>
    `<?xml version="1.0" encoding="UTF-8"?>\n<urlset xmlns="${NAMESPACE}">\n${part.join('\n')}\n</urlset>\n`;
  if (entries.length <= most) return new Map([['sitemap.xml', file(entries)]]);
  const files = new Map<string, string>();
  for (let at = 0; at < entries.length; at += most)
    files.set(`sitemap-${at / most + 1}.xml`, file(entries.slice(at, at + most)));
  const index = [...files.keys()].map(
    (name) => `<sitemap><loc>${escaped(`${place.origin}${place.base}/${name}`)}</loc></sitemap>`,
  );
  files.set(
    'sitemap.xml',
    `<?xml version="1.0" encoding="UTF-8"?>\n<sitemapindex xmlns="${NAMESPACE}">\n${index.join('\n')}\n</sitemapindex>\n`,
  );
  return files;
}

/** The robots file of the whole origin (RFC 9309), with each site's sitemap file. */
export const robotsFile = (origin: string, keys: readonly string[]): string =>
  ['User-agent: *', 'Allow: /', '', ...keys.map((key) => `Sitemap: ${origin}/${key}/sitemap.xml`), ''].join('\n');
