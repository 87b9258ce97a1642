import type { State } from '../derive/state.ts';
import { type Area, type MapLayout, isIn } from './map-layout.ts';
import { ORIGIN_SIGNS } from './origin-signs.ts';
import { type MapNode, TITLE_LINE, noteTop, noteWordsLeft } from './map-nodes.ts';
import { gatePath, mapRails, railEnd } from './map-rails.ts';

/** What a picture is made of; every writer of pictures draws these and nothing else. Lengths are pixels at full size. */
export type Shape =
  | {
      readonly kind: 'path';
      readonly d: string;
      readonly stroke: string;
      readonly strokeWidth: number;
      readonly dash?: readonly number[];
      readonly fill?: string;
      /** Where it lies; a path of the whole picture has none. */
      readonly area?: Area;
    }
  | {
      readonly kind: 'text';
      readonly x: number;
      readonly y: number;
      readonly text: string;
      readonly size: number;
      readonly color: string;
      readonly isItalic?: boolean;
    };

export interface Picture {
  readonly area: Area;
  readonly shapes: readonly Shape[];
}

/** How a node stands, as far as a picture shows it. */
export interface NodeSigns {
  readonly state: State;
  readonly isCovered: boolean;
  readonly tint: number;
  readonly hasGate: boolean;
  readonly inMenus: boolean;
  readonly hidesItself: boolean;
  readonly isHome: boolean;
  readonly isLink: boolean;
  readonly isHeading: boolean;
  /** How many pages are below it and not drawn. */
  readonly closed: number;
}

const PLAIN: NodeSigns = {
  state: 'live',
  isCovered: false,
  tint: -1,
  hasGate: false,
  inMenus: false,
  hidesItself: false,
  isHome: false,
  isLink: false,
  isHeading: false,
  closed: 0,
};
const INK = '#1D2B33';
const QUIET = '#5B6870';
const EDGE = '#8B8F8A';
const PAPER = '#FFFFFF';
const ACCENT = '#0E6470';
const ATTENTION = '#B4540A';
/** The tints of audiences on white paper, as `--tint-0` and so on in the workbench. */
const TINT_COLORS = ['#1F5FA8', '#8A6A00', '#7D3C98', '#2F7D4F', '#B8446F', '#5A4632'];
const MARGIN = 24;

/** A map as a picture on white paper: all of it, or the part that lies in an area. */
export function mapPicture(
  nodes: readonly MapNode[],
  layout: MapLayout,
  signsOf: (index: number) => NodeSigns,
  area: Area | null,
): Picture {
  const shapes: Shape[] = mapRails(layout, signsOf, { area }).flatMap(({ state, isCovered, tint, path }): Shape[] => {
    const stroke = isCovered || state === 'retired' ? EDGE : (TINT_COLORS[tint] ?? INK);
    const strokeWidth = state === 'edited' ? 5 : state === 'retired' ? 1 : 2;
    const rail: Shape = { kind: 'path', d: path, stroke, strokeWidth, ...(state === 'draft' && { dash: [3.5, 3] }) };
    return state === 'edited' ? [rail, { kind: 'path', d: path, stroke: PAPER, strokeWidth: 2 }] : [rail];
  });
  nodes.forEach((node, index) => {
    if (node.kind === 'new' || (area && !isIn(layout, index, area))) return;
    shapes.push(...nodeShapes(node, layout, index, node.kind === 'site' ? PLAIN : signsOf(index)));
  });
  const { width, height } = layout.extent;
  return {
    area: area ?? { left: -MARGIN, top: -MARGIN, right: width + MARGIN + 40, bottom: height + MARGIN },
    shapes,
  };
}

