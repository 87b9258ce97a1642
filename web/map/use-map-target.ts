import { useEffect, useRef } from 'react';
import { movedRows, placeBeside, placeInside } from '#core/arrange/landing.ts';
import type { PageId } from '#core/model/ids.ts';
import { type Landing, useDrag } from '../drag/drag-context.ts';
import { type Held, openHeld } from '../drag/open-held.ts';
import { useLatest } from '../ui/use-latest.ts';
import { type Workbench, useWorkbench } from '../workbench/workbench-context.tsx';
import type { DrawnMap } from './use-map-layout.ts';
import type { MapCamera } from './map-camera.ts';

/** The part of a node, on either side, that means the place beside it. */
const EDGE = 0.3;
/** So far from a node, in pixels of the map, its places can still be reached. */
const REACH = 70;
/** A page that is carried along its siblings stays one of them: it goes inside another where it is carried so far towards deeper levels, in pixels. */
const STRAIGHT = 40;
/** So near to the edge of the window the map moves, by so many pixels a frame. */
const EDGE_ZONE = 36;
const EDGE_STEP = 9;

/** Makes the map a place to drop on: before, after or inside a page. */
export function useMapTarget(drawn: DrawnMap | null, camera: MapCamera): void {
  const { latest } = useWorkbench();
  const { register } = useDrag();
  const now = useLatest({ drawn, camera });
  const held = useRef<Held>(null);
  useEffect(
    () =>
      register({
        landingAt: (x, y, moved, grab) => {
          const { drawn: map, camera: from } = now();
          const box = from.box();
          if (!map || x < box.left || x > box.right || y < box.top || y > box.bottom) return null;
          moveNearEdge(from, box, x, y);
          const carried = map.layout.direction === 'across' ? x - grab.x : y - grab.y;
          const isStraight = grab.view === 'map' && Math.abs(carried) < STRAIGHT;
          const landing = landingIn(latest(), map, from.toMap(x, y), moved, isStraight);
          openHeld(latest(), held, landing);
          return landing;
        },
      }),
    [register, latest, now],
  );
}

function landingIn(
  { derived }: Workbench,
  { nodes, layout }: DrawnMap,
  [x, y]: [number, number],
  moved: readonly PageId[],
  isStraight: boolean,
): Landing | null {
  const { outline } = derived;
  const across = layout.direction === 'across';
  const isMoved = movedRows(outline, moved);
  const index = nearest(layout, x, y);
  if (index === -1) return null;
  const page = nodes[index]!.page;
  const row = page === null ? undefined : outline.rowOf.get(page);
  if (row === undefined) return null;
  const [beside, breadth, along, length] = across
    ? [y - layout.y[index]!, layout.height[index]!, x - layout.x[index]!, layout.width[index]!]
    : [x - layout.x[index]!, layout.width[index]!, y - layout.y[index]!, layout.height[index]!];
  const share = beside / breadth;
  const isInside = !isStraight && (along > length || (share >= EDGE && share <= 1 - EDGE));
  if (isInside) {
    const place = placeInside(outline, row, isMoved);
    if (place) return { view: 'map', place, gap: index, isInside: true };
  }
  const place = placeBeside(outline, row, share < 0.5 ? 'before' : 'after', isMoved);
  return place && { view: 'map', place, gap: index, isInside: false };
}

/** The node under a point or within reach of it; -1 where there is none. */
function nearest({ x: left, y: top, width, height }: DrawnMap['layout'], x: number, y: number): number {
  let best = -1;
  let distance = REACH;
  for (let index = 1; index < left.length; index++) {
    const away = Math.hypot(
      Math.max(left[index]! - x, 0, x - left[index]! - width[index]!),
      Math.max(top[index]! - y, 0, y - top[index]! - height[index]!),
    );
    if (away < distance) [best, distance] = [index, away];
    if (away === 0) break;
  }
  return best;
}

function moveNearEdge(camera: MapCamera, box: DOMRect, x: number, y: number): void {
  const way = (at: number, from: number, to: number) =>
    at < from + EDGE_ZONE ? EDGE_STEP : at > to - EDGE_ZONE ? -EDGE_STEP : 0;
  const [byX, byY] = [way(x, box.left, box.right), way(y, box.top, box.bottom)];
  if (byX !== 0 || byY !== 0) camera.moveBy(byX, byY);
}
