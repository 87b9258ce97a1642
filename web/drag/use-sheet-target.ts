import { type RefObject, useEffect, useRef } from 'react';
import { levelsCarried, movedRows, placeInGap, placeInside } from '#core/arrange/landing.ts';
import type { PageId } from '#core/model/ids.ts';
import { useLatest } from '../ui/use-latest.ts';
import { LEVEL, ROW_HEIGHT, railX } from '../tree/rails.tsx';
import type { Items } from '../tree/items.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { type Grab, type Landing, useDrag } from './drag-context.ts';
import { type Held, openHeld } from './open-held.ts';
import type { LandingRailProps } from './landing-rail.tsx';

/** The part of a row's height, above and below, that means the gap beside it. */
const EDGE = 0.28;
/** So near to the upper or lower edge the sheet scrolls, by at most so many pixels a frame. */
const SCROLL_ZONE = 36;
const SCROLL_STEP = 14;

/** Makes the sheet a place to drop on; gives what is to be drawn while something is dragged over it. */
export function useSheetTarget(scroller: RefObject<HTMLDivElement | null>, items: Items): LandingRailProps | null {
  const { latest } = useWorkbench();
  const { drag, register } = useDrag();
  const itemsNow = useLatest(items);
  const held = useRef<Held>(null);

  useEffect(
    () =>
      register({
        landingAt: (x, y, moved, grab) => {
          const box = scroller.current?.getBoundingClientRect();
          if (!box || x < box.left || x > box.right || y < box.top - ROW_HEIGHT || y > box.bottom + ROW_HEIGHT)
            return null;
          scrollNearEdge(scroller.current!, y, box);
          const landing = landingIn(latest(), itemsNow(), {
            x: x - box.left,
            y: y - box.top + scroller.current!.scrollTop,
            moved,
            grab,
            sideways: x - grab.x,
          });
          openHeld(latest(), held, landing);
          return landing;
        },
      }),
    [register, scroller, latest, itemsNow],
  );

  const landing = drag?.landing;
  if (!drag || landing?.view !== 'sheet') return null;
  return { landing, parentIndex: items.indexOf(landing.place.parent) };
}

interface Point {
  /** From the sheet's left edge, and from the top of its rows. */
  readonly x: number;
  readonly y: number;
  readonly moved: readonly PageId[];
  readonly grab: Grab;
  /** How far the pointer was carried to the right since the page was taken up. */
  readonly sideways: number;
}

function landingIn(
  { derived, found }: ReturnType<typeof useWorkbench>,
  { rows }: Items,
  { x, y, moved, grab, sideways }: Point,
): Landing | null {
  const { outline } = derived;
  if (rows.length === 0) return null;
  const isMoved = movedRows(outline, moved);
  const index = Math.max(0, Math.min(rows.length - 1, Math.floor(y / ROW_HEIGHT)));
  const within = y / ROW_HEIGHT - index;
  // Within what is moved nothing can land; over the row that is carried the depth alone may change.
  if (isMoved(rows[index]!) && !moved.includes(outline.nodes[rows[index]!]!.id)) return null;
  const inside = () => {
    const place = placeInside(outline, rows[index]!, isMoved);
    return place && { view: 'sheet' as const, place, gap: index, isInside: true };
  };
  // Between rows that were found lie others that do not show: there only the rows themselves are places.
  if (found !== null) return inside();
  const grabbed = grab.view === 'sheet' ? rows.find((row) => outline.nodes[row]!.id === grab.page) : undefined;
  // What was taken up in the sheet keeps its level unless it is carried sideways; what comes from the map has none here.
  const levels = grabbed === undefined ? null : levelsCarried(sideways, LEVEL);
  if ((levels === null || levels > 0) && within >= EDGE && within <= 1 - EDGE) {
    const landing = inside();
    if (landing) return landing;
  }
  const gap = within < 0.5 ? index : index + 1;
  const depth = levels === null ? Math.round((x - railX(0) - LEVEL / 2) / LEVEL) : outline.depth[grabbed!]! + levels;
  const place = placeInGap(outline, rows, gap, depth, isMoved, levels === null || levels > 0);
  return place && { view: 'sheet', place, gap, isInside: false };
}

function scrollNearEdge(scroller: HTMLDivElement, y: number, box: DOMRect): void {
  const above = box.top + SCROLL_ZONE - y;
  const below = y - (box.bottom - SCROLL_ZONE);
  if (above > 0) scroller.scrollTop -= Math.min(SCROLL_STEP, above / 2);
  else if (below > 0) scroller.scrollTop += Math.min(SCROLL_STEP, below / 2);
}
