import type { Derived } from '../derive/derived.ts';
import { numbersOf } from '../derive/numbering.ts';
import type { PageId } from '../model/ids.ts';
import type { Site } from '../model/site.ts';
import type { Origin } from '../model/plan.ts';
import { textIn } from '../model/texts.ts';
import { SIGN_WIDTH } from './origin-signs.ts';
import type { MapShape } from './map-layout.ts';

/** What a map draws for one node. */
export interface MapNode {
  /** The row of the tree; -1 for the site itself and for a page that is being typed. */
  readonly row: number;
  readonly page: PageId | null;
  readonly kind: 'site' | 'page' | 'new';
  /** The place of the node above in the list; -1 for the site. */
  readonly parent: number;
  /** The number in reading order; empty for the site. */
  readonly number: string;
  /** The title, in one or two lines. */
  readonly lines: readonly string[];
  /** What has become of it since the moment that is looked at. */
  readonly mark: string | null;
  /** What the lens says of it, with a sign or without. */
  readonly note: MapNote | null;
  /** In pixels at full size. */
  readonly width: number;
  readonly height: number;
  /** Where the title begins, from the left edge. */
  readonly textLeft: number;
}

/** A line below the title: words, after the sign of an origin. */
export interface MapNote {
  readonly origin: Origin | null;
  readonly words: string;
}

/** Gives the width of a text in pixels, in the type of titles or of numbers. */
export type Measure = (text: string, type: 'title' | 'number') => number;

export interface MapAsked {
  readonly site: Site;
  readonly derived: Derived;
  /** The rows that show, in tree order; the rows above each are among them. */
  readonly rows: readonly number[];
  readonly marks: ReadonlyMap<PageId, string> | null;
  /** What the lens says of a row; null where it says nothing. */
  readonly noteOf?: (row: number) => MapNote | null;
  /** The place of a page that is being typed. */
  readonly adding: { readonly parent: PageId | null; readonly after: PageId | null } | null;
  readonly measure: Measure;
}

export const TITLE_LINE = 17;
const PADDING = 10;
const LINES_PADDING = 13;
const NUMBER_GAP = 7;
const SIGN = 19;
const MARK_LINE = 15;
const NOTE_LINE = 17;
const NOTE_SIGN_GAP = 6;
/** A title of more than this is broken in two lines. */
const WIDEST_LINE = 196;
/** The width of the field in which a new page is typed. */
export const NEW_WIDTH = 220;

/** What was asked for before, with what was made for it. */
export interface MapMade {
  readonly asked: MapAsked;
  readonly nodes: readonly MapNode[];
}

/** The nodes of a map, the site itself first, with their sizes. @param before whose nodes are taken where nothing about them differs */
export function mapNodes(asked: MapAsked, before: MapMade | null = null): MapNode[] {
  const { site, derived, rows, marks, noteOf, adding, measure } = asked;
  const { outline } = derived;
  const again = before && nodesAgain(asked, before);
  const { language } = site.settings;
  const numbers = numbersOf(outline);
  const nodes: MapNode[] = [siteNode(site, measure)];
  /** The place of each row in the list, 0 where it has none. */
  const indexOf = new Int32Array(outline.nodes.length);
  const addAt = adding ? newPlace(derived, rows, adding) : -1;
  rows.forEach((row, at) => {
    if (at === addAt) nodes.push(newNode(indexOf[parentRow(derived, adding!.parent)] ?? 0));
    const node = outline.nodes[row]!;
    const note = noteOf?.(row) ?? null;
    const same = again?.(at, note);
    if (same) {
      indexOf[row] = nodes.length;
      nodes.push(same);
      return;
    }
    const lines = brokenTitle(textIn(node.title, language), measure);
    const mark = marks?.get(node.id) ?? null;
    const signs = (node.type === 'link' ? SIGN : 0) + (derived.home === node.id ? SIGN : 0);
    const textLeft = PADDING + measure(numbers[row]!, 'number') + NUMBER_GAP;
    const widest = Math.max(
      ...lines.map((line) => measure(line, 'title')),
      mark ? measure(mark, 'number') : 0,
      noteWidth(note, measure),
    );
    indexOf[row] = nodes.length;
    nodes.push({
      row,
      page: node.id,
      kind: 'page',
      parent: indexOf[outline.parent[row]!] ?? 0,
      number: numbers[row]!,
      lines,
      mark,
      note,
      width: Math.ceil(textLeft + widest + signs + PADDING),
      height: LINES_PADDING + lines.length * TITLE_LINE + (mark ? MARK_LINE : 0) + (note ? NOTE_LINE : 0),
      textLeft,
    });
  });
  if (addAt === rows.length) nodes.push(newNode(indexOf[parentRow(derived, adding!.parent)] ?? 0));
  return nodes;
}

