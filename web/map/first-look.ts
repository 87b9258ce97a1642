import { type Area, type MapLayout, isIn } from '#core/drawing/map-layout.ts';
import { areaOf } from './map-landing.tsx';

/** So much stays free around what shows first, in pixels. */
const MARGIN = 36;

interface Room {
  readonly width: number;
  readonly height: number;
}

/**
 * Where a map that does not fit begins at full size: the upper left corner of the window on the map. The selected node is in view, with as
 * much before it as there is room for; and what stands far off, such as the site itself half-way down, leaves no room empty.
 * @param at the selected node @param room the size of the window
 */
export function firstCorner(layout: MapLayout, at: number, { width, height }: Room): { left: number; top: number } {
  const node = areaOf(layout, at);
  const corner = {
    left: begin(node.left, node.right, width),
    top: begin(node.top, node.bottom, height),
  };
  const shown = nodesIn(layout, { ...corner, right: corner.left + width, bottom: corner.top + height });
  if (layout.direction === 'across') {
    // The nodes in these rows may begin further on; the selected one stays whole.
    const first = Math.min(...shown.map((index) => layout.x[index]!));
    corner.left = Math.min(Math.max(corner.left, first - MARGIN), node.left - MARGIN);
  } else {
    const first = Math.min(...shown.map((index) => layout.y[index]!));
    corner.top = Math.min(Math.max(corner.top, first - MARGIN), node.top - MARGIN);
  }
  return corner;
}

/** With half of the room before it, but not from before the map begins; all from the start where the node is near it. */
const begin = (first: number, last: number, room: number): number =>
  last < room - 2 * MARGIN ? -MARGIN : Math.max(-MARGIN, first - room / 2);

const nodesIn = (layout: MapLayout, area: Area): number[] =>
  Array.from(layout.x.keys()).filter((index) => isIn(layout, index, area));
