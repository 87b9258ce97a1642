import { XMLParser, XMLValidator } from 'fast-xml-parser';

/** What a sitemap file holds (sitemaps.org 0.9): addresses, or the addresses of further files. */
export type SitemapFile =
  | { readonly ok: true; readonly kind: 'addresses' | 'index'; readonly addresses: readonly string[] }
  | { readonly ok: false; readonly line: number | null; readonly detail: string };

const parser = new XMLParser({
  ignoreAttributes: true,
  processEntities: false,
  parseTagValue: false,
  removeNSPrefix: true,
  isArray: (name) => name === 'url' || name === 'sitemap',
});

/**
 * Reads a sitemap file or an index of such files. A document type is refused, since no sitemap has one and its
 * entities could grow without end; of entities only the five of XML and numbers are understood.
 */
export function readSitemapFile(xml: string): SitemapFile {
  const wrong = withoutDocumentType(xml, 'A sitemap');
  if (wrong) return { ok: false, ...wrong };
  const valid = XMLValidator.validate(xml);
  if (valid !== true)
    return { ok: false, line: valid.err.line, detail: `This is not well-formed XML: ${valid.err.msg}` };
  const tree = parser.parse(xml) as Readonly<Record<string, unknown>>;
  for (const [root, entry, kind] of [
    ['urlset', 'url', 'addresses'],
    ['sitemapindex', 'sitemap', 'index'],
  ] as const) {
    if (!(root in tree)) continue;
    const entries = (tree[root] as Readonly<Record<string, unknown>> | '')[entry as never] as unknown;
    const addresses = (Array.isArray(entries) ? entries : [])
      .map((one) => (one as { loc?: unknown }).loc)
      .filter((loc): loc is string => typeof loc === 'string' && loc.trim() !== '')
      .map((loc) => decoded(loc.trim()));
    return { ok: true, kind, addresses: [...new Set(addresses)] };
  }
  return { ok: false, line: 1, detail: 'A sitemap begins with <urlset> or <sitemapindex>; this file has neither.' };
}

/** What is wrong with XML that brings a document type, whose entities could grow without end; null where it has none. */
export const withoutDocumentType = (xml: string, what: string): { line: number; detail: string } | null =>
  /<!DOCTYPE|<!ENTITY/i.test(xml)
    ? { line: lineOf(xml, /<!DOCTYPE|<!ENTITY/i), detail: `${what} needs no document type; take that line out.` }
    : null;

const NAMED: Readonly<Record<string, string>> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" };

const decoded = (text: string): string =>
  text.replace(/&(#x[0-9a-f]{1,6}|#[0-9]{1,7}|[a-z]+);/gi, (whole, name: string) => {
    if (!name.startsWith('#')) return NAMED[name] ?? whole;
    const code = /^#x/i.test(name) ? Number.parseInt(name.slice(2), 16) : Number.parseInt(name.slice(1), 10);
    return code > 0 && code <= 0x10ffff ? String.fromCodePoint(code) : whole;
  });

const lineOf = (text: string, what: RegExp): number => text.slice(0, text.search(what)).split('\n').length;
