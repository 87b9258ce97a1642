import { type Area, type MapLayout, isIn } from './map-layout.ts';
import type { Measure, MapNode } from './map-nodes.ts';
import { railEnd } from './map-rails.ts';

/** A name written on a map that is seen from far away. */
export interface SectionName {
  readonly index: number;
  readonly text: string;
  /** Start at, on the rail, in pixels of the map at full size. */
  readonly x: number;
  readonly y: number;
}

/** On the screen, whatever the scale. */
export const NAME_SIZE = 12;
const NAME_HEIGHT = 17;
const MAX_LENGTH = 26;

/**
 * The names of sections for a map that is seen from far away: those that hold pages, the higher ones first, as many as
 * have room. `scale` is how large the map is seen, 1 for full size; names are as large on the screen at any scale.
 */
export function sectionNames(
  nodes: readonly MapNode[],
  layout: MapLayout,
  scale: number,
  area: Area,
  measure: Measure,
): SectionName[] {
  const hasBelow = new Uint8Array(nodes.length);
  for (const { parent } of nodes) if (parent >= 0) hasBelow[parent] = 1;
  const depth = new Uint16Array(nodes.length);
  for (let index = 1; index < nodes.length; index++) depth[index] = depth[nodes[index]!.parent]! + 1;
  const inOrder = [...nodes.keys()]
    .filter((index) => (hasBelow[index] === 1 || depth[index]! <= 1) && isIn(layout, index, area))
    .sort((a, b) => depth[a]! - depth[b]! || a - b);
  const taken = new Taken(NAME_HEIGHT / scale);
  const names: SectionName[] = [];
  for (const index of inOrder) {
    const title = nodes[index]!.lines.join(' ');
    const text = title.length > MAX_LENGTH ? `${title.slice(0, MAX_LENGTH).trimEnd()}…` : title;
    if (text === '') continue;
    const [endX, endY] = railEnd(layout, index);
    const width = (measure(text, 'title') * NAME_SIZE) / 13 / scale;
    const x = layout.direction === 'across' ? endX : endX - width / 2;
    if (taken.take(x, endY, width + 6 / scale)) names.push({ index, text, x, y: endY });
  }
  return names;
}

/** The room that names have taken, by strips of a name's height. */
class Taken {
  readonly #height: number;
  readonly #strips = new Map<number, [number, number][]>();

  constructor(height: number) {
    this.#height = height;
  }

  /** Takes the room for a name where it is free, and says whether it was. */
  take(x: number, y: number, width: number): boolean {
    const strip = Math.floor(y / this.#height);
    for (const near of [strip - 1, strip, strip + 1])
      for (const [left, right] of this.#strips.get(near) ?? []) if (x < right && x + width > left) return false;
    const here = this.#strips.get(strip);
    if (here) here.push([x, x + width]);
    else this.#strips.set(strip, [[x, x + width]]);
    return true;
  }
}
