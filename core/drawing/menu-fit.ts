import { withoutTrailing } from '../model/cut-text.ts';
import type { MenuEntry } from '../derive/menu.ts';
import type { EntryId } from '../model/menu.ts';
import type { MenuSlot } from '../model/layout.ts';

/** The widths of screens that menus are measured for, in pixels. */
export const SCREENS = [
  { name: 'wide', width: 1280 },
  { name: 'middle', width: 800 },
  { name: 'narrow', width: 390 },
] as const;
export type ScreenName = (typeof SCREENS)[number]['name'];

/** The width of a text in pixels, in the font of visitors' pages at a size in pixels and a weight. */
export type MeasureText = (text: string, size: number, weight: number) => number;

/** A label that takes more than one line in its place. */
export interface WideLabel {
  readonly entry: EntryId;
  readonly text: string;
  readonly lines: number;
  /** The first words of it that take one line, or null where not even the first does. */
  readonly fitting: string | null;
}

/** How a menu stands in a slot on a screen. */
export interface MenuFit {
  readonly screen: ScreenName;
  /** How many rows the first level takes in the header; 1 wherever entries stand below each other. */
  readonly rows: number;
  /** The first entry that has no room in the first row, or null. */
  readonly firstInNextRow: string | null;
  readonly wide: readonly WideLabel[];
}

/*
 * What `server/live/assets/visitors.css` gives menus, in pixels at a root size of 16; a browser test holds the two against
 * each other. Entries are measured as they are while they are current, which is when they are widest.
 */
const SMALL = 15;
const WEIGHT = 650;
/** From here on the header's menu is a row, and the side menu stands beside the text. */
const ROW_FROM = 768;
const GAP = 24;
const OPENER = 32;
const gutter = (screen: number): number => Math.min(48, Math.max(16, screen * 0.04));
const SCROLL_BAR = 15;

/**
 * @param textSize of what is as large as the text: it is the look's, while smaller labels are the same in all looks
 * @param lockWords what stands behind the label of an entry with a lock, or '' for one without
 */
export function menuFit(
  slot: MenuSlot,
  entries: readonly MenuEntry[],
  measure: MeasureText,
  textSize: number,
  lockWords: (entry: MenuEntry) => string = () => '',
): MenuFit[] {
  return SCREENS.map(({ name, width }) => {
    const room = width - SCROLL_BAR - 2 * gutter(width - SCROLL_BAR);
    const isRow = slot === 'header' && width >= ROW_FROM;
    const rows = isRow ? rowsOf(entries, room, measure, textSize, lockWords) : { count: 1, firstInNextRow: null };
    const wide: WideLabel[] = [];
    const read = (list: readonly MenuEntry[], level: number) => {
      for (const entry of list) {
        const { size, room: own } = placeOf(slot, level, width, room, entries.length, textSize);
        if (own !== null) {
          const suffix = lockWords(entry);
          const lines = linesOf(entry.text, own, size, measure, suffix);
          if (lines > 1)
            wide.push({
              entry: entry.id,
              text: entry.text,
              lines,
              fitting: fittingWords(entry.text, own, size, measure),
            });
        }
        read(entry.entries, level + 1);
      }
    };
    read(entries, 0);
    return { screen: name, rows: rows.count, firstInNextRow: rows.firstInNextRow, wide };
  });
}

/** The size of a label and the room that it has; null where its place grows with it. */
function placeOf(
  slot: MenuSlot,
  level: number,
  screen: number,
  room: number,
  columns: number,
  textSize: number,
): { readonly size: number; readonly room: number | null } {
  switch (slot) {
    case 'utility':
      return { size: SMALL, room: null };
    case 'header':
      if (screen >= ROW_FROM) return { size: textSize, room: level === 0 ? room : null };
      return { size: textSize, room: level === 0 ? room - 48 : room - 17.6 * level };
    case 'side': {
      const column = screen >= ROW_FROM ? sideColumn(screen) : room;
      return { size: level === 0 ? textSize : SMALL, room: column - 16 * level };
    }
    case 'footer': {
      const fitting = Math.max(1, Math.min(columns, Math.floor((room + 32) / (176 + 32))));
      return { size: SMALL, room: (room - 32 * (fitting - 1)) / fitting };
    }
  }
}

/** The column beside the text: as wide as is left of the text's, within 13 and 17 times the root size, without the gutter. */
const sideColumn = (screen: number): number => 272 - gutter(screen - SCROLL_BAR);

/** How many rows the entries of a header take, one beside the other. */
function rowsOf(
  entries: readonly MenuEntry[],
  room: number,
  measure: MeasureText,
  textSize: number,
  lockWords: (entry: MenuEntry) => string,
): { readonly count: number; readonly firstInNextRow: string | null } {
  let count = 1;
  let taken = 0;
  let firstInNextRow: string | null = null;
  for (const entry of entries) {
    const lock = lockWords(entry);
    const own =
      measure(entry.text, textSize, WEIGHT) +
      (lock === '' ? 0 : measure(lock, textSize * 0.8, 400)) +
      (entry.entries.length > 0 ? OPENER : 0);
    if (taken > 0 && taken + GAP + own > room) {
      count++;
      firstInNextRow ??= entry.text;
      taken = own;
    } else taken += (taken > 0 ? GAP : 0) + own;
  }
  return { count, firstInNextRow };
}

/** How many lines a text takes, broken between words. */
function linesOf(text: string, room: number, size: number, measure: MeasureText, suffix = ''): number {
  let lines = 1;
  let line = '';
  for (const word of [...text.split(/\s+/), ...suffix.split(/\s+/).filter(Boolean)]) {
    const next = line === '' ? word : `${line} ${word}`;
    if (line !== '' && measure(next, size, WEIGHT) > room) {
      lines++;
      line = word;
    } else line = next;
  }
  return lines;
}

/** Words that no label ends with. */
const DANGLING = /^(and|or|of|the|a|an|for|to|in|on|at|by|with|&|–|-)$/i;

/** As many first words as take one line, without one that would dangle at the end. */
function fittingWords(text: string, room: number, size: number, measure: MeasureText): string | null {
  const words = text.split(/\s+/);
  for (let count = words.length - 1; count > 0; count--) {
    const last = words[count - 1]!;
    if (DANGLING.test(last)) continue;
    const fitting = withoutTrailing(words.slice(0, count).join(' '), ':,;–-').trim();
    if (fitting !== '' && measure(fitting, size, WEIGHT) <= room) return fitting;
  }
  return null;
}
