import { withoutTrailing } from './cut-text.ts';
import { transliterate } from '#transliterate';
import { z } from 'zod';
import { languageSchema } from './ids.ts';

/** One node's part of an address. `own`: somebody chose it; otherwise it follows the title. */
export interface Slug {
  readonly text: string;
  readonly own: boolean;
}
/** Slugs by language. */
export type Slugs = Readonly<Record<string, Slug>>;

export const NO_SLUGS: Slugs = Object.freeze({});
export const MAX_SLUG_LENGTH = 80;

/**
 * Slugs as they come in an operation. `{ own: true }` sets a chosen slug; `{ text: '', own: false }` lets it follow
 * the title again; `{ text, own: false }` follows the title and starts from that text where it is free.
 */
export const slugsSchema = z.record(
  languageSchema,
  z.object({ text: z.string().max(MAX_SLUG_LENGTH, `at most ${MAX_SLUG_LENGTH} characters`), own: z.boolean() }),
);

/** Addresses directly below a site's root that the visitors' side answers itself. */
export const RESERVED_AT_ROOT: ReadonlySet<string> = new Set([
  'search',
  'sign-in',
  'sign-out',
  'sitemap.xml',
  'robots.txt',
  'assets',
  'api',
]);

/** Names of files that stand in the folder of a page where a site is kept as files, and those that file systems keep for devices. */
const RESERVED_ANYWHERE = /^(?:index\.html|feed\.xml|calendar\.ics|(?:con|prn|aux|nul|com\d|lpt\d)(?:\..*)?)$/i;
/** Files at the top of a site that is kept as files. */
const FILES_AT_ROOT = /^(?:404\.html|sitemap-\d+\.xml|redirects\.(?:csv|nginx\.conf|htaccess))$/i;

/** Whether no page may have a slug: at any place, or right below the root. Source of the devices: Windows, "Naming files". */
export const isReservedSlug = (text: string, isAtRoot = false): boolean =>
  RESERVED_ANYWHERE.test(text) || (isAtRoot && (RESERVED_AT_ROOT.has(text) || FILES_AT_ROOT.test(text)));

/** A slug may hold letters and digits of any script, with single hyphens, dots or underscores between them. */
const SLUG_SHAPE = /^[\p{L}\p{N}][\p{L}\p{M}\p{N}]*(?:[-._][\p{L}\p{M}\p{N}]+)*$/u;
export const isSlug = (text: string): boolean => text.length <= MAX_SLUG_LENGTH && SLUG_SHAPE.test(text);

/** Whether a title has plain letters alone, so that its slug is found without transliteration, which is by far the dearest part. */
export const isPlain = (title: string): boolean => /^[\x20-\x7e]*$/.test(title);

/** A title in small plain letters, without apostrophes. */
function inLatin(title: string): string {
  if (isPlain(title)) return (title.includes("'") ? title.replaceAll("'", '') : title).toLowerCase();
  const bare = title.normalize('NFC').replace(/['’]/g, '');
  return isPlain(bare) ? bare.toLowerCase() : transliterate(bare);
}

/**
 * The slug proposed by a title: transliterated to plain letters, small, words joined by hyphens, at most 60 characters
 * cut at a word. A title without a letter or digit gives `page`.
 */
export function slugFromTitle(title: string): string {
  const latin = inLatin(title).replace(/[^a-z0-9]+/g, '-');
  const whole = withoutTrailing(latin.startsWith('-') ? latin.slice(1) : latin, '-');
  if (whole === '') return 'page';
  if (whole.length <= 60) return whole;
  const cut = whole.slice(0, 60);
  const lastWord = cut.lastIndexOf('-');
  return withoutTrailing(whole[60] === '-' || lastWord < 20 ? cut : cut.slice(0, lastWord), '-');
}

/** So many numbers are tried one after the other. */
const TRIED_IN_TURN = 10;

/**
 * `wanted`, or one of `wanted-2`, `wanted-3` … that is not taken: the first one, unless nine are taken; then one that
 * comes right after one that is taken, found in few steps however many there are.
 */
export function freeSlug(wanted: string, isTaken: (text: string) => boolean): string {
  if (!isTaken(wanted)) return wanted;
  const numbered = (n: number) => {
    const suffix = `-${n}`;
    return wanted.slice(0, MAX_SLUG_LENGTH - suffix.length) + suffix;
  };
  let n = 2;
  while (n < TRIED_IN_TURN && isTaken(numbered(n))) n++;
  if (n < TRIED_IN_TURN) return numbered(n);
  let taken = n - 1;
  while (isTaken(numbered(n))) [taken, n] = [n, n * 2];
  while (n - taken > 1) {
    const middle = (taken + n) >> 1;
    if (isTaken(numbered(middle))) taken = middle;
    else n = middle;
  }
  return numbered(n);
}

export const sameSlugs = (a: Slugs, b: Slugs): boolean => {
  if (a === b) return true;
  for (const language in a) {
    const one = a[language]!;
    const other = b[language];
    if (one !== other && (one.text !== other?.text || one.own !== other.own)) return false;
  }
  for (const language in b) if (!(language in a)) return false;
  return true;
};
