import type { Rectangle } from '../drawing/rectangle.ts';
import { SCREEN_WIDTHS, type ScreenWidth } from '../drawing/screen-widths.ts';
import type { Box, BoxId } from '../model/sketch.ts';
import { BOXES, type BoxShape } from './box-types.ts';
import { rowsOf } from './start-writing.ts';
import type { Surround } from './surround.ts';

/** How dark a part of a drawing is; each medium has its own colours for these. */
export type Tone = 'paper' | 'plate' | 'deep' | 'line' | 'quiet' | 'ink';

/** What a sketch is drawn with, in pixels of the page. */
export type SketchShape =
  | ({
      readonly kind: 'plate';
      readonly fill: Tone | null;
      readonly edge: Tone | null;
      readonly radius: number;
    } & Rectangle)
  | { readonly kind: 'stroke'; readonly points: readonly (readonly [number, number])[]; readonly tone: Tone }
  | {
      readonly kind: 'text';
      readonly x: number;
      /** The line on which the letters stand. */
      readonly y: number;
      readonly text: string;
      readonly size: number;
      readonly tone: Tone;
      readonly isStrong: boolean;
    };

/** A page as grey boxes. */
export interface DrawnSketch {
  readonly width: number;
  readonly height: number;
  readonly shapes: readonly SketchShape[];
  /** Where each box lies. */
  readonly boxes: readonly ({ readonly id: BoxId } & Rectangle)[];
}

/** Lengths of the page, in pixels: about those that visitors have. */
const GUTTER = 40;
const NARROW_GUTTER = 18;
const MEASURE = 940;
const SIDE = 250;
const GAP = 18;
const PADDING = 16;
const LINE = 24;
const BAR = 9;
/** Letters are so wide, as a share of their height; a word and its space have so many. */
const LETTER = 0.52;
const LETTERS_A_WORD = 6;
const TEXT_SIZE = 17;
/** What text is drawn as long as nobody has said how long it will be, and the most lines that are drawn. */
const USUAL_WORDS = 60;
const MOST_LINES = 40;
const MOST_LABEL_LINES = 3;
const MOST_LABELS = 7;

/**
 * Draws a page: what stands around it, and its boxes. Pictures are crossed, text is lines, as many as its words take.
 * @param letter the height of what is written into the drawing, in pixels of the page: more where it is shown smaller
 */
export function drawSketch(boxes: readonly Box[], surround: Surround, at: ScreenWidth, letter: number): DrawnSketch {
  return new Drawing(surround, at, letter).draw(boxes);
}

class Drawing {
  readonly #surround: Surround;
  readonly #width: number;
  readonly #isNarrow: boolean;
  readonly #gutter: number;
  readonly #letter: number;
  readonly #shapes: SketchShape[] = [];
  readonly #boxes: ({ id: BoxId } & Rectangle)[] = [];

  constructor(surround: Surround, at: ScreenWidth, letter: number) {
    this.#surround = surround;
    this.#width = SCREEN_WIDTHS[at];
    this.#isNarrow = at === 'telephone';
    this.#gutter = this.#isNarrow ? NARROW_GUTTER : GUTTER;
    this.#letter = letter;
  }

