import { expose, transfer } from 'comlink';
import { type Direction, type MapLayout, type MapShape, layoutMap } from '#core/drawing/map-layout.ts';
import { type SmallMap, smallMap } from '#core/drawing/minimap.ts';

/** The layout of maps, away from the thread that draws. */
const worker = {
  layout(shape: MapShape, direction: Direction): { readonly layout: MapLayout; readonly small: SmallMap } {
    const layout = layoutMap(shape, direction);
    return transfer({ layout, small: smallMap(layout) }, [layout.x.buffer, layout.y.buffer]);
  },
};
export type LayoutWorker = typeof worker;

expose(worker);
