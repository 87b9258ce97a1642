import { withoutTrailing } from '../model/cut-text.ts';
import { MAX_DEPTH } from '../model/site.ts';
import { MAX_TITLE_LENGTH } from '../model/page-fields.ts';

/** One title of a list; the top of the list is depth 0. `line` counts from 1. */
export interface ListEntry {
  readonly title: string;
  readonly depth: number;
  readonly line: number;
}

/** What was not taken as it stood. */
export interface ListNote {
  readonly line: number;
  readonly what: 'no-title' | 'title-cut' | 'step-skipped' | 'too-deep' | 'marks-taken-out';
  /** The beginning of the line. */
  readonly text: string;
}

export type IndentedList =
  | { readonly ok: true; readonly entries: readonly ListEntry[]; readonly notes: readonly ListNote[] }
  | { readonly ok: false; readonly why: 'too-many-lines' | 'too-large'; readonly most: number; readonly found: number };

/** At most so many pages are made of one list, and it has at most so many characters. */
export const MAX_LINES = 5000;
export const MAX_CHARACTERS = 2_000_000;
const TAB = 4;

/** `-`, `*`, `+`, `•`, `–`, `1.`, `2)` and the like, and a box to tick, in front of a title. */
const BULLET = /^(?:[-*+•‣◦▪·–—]|\d{1,4}[.)]|[a-zA-Z][.)])(?:\s+|$)(?:\[[ xX]?\]\s+)?/u;
/** `1.2` or `1.2.3.`: the number says how deep the line stands. */
const OUTLINE_NUMBER = /^(\d{1,4}(?:\.\d{1,4})+)\.?\s+/;
const HEADING = /^(#{1,6})\s/;
/** Controls, and the marks that turn the direction of what follows: they have no place in a title. */
const UNSEEN = /[\p{Cc}\u202a-\u202e\u2066-\u2069\ufeff]/gu;
const HAS_TITLE = /[\p{L}\p{N}]/u;

interface Level {
  readonly width: number;
  readonly depth: number;
}

/**
 * Reads a list that is indented by tabs or spaces, with or without bullets, numbers and Markdown headings. A line
 * that is indented more than the one before stands below it; list lines below a heading hang under it. Nothing of a
 * list that is too long is read: it comes back with what was found and what is the most.
 */
export function readIndentedList(text: string): IndentedList {
  if (text.length > MAX_CHARACTERS) return { ok: false, why: 'too-large', most: MAX_CHARACTERS, found: text.length };
  const lines = text.split(/\r\n|\r|\n|\u2028|\u2029/);
  const filled = lines.reduce((count, line) => count + (line.trim() === '' ? 0 : 1), 0);
  if (filled > MAX_LINES) return { ok: false, why: 'too-many-lines', most: MAX_LINES, found: filled };

  const entries: ListEntry[] = [];
  const notes: ListNote[] = [];
  const headings: Level[] = [];
  let levels: Level[] = [];
  lines.forEach((raw, index) => {
    const line = index + 1;
    if (raw.trim() === '') return;
    const note = (what: ListNote['what']) => notes.push({ line, what, text: beginning(raw) });
    const read = readLine(raw);
    if (!HAS_TITLE.test(read.title)) return void note('no-title');
    if (read.hadMarks) note('marks-taken-out');

    // Headings nest by their number of signs, list lines by their indentation below the latest heading.
    const stack = read.level === null ? levels : headings;
    const width = read.level ?? read.width;
    while (stack.length > 0 && stack.at(-1)!.width >= width) stack.pop();
    const base = read.level === null ? (headings.at(-1)?.depth ?? -1) : -1;
    let depth = (stack.at(-1)?.depth ?? base) + 1;
    if (read.level !== null && entries.length > 0 && stack.length > 0 && read.level > stack.at(-1)!.width + 1)
      note('step-skipped');
    if (depth >= MAX_DEPTH) {
      note('too-deep');
      depth = MAX_DEPTH - 1;
    }
    stack.push({ width, depth });
    if (read.level !== null) levels = [];
    if (read.title.length > MAX_TITLE_LENGTH) note('title-cut');
    entries.push({ title: cut(read.title), depth, line });
  });
  return { ok: true, entries, notes };
}

function readLine(raw: string): { title: string; width: number; level: number | null; hadMarks: boolean } {
  // A title is never longer than this many characters, so a line of a megabyte is not looked through.
  const start = raw.slice(0, 2000);
  const indent = /^[\t \u00a0]*/.exec(start)![0];
  let width = 0;
  for (const character of indent) width = character === '\t' ? (Math.floor(width / TAB) + 1) * TAB : width + 1;
  let rest = start.slice(indent.length).trimEnd();
  const heading = HEADING.exec(rest);
  const number = OUTLINE_NUMBER.exec(rest);
  let level: number | null = null;
  if (heading) {
    level = heading[1]!.length;
    rest = withoutClosingSigns(rest.slice(heading[0].length).trim());
  } else if (number) {
    if (width === 0) width = number[1]!.split('.').length - 1;
    rest = rest.slice(number[0].length);
  } else rest = rest.replace(BULLET, '');
  const seen = rest.replace(UNSEEN, '');
  const title = seen.normalize('NFC').replace(/\s+/g, ' ').trim();
  return { title, width, level, hadMarks: seen.length !== rest.length };
}

/** A heading may be closed by signs as it is opened: `## Boats ##`. */
function withoutClosingSigns(text: string): string {
  const bare = withoutTrailing(text, '#');
  return bare === '' || /\s$/.test(bare) ? bare.trimEnd() : text;
}

/** The title cut to what a title may have, never within a character. */
const cut = (title: string): string =>
  title.length <= MAX_TITLE_LENGTH
    ? title
    : title
        .slice(0, MAX_TITLE_LENGTH)
        .replace(/[\ud800-\udbff]$/, '')
        .trimEnd();

const beginning = (raw: string): string => {
  const shown = raw.slice(0, 200).replace(UNSEEN, '').trim();
  return shown.length > 60 ? `${shown.slice(0, 60).replace(/[\ud800-\udbff]$/, '')} …` : shown;
};

/** Titles as an indented list, one tab a level. */
export const writeIndentedList = (entries: readonly Pick<ListEntry, 'title' | 'depth'>[]): string =>
  entries.map(({ title, depth }) => `${'\t'.repeat(depth)}${title}`).join('\n');
