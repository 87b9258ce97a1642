import { FILM } from './film.ts';
import { FORM } from './form.ts';
import { FRAME } from './frame.ts';
import { OWN_HTML, leftOutOf } from './own-html.ts';
import { SHARED } from './shared.ts';
import { shownBy } from './shown-files.ts';
import { plannedBoxesOf } from '../sketch/planned-boxes.ts';
import { DETAIL, FACT, type TextDocument, type TextPart } from '../model/content.ts';

/** What is found in a text that makes it harder to read or to find one's way in. */
export const TEXT_FAULTS = [
  'empty heading',
  'skipped heading',
  'link words',
  'table header',
  'button',
  'alternative',
  'subtitles',
  'no file',
  'large file',
  'no shared',
  'no form',
  'frame',
  'left out',
  'unwritten',
] as const;
export type TextFault = (typeof TEXT_FAULTS)[number];

/** Words of links that say nothing of where they lead, in the languages that sites have words for. */
const MEANINGLESS: ReadonlySet<string> = new Set([
  'click here',
  'here',
  'link',
  'this link',
  'this page',
  'more',
  'read more',
  'read on',
  'learn more',
  'hier',
  'hier klicken',
  'klicken sie hier',
  'mehr',
  'mehr lesen',
  'weiterlesen',
  'weiter',
  'dieser link',
]);

/** What is found in a text, each once. Links of which readers by ear hear the words alone: WCAG 2.2, 2.4.4; headings and tables: 1.3.1. */
export function textFaultsOf(document: TextDocument): TextFault[] {
  const found = new Set<TextFault>();
  let level = 1;
  const walk = (part: TextDocument | TextPart): void => {
    const { type } = part;
    const attrs = 'attrs' in part ? part.attrs : undefined;
    if (type === 'heading') {
      const own = Number(attrs?.level ?? 2);
      if (saysNothing(part)) found.add('empty heading');
      if (own > level + 1) found.add('skipped heading');
      level = own;
    }
    if (
      type === 'table' &&
      !(part.content ?? []).some((row) => row.content?.some((cell) => cell.type === 'tableHeader'))
    )
      found.add('table header');
    if (type === 'button' && (attrs?.to ?? '') === '') found.add('button');
    if (type === 'button' ? isMeaningless(wordsOf(part)) : linksIn(part).some(isMeaningless)) found.add('link words');
    // What is found of the files themselves changes with the library: `file-faults.ts`.
    if (shownBy(part)?.length === 0) found.add('no file');
    // Whether the site has the section, or the form, changes with the site: the server looks for those that are gone.
    if (type === SHARED.type && (attrs?.of ?? null) === null) found.add('no shared');
    if (type === FORM.type && (attrs?.of ?? null) === null) found.add('no form');
    if (type === FRAME.type && (attrs?.address === '' || String(attrs?.title ?? '').trim() === '')) found.add('frame');
    if (type === OWN_HTML.type && leftOutOf(String(attrs?.code ?? '')).length > 0) found.add('left out');
    if (type === FILM.type && (attrs?.subtitles ?? null) === null) found.add('subtitles');
    part.content?.forEach(walk);
  };
  walk(document);
  if (plannedBoxesOf(document).some(({ isWritten }) => !isWritten)) found.add('unwritten');
  return TEXT_FAULTS.filter((fault) => found.has(fault));
}

const wordsOf = (part: TextDocument | TextPart): string =>
  'text' in part && part.text !== undefined ? part.text : (part.content ?? []).map(wordsOf).join('');

/** A fact and a value say something, whatever that is now. */
const saysNothing = (part: TextDocument | TextPart): boolean =>
  wordsOf(part).trim() === '' && !(part.content ?? []).some(({ type }) => type === FACT || type === DETAIL);

/** The words of the links right in a block: what leads to one address without a break is one link. */
function linksIn(block: TextDocument | TextPart): string[] {
  const links: string[] = [];
  let last: unknown = null;
  for (const { text = '', marks } of block.content ?? []) {
    const href = marks?.find(({ type }) => type === 'link')?.attrs?.href ?? null;
    if (href !== null && href === last) links[links.length - 1] += text;
    else if (href !== null) links.push(text);
    last = href;
  }
  return links;
}

const isMeaningless = (words: string): boolean =>
  MEANINGLESS.has(
    words
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, ' ')
      .trim(),
  );
