import { load } from 'cheerio';
import sanitizeHtml from 'sanitize-html';
import { normalAddress } from './normal-address.ts';

/** The main text of an old page, for a text of Spur to be made of it, and what it shows. */
export interface OldText {
  /** Cleaned: no program, style, form or frame; addresses are whole. */
  readonly html: string;
  /** The pictures and the links in it, each address once, in order. */
  readonly pictures: readonly string[];
  readonly links: readonly string[];
}

const MAIN = ['main', '[role=main]', 'article', '#content', '.content'];
const NO_TEXT =
  'script, style, noscript, template, nav, header, footer, form, aside, iframe, [hidden], [role=navigation], [role=search], [aria-hidden=true]';

/** @param address where it stands @param title of the page: a heading of the same words is left out, since pages have their title above the text */
export function oldText(html: string, address: string, title: string): OldText {
  const $ = load(html);
  const baseHref = $('base[href]').attr('href');
  const base = baseHref !== undefined && URL.canParse(baseHref, address) ? new URL(baseHref, address).href : address;
  const main = MAIN.map((one) => $(one).first()).find((one) => one.text().trim() !== '') ?? $('body');
  main.find(NO_TEXT).remove();
  const heading = main.find('h1').first();
  if (main.find('h1').length === 1 || tidy(heading.text()) === tidy(title)) heading.remove();
  const pictures = new Set<string>();
  const links = new Set<string>();
  main.find('img').each((_, image) => {
    const source = largestIn($(image).attr('srcset')) ?? $(image).attr('src') ?? $(image).attr('data-src') ?? '';
    const whole = normalAddress(source, base);
    if (whole === null) $(image).remove();
    else {
      $(image).attr('src', whole);
      pictures.add(whole);
    }
  });
  main.find('a[href]').each((_, link) => {
    const href = $(link).attr('href')!.trim();
    const whole = /^(?:mailto|tel):/i.test(href) ? href : href.startsWith('#') ? null : normalAddress(href, base);
    if (whole === null) $(link).removeAttr('href');
    else {
      $(link).attr('href', whole);
      if (/^https?:/.test(whole)) links.add(whole);
    }
  });
  return {
    html: sanitizeHtml(main.html() ?? '', {
      allowedTags: [
        ...['h1', 'h2', 'h3', 'h4', 'h5', 'h6', 'p', 'div', 'br', 'hr', 'ul', 'ol', 'li', 'dl', 'dt', 'dd'],
        ...['blockquote', 'pre', 'code', 'strong', 'b', 'em', 'i', 'u', 's', 'a', 'img', 'figure', 'figcaption'],
        ...['table', 'caption', 'thead', 'tbody', 'tfoot', 'tr', 'th', 'td'],
      ],
      allowedAttributes: { a: ['href'], img: ['src', 'alt'], th: ['colspan', 'rowspan'], td: ['colspan', 'rowspan'] },
      allowedSchemes: ['http', 'https', 'mailto', 'tel'],
    }).trim(),
    pictures: [...pictures],
    links: [...links],
  };
}

/** The address of the widest picture that a set offers; undefined where there is none. */
function largestIn(set = ''): string | undefined {
  const offered = set
    .split(/,\s+/)
    .map((one) => one.trim().split(/\s+/))
    .filter(([address]) => address !== undefined && address !== '');
  const width = ([, size = '']: readonly string[]) => Number.parseFloat(size) || 0;
  return offered.sort((a, b) => width(b) - width(a))[0]?.[0];
}

const tidy = (text: string): string => text.replace(/\s+/g, ' ').trim().toLowerCase();
