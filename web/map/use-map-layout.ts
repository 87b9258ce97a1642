import { wrap } from 'comlink';
import { useEffect, useMemo, useState } from 'react';
import { type Direction, type MapLayout, layoutMap } from '#core/drawing/map-layout.ts';
import { type SmallMap, smallMap } from '#core/drawing/minimap.ts';
import { type MapNode, sameShape, shapeOf } from '#core/drawing/map-nodes.ts';
import type { LayoutWorker } from '../workers/layout-worker.ts';

/** A map of more nodes is laid out by the worker; a smaller one is there at once. */
const MAX_AT_ONCE = 1200;

/** The nodes of a map with the layout that was made for them. */
export interface DrawnMap {
  readonly nodes: readonly MapNode[];
  readonly layout: MapLayout;
  /** The whole of it for the corner of the window. */
  readonly small: SmallMap;
}

let worker: ReturnType<typeof wrap<LayoutWorker>> | null = null;
const layoutWorker = () =>
  (worker ??= wrap<LayoutWorker>(
    new Worker(new URL('../workers/layout-worker.ts', import.meta.url), { type: 'module', name: 'layout' }),
  ));

/** Lays nodes out away from the thread that draws. */
export const layoutApart = async (nodes: readonly MapNode[], direction: Direction): Promise<MapLayout> =>
  (await layoutWorker().layout(shapeOf(nodes), direction)).layout;

/** Lays the nodes out; until a large layout is ready the one before stays. Null until there is one. */
export function useMapLayout(nodes: readonly MapNode[], direction: Direction): DrawnMap | null {
  const shape = useSameShape(nodes);
  const isLarge = nodes.length > MAX_AT_ONCE;
  const here = useMemo(() => {
    if (isLarge) return null;
    const layout = layoutMap(shape, direction);
    return { layout, small: smallMap(layout) };
  }, [isLarge, shape, direction]);
  const [there, setThere] = useState<{ shape: typeof shape; drawn: DrawnMap } | null>(null);
  useEffect(() => {
    if (!isLarge) return;
    let isGone = false;
    void layoutWorker()
      .layout(shape, direction)
      .then((made) => {
        if (!isGone) setThere({ shape, drawn: { nodes, ...made } });
      });
    return () => {
      isGone = true;
    };
    // Nodes of the same shape need no new layout: they are drawn at the places that there are.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [isLarge, shape, direction]);
  return useMemo(() => {
    if (here) return { nodes, ...here };
    if (!there) return null;
    return there.shape === shape ? { ...there.drawn, nodes } : there.drawn;
  }, [here, there, shape, nodes]);
}

/** The shape of the nodes: the same object while nothing about it changes. */
function useSameShape(nodes: readonly MapNode[]): ReturnType<typeof shapeOf> {
  const made = useMemo(() => shapeOf(nodes), [nodes]);
  const [kept, setKept] = useState(made);
  if (kept === made) return made;
  if (sameShape(kept, made)) return kept;
  setKept(made);
  return made;
}
