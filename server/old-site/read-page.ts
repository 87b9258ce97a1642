import { load } from 'cheerio';
import { KEPT_TEXT, type OldPage } from '#core/carryover/inventory.ts';
import { normalAddress } from './normal-address.ts';

export interface ReadHtml {
  readonly page: Pick<OldPage, 'title' | 'description' | 'headings' | 'words' | 'text'>;
  /** The addresses on the same host that it links to, each once. */
  readonly links: readonly string[];
  /** The pictures on the same host that it shows. */
  readonly pictures: readonly string[];
}

const MAX_HEADINGS = 60;

/** What an inventory keeps of an HTML page, and the links that lead on. What menus and footers say does not count as text. */
export function readHtml(html: string, address: string): ReadHtml {
  const $ = load(html);
  const baseHref = $('base[href]').attr('href');
  const base = baseHref !== undefined && URL.canParse(baseHref, address) ? new URL(baseHref, address).href : address;
  const { host } = new URL(address);
  const links = new Set<string>();
  $('a[href], area[href], frame[src], iframe[src]').each((_, element) => {
    const href = $(element).attr('href') ?? $(element).attr('src') ?? '';
    const isOff = /\bnofollow\b/i.test($(element).attr('rel') ?? '');
    const link = isOff ? null : normalAddress(href, base);
    if (link !== null && link !== address && new URL(link).host === host) links.add(link);
  });
  const pictures = new Set<string>();
  $('img[src]').each((_, element) => {
    const source = normalAddress($(element).attr('src')!, base);
    if (source !== null && new URL(source).host === host) pictures.add(source);
  });
  const title = tidy($('title').first().text());
  const description = tidy($('meta[name="description" i]').attr('content') ?? '');
  const headings = $('h1, h2, h3')
    .map((_, element) => tidy($(element).text()))
    .get()
    .filter((heading) => heading !== '')
    .slice(0, MAX_HEADINGS);
  $('script, style, noscript, template, nav, header, footer, form').remove();
  // Words of neighbouring blocks do not run into each other.
  $('p, li, td, th, h1, h2, h3, h4, div, br, tr').append(' ');
  const text = tidy($('main').text() || $('body').text());
  return {
    page: {
      title: title.slice(0, 500),
      description: description.slice(0, 2000),
      headings: headings.map((heading) => heading.slice(0, 300)),
      words: text === '' ? 0 : text.split(' ').length,
      text: text.slice(0, KEPT_TEXT),
    },
    links: [...links],
    pictures: [...pictures],
  };
}

const tidy = (text: string): string => text.replace(/\s+/g, ' ').trim();
