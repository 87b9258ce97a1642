import { z } from 'zod';
import type { SectionType } from './section-type.ts';

const MAX_CODE_LENGTH = 20_000;

/** In the HTML of a text: what somebody wrote as HTML of their own, until it is cleaned. */
export const OWN_HTML_DATA = 'data-own';

/** The elements that stay of it: what says something, and nothing that runs, loads, asks or looks otherwise than the page. */
export const OWN_HTML_TAGS = [
  ...[
    'p',
    'br',
    'hr',
    'div',
    'span',
    'a',
    'ul',
    'ol',
    'li',
    'dl',
    'dt',
    'dd',
    'blockquote',
    'pre',
    'code',
    'kbd',
    'samp',
    'var',
  ],
  ...[
    'strong',
    'b',
    'em',
    'i',
    'u',
    's',
    'small',
    'sub',
    'sup',
    'mark',
    'abbr',
    'cite',
    'dfn',
    'q',
    'time',
    'address',
    'bdi',
  ],
  ...['ins', 'del', 'wbr', 'h5', 'h6', 'details', 'summary', 'figure', 'figcaption'],
  ...['table', 'caption', 'colgroup', 'col', 'thead', 'tbody', 'tfoot', 'tr', 'th', 'td'],
] as const;

/** HTML of one's own, for what no other section says. */
export const OWN_HTML: SectionType = {
  type: 'ownHtml',
  group: 'section',
  content: '',
  attributes: { code: { schema: z.string().max(MAX_CODE_LENGTH), initial: '' } },
  html: ({ code }) => ['div', { [OWN_HTML_DATA]: String(code) }],
  listed: {
    name: 'HTML',
    says: 'Written as HTML; programs, styles and forms are left out',
    also: ['source', 'markup', 'own'],
    make: () => ({ type: 'ownHtml', attrs: { code: '' } }),
  },
};

const KEPT: ReadonlySet<string> = new Set(OWN_HTML_TAGS);

/** The names of the elements in HTML of one's own that visitors do not get, each once. */
export function leftOutOf(code: string): string[] {
  const names = [...code.matchAll(/<([a-z][a-z0-9-]{0,40})/gi)].map(([, name]) => name!.toLowerCase());
  return [...new Set(names)].filter((name) => !KEPT.has(name));
}
