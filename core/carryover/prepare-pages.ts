import { pathOfOldAddress } from './old-address.ts';
import type { MatchPage } from './match-page.ts';
import { lettersOf, trigramsOf, wordsOf } from './words.ts';

/** A page taken apart into what can be compared. */
export interface PreparedPage {
  readonly key: string;
  /** The title without what most pages have in theirs. */
  readonly ownTitle: string;
  /** The path of its address, without a query. */
  readonly address: string;
  /** The words of the title, each once, sorted, as all lists of words here. */
  readonly title: readonly string[];
  readonly wholeTitle: string;
  /** The title without what marks a further version of a page, such as ‘2’, ‘old’, ‘print version’; and whether it, or the address, had that. */
  readonly bareTitle: string;
  readonly isVersion: boolean;
  readonly trigrams: ReadonlySet<string>;
  /** The letters of the title without what stands between words. */
  readonly letters: string;
  /** What it stands beside: the address without its last part. */
  readonly group: string;
  /** Whether it is the page that its site opens with. */
  readonly isHome: boolean;
  /** The group that it is the front of: pages that stand below it, or beside it under its name; null where there is none. */
  readonly front: string | null;
  readonly headings: readonly (readonly string[])[];
  /** The last part of the address, and the parts before it. */
  readonly lastStep: readonly string[];
  readonly section: readonly string[];
  /** How often each word stands in the text, with the title and the headings. */
  readonly text: ReadonlyMap<string, number>;
  readonly hasText: boolean;
}

/** Titles part what they say from the site's name by one of these. */
const PARTS = / (?:[-–—·•»:]|::) | ?(?:::|\|) ?/;
export const titleParts = (title: string): string[] => title.replace(/\s+/g, ' ').split(PARTS);
/** A part of titles that so many pages have is the site's name and not a title. */
const SHARED = 0.2;
const MIN_SHARED = 4;
/** How old sites call their front page. */
const HOME = /^\/(?:(?:index|default|home|start|welcome)(?:\.[a-z]{2,5})?)?$/i;
const MAX_TEXT_WORDS = 400;
/** Words that mark a further version of a page, as stems. */
const VERSIONS = new Set(wordsOf('old copy print printable version part two continued archive archived draft backup'));

/**
 * Takes pages apart. What most titles share, such as the name of the site, is left out of them. `before` gives what was
 * made of a page that has not changed since: where it would be made the same again, it is that object.
 */
export function preparePages(
  pages: readonly MatchPage[],
  before: (page: MatchPage) => PreparedPage | undefined = () => undefined,
): PreparedPage[] {
  const counts = new Map<string, number>();
  for (const { title } of pages)
    for (const part of new Set(titleParts(title))) counts.set(part, (counts.get(part) ?? 0) + 1);
  const most = Math.max(MIN_SHARED, pages.length * SHARED);
  const prepared = pages.map((page) => {
    const parts = titleParts(page.title).filter((part) => part.trim() !== '');
    const own = parts.filter((part) => counts.get(part)! < most);
    const title = (own.length > 0 ? own : parts).join(' ');
    const made = before(page);
    return made?.ownTitle === title ? made : preparePage(page, title);
  });
  const groups = new Set(prepared.map(({ group }) => group));
  return prepared.map((page): PreparedPage => {
    const front = frontOf(page, groups);
    return page.front === front ? page : { ...page, front };
  });
}

/** The group that a page is the front of: the folder of its own name, or the one that it stands in and that has its title. */
function frontOf(
  { address, group, title }: Pick<PreparedPage, 'address' | 'group' | 'title'>,
  groups: ReadonlySet<string>,
): string | null {
  const folder = `${address.replace(/\.[a-z]{2,5}$/i, '').replace(/\/(index|default)?$/i, '')}/`;
  if (groups.has(folder)) return folder;
  const name = listOf(
    wordsOf(
      group
        .split('/')
        .filter(Boolean)
        .at(-1)
        ?.replace(/\.[a-z]{2,5}$/i, '') ?? '',
    ),
  );
  return name.length > 0 && name.join() === title.join() ? group : null;
}

function preparePage(page: MatchPage, title: string): PreparedPage {
  const [path = '', query = ''] = pathOfOldAddress(page.address).split('?');
  const steps = path.split('/').filter((step) => step !== '');
  const last = (steps.pop() ?? '').replace(/\.[a-z]{2,5}$/i, '');
  const stepWords = withoutNumbers(wordsOf(`${last} ${query.replace(/[=&]/g, ' ')}`));
  const lastWords = listOf(stepWords);
  const section = [...steps, ...page.above].flatMap(wordsOf);
  const headings = page.headings.map((heading) => listOf(wordsOf(heading))).filter((words) => words.length > 0);
  const titleWords = wordsOf(title);
  const bare = withoutVersion(titleWords);
  const text = new Map<string, number>();
  const words = wordsOf(page.text).slice(0, MAX_TEXT_WORDS);
  for (const word of [...words, ...titleWords, ...headings.flat()]) text.set(word, (text.get(word) ?? 0) + 1);
  return {
    key: page.key,
    address: path,
    ownTitle: title,
    title: titleWords.length > 0 ? listOf(titleWords) : lastWords,
    wholeTitle: titleWords.join(' '),
    bareTitle: bare.join(' '),
    isVersion: bare.length < titleWords.length || withoutVersion(stepWords).length < stepWords.length,
    trigrams: new Set(trigramsOf(title === '' ? last : title)),
    letters: lettersOf(title),
    isHome: query === '' && HOME.test(path),
    front: null,
    group: query === '' ? path.slice(0, path.lastIndexOf('/') + 1) : path,
    headings,
    lastStep: lastWords,
    section: listOf(withoutNumbers(section)),
    text,
    hasText: words.length > 5,
  };
}

/** The words without those at their end that mark a further version. ‘Large print’ is none: that word marks one before another. */
function withoutVersion(words: readonly string[]): readonly string[] {
  let end = words.length;
  while (end > 1 && isVersionMark(words[end - 1]!) && (words[end - 1] !== PRINT || end < words.length)) end -= 1;
  return words.slice(0, end);
}
const [PRINT] = wordsOf('print');
const isVersionMark = (word: string): boolean => VERSIONS.has(word) || /^\d{1,4}$/.test(word);

const listOf = (words: readonly string[]): string[] => [...new Set(words)].sort();
const withoutNumbers = (words: readonly string[]): string[] => words.filter((word) => !/^\d+$/.test(word));