  draw(boxes: readonly Box[]): DrawnSketch {
    const { trail, title, menus } = this.#surround;
    const hasSide = menus.side.length > 0;
    const isBeside = hasSide && !this.#isNarrow;
    const room = this.#width - 2 * this.#gutter - (isBeside ? SIDE + GUTTER : 0);
    let y = this.#header() + GAP;
    const top = y;
    if (trail.length > 0) y += this.#label(trail.join(' › '), this.#gutter, y, room, 'quiet', 1);
    y += this.#label(title, this.#gutter, y, room, 'ink', 2, this.#letter * 1.5) + GAP;
    if (boxes.length === 0) y = this.#emptyPlace(y, Math.min(room, MEASURE));
    for (const row of this.#isNarrow ? boxes.map((box) => [box]) : rowsOf(boxes)) y = this.#row(row, y, room) + GAP;
    if (isBeside) y = Math.max(y, this.#list(menus.side, this.#width - this.#gutter - SIDE, top, SIDE) + GAP);
    else if (hasSide) y = this.#list(menus.side, this.#gutter, y, room) + GAP;
    return { width: this.#width, height: this.#footer(y + GAP), shapes: this.#shapes, boxes: this.#boxes };
  }

  /** The boxes of a row from `y` down; gives where the lowest one ends. */
  #row(row: readonly Box[], y: number, room: number): number {
    const across = row.length === 1 ? 1 : row[0]!.width === 'third' ? 3 : 2;
    const single = row[0]!;
    const isWide = single.type === 'band' && single.width === 'whole';
    const all = isWide
      ? room + (room + 2 * this.#gutter === this.#width ? 2 * this.#gutter : 0)
      : Math.min(room, MEASURE);
    const left = isWide && all > room ? 0 : this.#gutter;
    const width = (all - GAP * (across - 1)) / across;
    const drawn = row.map((box, n) => this.#box(box, left + n * (width + GAP), y, width));
    const height = Math.max(...drawn.map(({ bottom }) => bottom)) - y;
    // Boxes beside each other are as high as the highest.
    for (const { plate, box, x } of drawn) {
      this.#shapes[plate] = this.#plateAt(
        x,
        y,
        width,
        height,
        box.type === 'band' || box.type === 'note' ? 'deep' : 'plate',
      );
      this.#boxes.push({ id: box.id, x, y, width, height });
    }
    return y + height;
  }

  /** A box with its words and its sign; its plate is drawn once it is known how high it is. */
  #box(box: Box, x: number, y: number, width: number): { plate: number; box: Box; x: number; bottom: number } {
    const plate = this.#shapes.length;
    this.#shapes.push(this.#plateAt(x, y, width, 0, 'plate'));
    const { name, shape } = BOXES[box.type];
    const inner = width - 2 * PADDING;
    const left = x + PADDING;
    let at = y + PADDING;
    const length = box.words === null ? '' : ` · ${box.words} words`;
    at += this.#label(box.purpose === '' ? name : box.purpose, left, at, inner, 'ink', MOST_LABEL_LINES);
    if (box.purpose !== '' || length !== '')
      at += this.#label(`${box.purpose === '' ? '' : name}${length}`.replace(/^ · /, ''), left, at, inner, 'quiet', 1);
    at = this.#sign(shape, box, left, at + PADDING / 2, inner);
    return { plate, box, x, bottom: at + PADDING };
  }

  #sign(shape: BoxShape, { type, words }: Box, x: number, y: number, width: number): number {
    switch (shape) {
      case 'text':
        return this.#textLines(words ?? USUAL_WORDS, x, y, width);
      case 'picture':
        return this.#crossed(x, y, width, Math.min(width * 0.56, 400));
      case 'pictures': {
        const across = this.#isNarrow ? 2 : 3;
        const each = (width - GAP * (across - 1)) / across;
        for (let n = 0; n < across; n++) this.#crossed(x + n * (each + GAP), y, each, each * 0.66);
        return y + each * 0.66;
      }
      case 'button':
        this.#plate(x, y, Math.min(190, width), 44, 'line', null, 22);
        return y + 44;
      case 'lines':
        return this.#ruled(x, y, width, type === 'download' ? 1 : type === 'fold' ? 3 : 4, type === 'fold');
      case 'table':
        return this.#grid(x, y, width);
      case 'cards':
        return this.#cards(x, y, width);
      case 'player':
        return this.#player(x, y, width, type === 'sound');
      case 'fields':
        return this.#fields(x, y, width);
    }
  }

  #textLines(words: number, x: number, y: number, width: number): number {
    const perLine = Math.max(8, Math.floor(width / (TEXT_SIZE * LETTER)));
    const exact = (words * LETTERS_A_WORD) / perLine;
    const lines = Math.min(MOST_LINES, Math.max(1, Math.ceil(exact)));
    for (let n = 0; n < lines; n++) {
      // The last line is as long as what is left, and lines in between are not all alike.
      const share = n === lines - 1 ? Math.max(0.25, exact - Math.floor(exact) || 1) : 1 - ((n * 7) % 5) * 0.02;
      this.#plate(x, y + n * LINE + (LINE - BAR) / 2, width * Math.min(1, share), BAR, 'line', null, BAR / 2);
    }
    return y + lines * LINE;
  }

