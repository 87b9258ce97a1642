import { upTo } from '../model/cut-text.ts';
import type { LineFault } from '../carryover/inventory.ts';
import { derivedOf } from '../derive/derived.ts';
import { type BroughtPage, type BroughtTree, MAX_BROUGHT } from '../imports/brought-page.ts';
import type { Site } from '../model/site.ts';
import { textIn } from '../model/texts.ts';
import { readIndentedList } from './indented-list.ts';
import { readSitemapFile } from './sitemap-file.ts';

/** The titles of the tree as an indented list of Markdown. */
export function writeIndentedTree(site: Site): string {
  const { outline } = derivedOf(site);
  return outline.nodes
    .map((node, row) => `${'  '.repeat(outline.depth[row]!)}- ${textIn(node.title, site.settings.language)}\n`)
    .join('');
}

const NOTE_WORDS = {
  'no-title': 'has no title and is left out',
  'title-cut': 'is cut to the longest title',
  'step-skipped': 'is indented by more than one step; it goes one step further in',
  'too-deep': 'is too deep; it goes on the deepest level',
  'marks-taken-out': 'had invisible characters; they were removed',
} as const;

/** Reads a tree of titles from an indented list, of Markdown or plain text. */
export function readIndentedTree(text: string): BroughtTree {
  const list = readIndentedList(text);
  if (!list.ok) {
    const what = list.why === 'too-many-lines' ? 'lines' : 'characters';
    return {
      ok: false,
      faults: [
        { line: 1, detail: `The list has ${list.found} ${what}; at most ${list.most} can be imported at once.` },
      ],
    };
  }
  const above: number[] = [];
  return {
    ok: true,
    notes: list.notes.map(({ line, what, text: begins }) => ({ line, detail: `‘${begins}’ ${NOTE_WORDS[what]}.` })),
    pages: list.entries.map(({ title, depth, line }, index): BroughtPage => {
      above.length = depth;
      const parent = depth === 0 ? null : above[depth - 1]!;
      above[depth] = index;
      return { line, id: null, parent, fields: { title } };
    }),
  };
}

/** The addresses of the draft as a sitemap file (sitemaps.org 0.9), below a base without a slash at the end. */
export function writeSitemapFile(site: Site, base: string): string {
  const { addresses, hiddenBy } = derivedOf(site);
  const urls = addresses.flatMap((address, row) =>
    address === null || hiddenBy[row] !== -1 ? [] : [`<url><loc>${escaped(base + encodeURI(address))}</loc></url>`],
  );
  return `<?xml version="1.0" encoding="UTF-8"?>\n<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">\n${urls.join('\n')}\n</urlset>\n`;
}

const escaped = (text: string): string => text.replace(/[&<>'"]/g, (sign) => `&#${sign.charCodeAt(0)};`);

/**
 * Reads a tree from a sitemap file: each step of an address is a page below the one before, called by its slug. Steps
 * that no address of its own has become headings that add a step.
 */
export function readSitemapTree(xml: string): BroughtTree {
  const file = readSitemapFile(xml);
  if (!file.ok) return { ok: false, faults: [{ line: file.line ?? 1, detail: file.detail }] };
  if (file.kind === 'index')
    return {
      ok: false,
      faults: [{ line: 1, detail: 'This is an index of sitemap files. Bring the files that it names.' }],
    };
  const notes: LineFault[] = [];
  const paths = file.addresses.map((address) => pathSteps(address));
  const prefix = commonStart(paths);
  const known = new Map<string, number>();
  const pages: BroughtPage[] = [];
  paths.forEach((steps, index) => {
    const own = steps.slice(prefix);
    let parent: number | null = null;
    own.forEach((slug, depth) => {
      const key = own.slice(0, depth + 1).join('/');
      let at = known.get(key);
      if (at === undefined) {
        at = pages.length;
        known.set(key, at);
        pages.push({ line: index + 1, id: null, parent, fields: { title: titleOf(slug), slug } });
      }
      parent = at;
    });
    if (own.length === 0 && !known.has('')) {
      known.set('', pages.length);
      pages.unshift({ line: index + 1, id: null, parent: null, fields: { title: 'Home', slug: '/' } });
      for (const [key, at] of known) if (key !== '') known.set(key, at + 1);
      known.set('', 0);
      for (let at = 1; at < pages.length; at++) {
        const page = pages[at]!;
        if (typeof page.parent === 'number') pages[at] = { ...page, parent: page.parent + 1 };
      }
    }
  });
  if (pages.length > MAX_BROUGHT)
    return {
      ok: false,
      faults: [
        { line: 1, detail: `The file makes ${pages.length} pages; at most ${MAX_BROUGHT} can be imported at once.` },
      ],
    };
  return { ok: true, pages: pages.map(withoutTitle), notes };
}

/** A title that was made of a slug renames no page that is there. */
const withoutTitle = (page: BroughtPage): BroughtPage => ({ ...page, isTitleMade: true });

function pathSteps(address: string): string[] {
  const path = upTo(address.replace(/^[a-z]+:\/\/[^/?#]*/i, ''), '?', '#');
  return path
    .split('/')
    .filter((step) => step !== '')
    .map((step) => {
      try {
        return decodeURIComponent(step).normalize('NFC');
      } catch {
        return step;
      }
    });
}

/** How many first steps all addresses share, such as the key of a site; none where the front page is among them. */
function commonStart(paths: readonly (readonly string[])[]): number {
  const shortest = paths.reduce((least, path) => Math.min(least, path.length), Infinity);
  if (!Number.isFinite(shortest) || paths.length < 2) return 0;
  let count = 0;
  while (count < shortest && paths.every((path) => path[count] === paths[0]![count])) count++;
  return count;
}

const titleOf = (slug: string): string => {
  const words = slug
    .replace(/\.[a-z]{2,5}$/i, '')
    .replace(/[-_+]+/g, ' ')
    .trim();
  return words === '' ? slug : words.charAt(0).toUpperCase() + words.slice(1);
};
