import { expose, transfer } from 'comlink';
import { type Direction, type MapLayout, type MapShape, layoutMap } from '#core/drawing/map-layout.ts';

/** The layout of maps, away from the thread that draws. */
const worker = {
  layout(shape: MapShape, direction: Direction): MapLayout {
    const made = layoutMap(shape, direction);
    return transfer(made, [made.x.buffer, made.y.buffer]);
  },
};
export type LayoutWorker = typeof worker;

expose(worker);