/** Gives the node that was made before for the row at a place of the list, where it would be made as it was; null where that holds for none. */
function nodesAgain(
  { site, derived, rows, marks, adding, measure }: MapAsked,
  { asked: was, nodes }: MapMade,
): ((at: number, note: MapNote | null) => MapNode | null) | null {
  const before = was.derived.outline;
  const { outline } = derived;
  const isAlike =
    adding === null &&
    was.adding === null &&
    before.parent === outline.parent &&
    was.derived.home === derived.home &&
    was.site.settings.language === site.settings.language &&
    was.marks === marks &&
    was.measure === measure;
  if (!isAlike) return null;
  let isSoFar = true;
  return (at, note) => {
    const row = rows[at]!;
    // From where other rows show on, those above stand at other places of the list.
    isSoFar &&= was.rows[at] === row;
    // The site itself is the first of the nodes.
    const node = nodes[at + 1];
    return isSoFar && node !== undefined && before.nodes[row] === outline.nodes[row] && isSameNote(node.note, note)
      ? node
      : null;
  };
}

const isSameNote = (a: MapNote | null, b: MapNote | null): boolean =>
  a === b || (a !== null && b !== null && a.origin === b.origin && a.words === b.words);

/** Where the words of a note begin, from where the title does. */
export const noteWordsLeft = (note: MapNote): number => (note.origin === null ? 0 : SIGN_WIDTH + NOTE_SIGN_GAP);

/** The line of a note, from the top edge of its node. */
export const noteTop = (node: MapNode): number => 20 + node.lines.length * TITLE_LINE + (node.mark ? MARK_LINE : 0);

const noteWidth = (note: MapNote | null, measure: Measure): number =>
  note === null ? 0 : noteWordsLeft(note) + measure(note.words, 'number');

/** The parts of the nodes that their layout depends on. */
export function shapeOf(nodes: readonly MapNode[]): MapShape {
  const count = nodes.length;
  const shape = { parent: new Int32Array(count), width: new Float64Array(count), height: new Float64Array(count) };
  for (let at = 0; at < count; at++) {
    const { parent, width, height } = nodes[at]!;
    shape.parent[at] = parent;
    shape.width[at] = width;
    shape.height[at] = height;
  }
  return shape;
}

/** Whether two shapes are laid out in the same way. */
export function sameShape(a: MapShape, b: MapShape): boolean {
  if (a.parent.length !== b.parent.length) return false;
  for (let at = 0; at < a.parent.length; at++)
    if (a.parent[at] !== b.parent[at] || a.width[at] !== b.width[at] || a.height[at] !== b.height[at]) return false;
  return true;
}

function siteNode({ settings }: Site, measure: Measure): MapNode {
  const lines = brokenTitle(settings.name, measure);
  return {
    row: -1,
    page: null,
    kind: 'site',
    parent: -1,
    number: '',
    lines,
    mark: null,
    note: null,
    width: Math.ceil(2 * PADDING + Math.max(...lines.map((line) => measure(line, 'title') * 1.08))),
    height: LINES_PADDING + lines.length * TITLE_LINE,
    textLeft: PADDING,
  };
}

const newNode = (parent: number): MapNode => ({
  row: -1,
  page: null,
  kind: 'new',
  parent,
  number: '',
  lines: [],
  mark: null,
  note: null,
  width: NEW_WIDTH,
  height: LINES_PADDING + TITLE_LINE,
  textLeft: PADDING,
});

const parentRow = ({ outline }: Derived, parent: PageId | null): number =>
  parent === null ? -1 : (outline.rowOf.get(parent) ?? -1);

/** So many of the rows stand before the page that is being typed. */
function newPlace({ outline }: Derived, rows: readonly number[], adding: NonNullable<MapAsked['adding']>): number {
  const after = adding.after === null ? undefined : outline.rowOf.get(adding.after);
  const parent = adding.parent === null ? undefined : outline.rowOf.get(adding.parent);
  const end = after !== undefined ? outline.end[after]! : parent !== undefined ? parent + 1 : 0;
  const at = rows.findIndex((row) => row >= end);
  return at === -1 ? rows.length : at;
}

const broken = new Map<string, readonly string[]>();
const MAX_KEPT = 200_000;

/** A title in at most two lines; what does not fit ends in dots. */
function brokenTitle(title: string, measure: Measure): readonly string[] {
  const known = broken.get(title);
  if (known) return known;
  const lines = breakTitle(title, measure);
  if (broken.size >= MAX_KEPT) broken.clear();
  broken.set(title, lines);
  return lines;
}

export function breakTitle(title: string, measure: Measure): string[] {
  if (measure(title, 'title') <= WIDEST_LINE) return [title];
  const words = title.split(/\s+/);
  let first = words.shift()!;
  while (words.length > 0 && measure(`${first} ${words[0]!}`, 'title') <= WIDEST_LINE) first += ` ${words.shift()!}`;
  if (measure(first, 'title') > WIDEST_LINE) return [cut(title, measure)];
  return words.length === 0 ? [first] : [first, cut(words.join(' '), measure)];
}

function cut(text: string, measure: Measure): string {
  if (measure(text, 'title') <= WIDEST_LINE) return text;
  const characters = [...text];
  let [fits, tooMany] = [0, characters.length];
  while (tooMany - fits > 1) {
    const middle = (fits + tooMany) >> 1;
    if (measure(`${characters.slice(0, middle).join('')}…`, 'title') <= WIDEST_LINE) fits = middle;
    else tooMany = middle;
  }
  return `${characters.slice(0, fits).join('').trimEnd()}…`;
}