  #crossed(x: number, y: number, width: number, height: number): number {
    this.#plate(x, y, width, height, 'paper', 'line', 0);
    this.#stroke([
      [x, y],
      [x + width, y + height],
    ]);
    this.#stroke([
      [x + width, y],
      [x, y + height],
    ]);
    return y + height;
  }

  /** Lines of words above one another, parted by rules; those that open have a sign for it. */
  #ruled(x: number, y: number, width: number, lines: number, opens: boolean): number {
    const height = 40;
    for (let n = 0; n < lines; n++) {
      const top = y + n * height;
      this.#stroke([
        [x, top],
        [x + width, top],
      ]);
      this.#plate(x, top + (height - BAR) / 2, width * (0.4 + ((n * 13) % 30) / 100), BAR, 'line', null, BAR / 2);
      if (opens)
        this.#stroke([
          [x + width - 22, top + 16],
          [x + width - 14, top + 24],
          [x + width - 6, top + 16],
        ]);
    }
    return y + lines * height;
  }

  #grid(x: number, y: number, width: number): number {
    const [rows, columns, height] = [4, 3, 34];
    this.#plate(x, y, width, height, 'line', null, 0);
    this.#plate(x, y, width, rows * height, null, 'line', 0);
    for (let n = 1; n < rows; n++)
      this.#stroke([
        [x, y + n * height],
        [x + width, y + n * height],
      ]);
    for (let n = 1; n < columns; n++)
      this.#stroke([
        [x + (n * width) / columns, y],
        [x + (n * width) / columns, y + rows * height],
      ]);
    return y + rows * height;
  }

  #cards(x: number, y: number, width: number): number {
    const across = width < 420 ? 1 : 3;
    const each = (width - GAP * (across - 1)) / across;
    const high = across === 1 ? 60 : each * 0.5;
    for (let n = 0; n < 3; n++) {
      const left = x + (across === 1 ? 0 : n * (each + GAP));
      const top = y + (across === 1 ? n * (high + GAP) : 0);
      if (across === 1) {
        this.#crossed(left, top, 84, high);
        this.#plate(left + 84 + GAP, top + 12, (each - 84 - GAP) * 0.8, BAR, 'line', null, BAR / 2);
        this.#plate(left + 84 + GAP, top + 36, (each - 84 - GAP) * 0.5, BAR, 'line', null, BAR / 2);
      } else {
        this.#crossed(left, top, each, high);
        this.#plate(left, top + high + 12, each * 0.8, BAR, 'line', null, BAR / 2);
        this.#plate(left, top + high + 34, each * 0.55, BAR, 'line', null, BAR / 2);
      }
    }
    return across === 1 ? y + 3 * high + 2 * GAP : y + high + 46;
  }

  #player(x: number, y: number, width: number, isSound: boolean): number {
    const height = isSound ? 52 : Math.min(width * 0.56, 400);
    this.#plate(x, y, width, height, 'paper', 'line', 0);
    const [middle, half] = [isSound ? x + 30 : x + width / 2, isSound ? 11 : 26];
    this.#stroke([
      [middle - half * 0.8, y + height / 2 - half],
      [middle + half, y + height / 2],
      [middle - half * 0.8, y + height / 2 + half],
      [middle - half * 0.8, y + height / 2 - half],
    ]);
    if (isSound) this.#plate(x + 60, y + (height - BAR) / 2, width - 84, BAR, 'line', null, BAR / 2);
    return y + height;
  }

  #fields(x: number, y: number, width: number): number {
    const wide = Math.min(width, 420);
    for (let n = 0; n < 3; n++) {
      this.#plate(x, y + n * 72, wide * 0.35, BAR, 'line', null, BAR / 2);
      this.#plate(x, y + n * 72 + 18, wide, 40, 'paper', 'line', 4);
    }
    this.#plate(x, y + 3 * 72, Math.min(160, width), 42, 'line', null, 21);
    return y + 3 * 72 + 42;
  }

  #header(): number {
    const { header, siteName, menus } = this.#surround;
    if (header === 'none') return 0;
    const name = this.#letter * 1.2;
    const isTall = header === 'tall';
    const hasMenu = header !== 'title' && menus.header.length > 0;
    const inRow = hasMenu && header === 'slim' && !this.#isNarrow;
    const bar = name + 2 * PADDING;
    const utility = menus.utility.length > 0 && !this.#isNarrow ? this.#letter + PADDING : 0;
    const picture = isTall ? (this.#isNarrow ? 130 : 190) : 0;
    const menuRow = hasMenu && !inRow && !this.#isNarrow ? this.#letter + PADDING : 0;
    const height = utility + picture + bar + menuRow;
    this.#plate(0, 0, this.#width, height, 'deep', null, 0);
    if (isTall) this.#crossed(0, utility, this.#width, picture);
    const right = this.#width - this.#gutter;
    if (utility > 0) this.#labels(menus.utility, this.#gutter, PADDING / 2, right, 'quiet', true);
    const base = utility + picture;
    const nameWidth = siteName.length * name * LETTER + GUTTER;
    this.#label(siteName, this.#gutter, base + PADDING, right - this.#gutter - (hasMenu ? 50 : 0), 'ink', 1, name);
    if (inRow) this.#labels(menus.header, this.#gutter + nameWidth, base + PADDING, right, 'ink');
    else if (menuRow > 0) this.#labels(menus.header, this.#gutter, base + bar - PADDING / 2, right, 'ink');
    else if (hasMenu)
      for (let n = 0; n < 3; n++)
        this.#plate(right - 30, base + PADDING + name / 2 - 10 + n * 8, 30, 3, 'ink', null, 0);
    return height;
  }

  #footer(y: number): number {
    const { hasFooter, menus, facts, siteName } = this.#surround;
    if (!hasFooter) return y;
    const right = this.#width - this.#gutter;
    const hasMenu = menus.footer.length > 0;
    const height = this.#letter * (hasMenu ? 2.6 : 1.3) + 2 * PADDING;
    this.#plate(0, y, this.#width, height, 'deep', null, 0);
    if (hasMenu) this.#labels(menus.footer, this.#gutter, y + PADDING, right, 'ink');
    const words = [siteName, ...facts].join(' · ');
    this.#label(
      words,
      this.#gutter,
      y + PADDING + (hasMenu ? this.#letter * 1.3 : 0),
      right - this.#gutter,
      'quiet',
      1,
    );
    return y + height;
  }

  /** Labels beside each other, as many as there is room for. */
  #labels(labels: readonly string[], left: number, y: number, right: number, tone: Tone, isAtEnd = false): void {
    const gap = this.#letter * 1.4;
    const widthOf = (text: string): number => text.length * this.#letter * LETTER;
    const shown: string[] = [];
    let used = 0;
    for (const label of labels.slice(0, MOST_LABELS)) {
      if (left + used + widthOf(label) > right) break;
      shown.push(label);
      used += widthOf(label) + gap;
    }
    let x = isAtEnd ? right - used + gap : left;
    for (const label of shown) {
      this.#text(label, x, y, this.#letter, tone, false);
      x += widthOf(label) + gap;
    }
    if (shown.length < labels.length && !isAtEnd && x + gap < right) this.#text('…', x, y, this.#letter, tone, false);
  }

  /** Labels below each other; gives where the last one ends. */
  #list(labels: readonly string[], x: number, y: number, width: number): number {
    const row = this.#letter * 1.7;
    labels.slice(0, MOST_LABELS).forEach((label, n) => {
      this.#stroke([
        [x, y + n * row],
        [x + width, y + n * row],
      ]);
      this.#label(label, x, y + n * row + this.#letter * 0.3, width, 'quiet', 1);
    });
    return y + Math.min(labels.length, MOST_LABELS) * row;
  }

  #emptyPlace(y: number, width: number): number {
    this.#plate(this.#gutter, y, width, 120, null, 'line', 4);
    return y + 120 + GAP;
  }

  /** Words in so many lines at most; gives how much height they take. */
  #label(text: string, x: number, y: number, width: number, tone: Tone, most: number, size = this.#letter): number {
    const lines = wrapped(text, Math.max(3, Math.floor(width / (size * LETTER))), most);
    lines.forEach((line, n) => this.#text(line, x, y + n * size * 1.25, size, tone, tone === 'ink'));
    return lines.length * size * 1.25;
  }

  #text(text: string, x: number, top: number, size: number, tone: Tone, isStrong: boolean): void {
    this.#shapes.push({ kind: 'text', x, y: top + size * 0.95, text, size, tone, isStrong });
  }

  #plateAt(x: number, y: number, width: number, height: number, fill: Tone): SketchShape {
    return { kind: 'plate', x, y, width, height, fill, edge: null, radius: 6 };
  }

  #plate(
    x: number,
    y: number,
    width: number,
    height: number,
    fill: Tone | null,
    edge: Tone | null,
    radius: number,
  ): void {
    this.#shapes.push({ kind: 'plate', x, y, width, height, fill, edge, radius });
  }

  #stroke(points: readonly (readonly [number, number])[]): void {
    this.#shapes.push({ kind: 'stroke', points, tone: 'line' });
  }
}

/** Words in lines of so many letters; what has no room in the last one is cut. */
export function wrapped(text: string, letters: number, most: number): string[] {
  const lines: string[] = [];
  let line = '';
  const words = text.split(/\s+/).filter(Boolean);
  for (const [at, word] of words.entries()) {
    const longer = line === '' ? word : `${line} ${word}`;
    if (longer.length <= letters || line === '') line = longer;
    else if (lines.length === most - 1) return [...lines, cut(`${line} ${words.slice(at).join(' ')}`, letters)];
    else {
      lines.push(line);
      line = word;
    }
  }
  return [...lines, cut(line, letters)].filter((one) => one !== '');
}

const cut = (text: string, letters: number): string =>
  text.length <= letters ? text : `${text.slice(0, letters - 1).trimEnd()}…`;
