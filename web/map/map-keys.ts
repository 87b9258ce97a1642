import type { KeyboardEvent } from 'react';
import type { PageId } from '#core/model/ids.ts';
import type { Workbench } from '../workbench/workbench-context.tsx';
import type { DrawnMap } from './use-map-layout.ts';

type Way = 'above' | 'below' | 'before' | 'after';
const WAYS: Readonly<Record<'across' | 'down', Readonly<Record<string, Way>>>> = {
  across: { ArrowLeft: 'above', ArrowRight: 'below', ArrowUp: 'before', ArrowDown: 'after' },
  down: { ArrowUp: 'above', ArrowDown: 'below', ArrowLeft: 'before', ArrowRight: 'after' },
};
const ZOOM_STEP = 1.35;

export interface MapKeys {
  readonly workbench: Workbench;
  readonly drawn: DrawnMap;
  readonly zoomBy: (factor: number) => void;
  readonly fitAll: () => void;
  readonly fitBranch: () => void;
}

/** The keys of the map; gives whether the stroke was one of them. */
export function mapKey(event: KeyboardEvent, { workbench, drawn, zoomBy, fitAll, fitBranch }: MapKeys): boolean {
  if (event.altKey || event.ctrlKey || event.metaKey) return false;
  const { selection, derived, open, setOpen, select, found } = workbench;
  const { active } = selection;
  const way = WAYS[drawn.layout.direction][event.key];
  if (way) {
    const row = active === null ? undefined : derived.outline.rowOf.get(active);
    const isClosed = row !== undefined && derived.outline.end[row]! > row + 1 && !open.has(active!) && found === null;
    if (way === 'below' && isClosed) setOpen(active!, true);
    else {
      const next = nextNode(drawn, active, way);
      if (next !== null) {
        const isMore = event.shiftKey;
        select({ active: next, chosen: new Set(isMore ? [...selection.chosen, next] : [next]), anchor: next });
      }
    }
    return true;
  }
  switch (event.key) {
    case ' ':
      if (active !== null) setOpen(active, !open.has(active));
      return true;
    case 'Enter':
      workbench.run('rename');
      return true;
    case '+':
    case '=':
      zoomBy(ZOOM_STEP);
      return true;
    case '-':
      zoomBy(1 / ZOOM_STEP);
      return true;
    case '0':
      fitAll();
      return true;
    case '.':
      fitBranch();
      return true;
    case 'Home':
      select(only(drawn.nodes[1]?.page ?? null));
      return true;
    case 'Escape':
      if (workbench.cut.size > 0) workbench.forgetClip();
      else if (found !== null) workbench.clearFind();
      return true;
    default:
      return false;
  }
}

const only = (page: PageId | null) => ({ active: page, chosen: new Set(page === null ? [] : [page]), anchor: page });

/** The page that an arrow key leads to, as the map is drawn: the nearest one beside on the same level, or up or down the tree. */
export function nextNode({ nodes, layout }: DrawnMap, active: PageId | null, way: Way): PageId | null {
  const at = nodes.findIndex((node) => node.page !== null && node.page === active);
  if (at === -1) return nodes[1]?.page ?? null;
  const above = nodes[at]!.parent;
  if (way === 'above') return nodes[above]!.page;
  if (way === 'below')
    return nodes.find((node, index) => index > at && node.parent === at && node.page !== null)?.page ?? null;
  const depthOf = (index: number): number => (index === 0 ? 0 : depthOf(nodes[index]!.parent) + 1);
  const depth = depthOf(at);
  const beside = layout.direction === 'across' ? layout.y : layout.x;
  let best = -1;
  for (let index = 1; index < nodes.length; index++) {
    if (nodes[index]!.page === null || index === at) continue;
    const isThere = way === 'after' ? beside[index]! > beside[at]! : beside[index]! < beside[at]!;
    if (!isThere || depthOf(index) !== depth) continue;
    if (best === -1 || Math.abs(beside[index]! - beside[at]!) < Math.abs(beside[best]! - beside[at]!)) best = index;
  }
  return best === -1 ? null : nodes[best]!.page;
}
