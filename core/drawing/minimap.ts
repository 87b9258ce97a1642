import type { MapLayout } from './map-layout.ts';
import { smallRails } from './map-rails.ts';

/** The largest size of the small map, in pixels. */
const WIDEST = 168;
const HIGHEST = 120;

/** The whole of a map, small. */
export interface SmallMap {
  /** Pixels by the layout's units. */
  readonly scale: number;
  /** All rails, as the data of one SVG path in pixels. */
  readonly rails: string;
}

export function smallMap(layout: MapLayout): SmallMap {
  const { extent } = layout;
  const scale = Math.min(WIDEST / extent.width, HIGHEST / extent.height);
  return { scale, rails: smallRails(layout, scale) };
}