function nodeShapes(node: MapNode, layout: MapLayout, index: number, signs: NodeSigns): Shape[] {
  const [x, y] = [layout.x[index]!, layout.y[index]!];
  const { width, height } = node;
  const isSite = node.kind === 'site';
  const { state } = signs;
  const area = { left: x - 10, top: y - 10, right: x + width + 40, bottom: y + height + 22 };
  const path = (
    d: string,
    stroke: string,
    strokeWidth: number,
    more: { dash?: number[]; fill?: string } = {},
  ): Shape => ({
    kind: 'path',
    d,
    stroke,
    strokeWidth,
    area,
    ...more,
  });
  const shapes: Shape[] = [];
  if (state === 'edited') shapes.push(path(plate(x - 2.5, y - 2.5, width + 5, height + 5, 8), INK, 1));
  const border = state === 'retired' || signs.hidesItself ? EDGE : INK;
  shapes.push(
    path(plate(x, y, width, height, 6), isSite ? INK : border, state === 'retired' ? 0.75 : 1, {
      fill: isSite ? INK : PAPER,
      ...(state === 'draft' && { dash: [3.5, 3] }),
    }),
  );
  const color = isSite ? PAPER : signs.isCovered || signs.isHeading ? QUIET : INK;
  if (node.number !== '')
    shapes.push({ kind: 'text', x: x + 10, y: y + 20, text: node.number, size: 10.5, color: QUIET });
  node.lines.forEach((text, at) =>
    shapes.push({
      kind: 'text',
      x: x + node.textLeft,
      y: y + 20 + at * TITLE_LINE,
      text,
      size: 13,
      color,
      ...(signs.isHeading && { isItalic: true }),
    }),
  );
  if (node.mark) {
    const markY = y + 19 + node.lines.length * TITLE_LINE;
    shapes.push({ kind: 'text', x: x + node.textLeft, y: markY, text: node.mark, size: 10.5, color: ATTENTION });
  }
  if (node.note) {
    const top = y + noteTop(node);
    if (node.note.origin !== null)
      shapes.push(path(movedPath(ORIGIN_SIGNS[node.note.origin], x + node.textLeft, top - 11), QUIET, 1.5));
    shapes.push({
      kind: 'text',
      x: x + node.textLeft + noteWordsLeft(node.note),
      y: top,
      text: node.note.words,
      size: 10.5,
      color: QUIET,
    });
  }
  const [endX, endY] = railEnd(layout, index);
  if (signs.hasGate) shapes.push(path(gatePath(layout, index), ACCENT, 2));
  if (signs.inMenus) shapes.push(path(circle(endX, endY, 4.5), border, 2, { fill: PAPER }));
  if (signs.hidesItself) {
    const cover =
      layout.direction === 'across'
        ? `M${endX - 8} ${endY + 8}C${endX - 12} ${endY + 4} ${endX - 12} ${endY - 4} ${endX - 8} ${endY - 8}`
        : `M${endX - 8} ${endY - 6}C${endX - 5} ${endY - 12} ${endX + 5} ${endY - 12} ${endX + 8} ${endY - 6}`;
    shapes.push(path(cover, ATTENTION, 2.25));
  }
  let signX = x + width - 15;
  if (signs.isHome) {
    const top = y + 11.5;
    shapes.push(
      path(
        `M${signX - 5} ${top + 5}L${signX} ${top}L${signX + 5} ${top + 5}M${signX - 3.5} ${top + 4}V${top + 9}H${signX + 3.5}V${top + 4}`,
        ACCENT,
        1.5,
      ),
    );
    signX -= 19;
  }
  if (signs.isLink) {
    const low = y + 20;
    shapes.push(
      path(
        `M${signX - 3} ${low}L${signX + 3.5} ${low - 6.5}M${signX - 1.5} ${low - 6.5}H${signX + 3.5}V${low - 1.5}`,
        QUIET,
        1.5,
      ),
    );
  }
  if (signs.closed > 0) {
    const [atX, atY] =
      layout.direction === 'across' ? [x + width + 6, y + height / 2 + 3.5] : [x + width / 2 - 8, y + height + 14];
    shapes.push({ kind: 'text', x: atX, y: atY, text: `+${signs.closed}`, size: 10.5, color: ACCENT });
  }
  return shapes;
}

/** The data of a path of absolute M, L, H, V, C and Z, moved. */
function movedPath(d: string, byX: number, byY: number): string {
  return d.replace(/([MLHVC])([^A-Z]*)/g, (_, letter: string, rest: string) => {
    const numbers = rest
      .trim()
      .split(/[\s,]+/)
      .map(Number);
    const moved = numbers.map((number, at) =>
      letter === 'H' ? number + byX : letter === 'V' ? number + byY : number + (at % 2 === 0 ? byX : byY),
    );
    return letter + moved.join(' ');
  });
}

/** A rectangle with round corners, as the data of an SVG path. */
function plate(x: number, y: number, width: number, height: number, radius: number): string {
  const [right, bottom] = [x + width, y + height];
  return `M${x + radius} ${y}H${right - radius}Q${right} ${y} ${right} ${y + radius}V${bottom - radius}Q${right} ${bottom} ${right - radius} ${bottom}H${x + radius}Q${x} ${bottom} ${x} ${bottom - radius}V${y + radius}Q${x} ${y} ${x + radius} ${y}Z`;
}

/** A circle of four curves; the factor is the usual one for a quarter. */
function circle(x: number, y: number, radius: number): string {
  const pull = radius * 0.5523;
  return `M${x - radius} ${y}C${x - radius} ${y - pull} ${x - pull} ${y - radius} ${x} ${y - radius}C${x + pull} ${y - radius} ${x + radius} ${y - pull} ${x + radius} ${y}C${x + radius} ${y + pull} ${x + pull} ${y + radius} ${x} ${y + radius}C${x - pull} ${y + radius} ${x - radius} ${y + pull} ${x - radius} ${y}Z`;
}
