import type { State } from '../derive/state.ts';
import type { Area, MapLayout } from './map-layout.ts';

/** One look that rails of a map can have. */
export interface RailLook {
  readonly state: State;
  /** Whether the page that it leads to is hidden. */
  readonly isCovered: boolean;
}

export interface MapRails extends RailLook {
  /** All rails of this look, as the data of one SVG path. */
  readonly path: string;
}

const BEND = 9;
/** The rail leaves the trunk so far before the node that it leads to. */
const TRUNK_BEFORE = 24;

/** In the order in which they are drawn: what is live lies on top. */
const ORDER: readonly State[] = ['retired', 'draft', 'edited', 'live'];

/**
 * The rails of a map, gathered by their look so that few paths draw thousands of rails. Each runs from the node above,
 * through it, to the node that it stands for. `area` leaves out rails that do not touch it. Where the nodes themselves are not
 * drawn, `runsThrough` lets each rail go on to the far end of its node.
 */
export function mapRails(
  layout: MapLayout,
  lookOf: (index: number) => RailLook,
  { area = null, runsThrough = false }: { area?: Area | null; runsThrough?: boolean } = {},
): MapRails[] {
  const paths = new Map<string, string[]>();
  for (let index = 1; index < layout.parent.length; index++) {
    if (area && !touches(layout, index, area)) continue;
    const { state, isCovered } = lookOf(index);
    const key = `${state}/${isCovered}`;
    const parts = paths.get(key);
    const part = railPath(layout, index) + (runsThrough ? through(layout, index) : '');
    if (parts) parts.push(part);
    else paths.set(key, [part]);
  }
  return ORDER.flatMap((state) =>
    [true, false].flatMap((isCovered) => {
      const parts = paths.get(`${state}/${isCovered}`);
      return parts ? [{ state, isCovered, path: parts.join('') }] : [];
    }),
  );
}

/** The point at which a rail reaches a node: the middle of its left edge, or of its upper one. */
export function railEnd({ direction, x, y, width, height }: MapLayout, index: number): [number, number] {
  return direction === 'across'
    ? [x[index]!, y[index]! + height[index]! / 2]
    : [x[index]! + width[index]! / 2, y[index]!];
}

/** The rail from the node above to this one, as the data of an SVG path. */
export function railPath(layout: MapLayout, index: number): string {
  const above = layout.parent[index]!;
  const [fromX, fromY] = railEnd(layout, above);
  const [toX, toY] = railEnd(layout, index);
  return layout.direction === 'across'
    ? bent(fromX, fromY, toX, toY, (along, beside) => `${tenth(along)} ${tenth(beside)}`)
    : bent(fromY, fromX, toY, toX, (along, beside) => `${tenth(beside)} ${tenth(along)}`);
}

const through = ({ direction, width, height }: MapLayout, index: number): string =>
  direction === 'across' ? `h${tenth(width[index]!)}` : `v${tenth(height[index]!)}`;

function bent(
  from: number,
  fromBeside: number,
  to: number,
  toBeside: number,
  point: (along: number, beside: number) => string,
): string {
  const trunk = to - TRUNK_BEFORE;
  const gap = toBeside - fromBeside;
  if (Math.abs(gap) < 0.5) return `M${point(from, fromBeside)}L${point(to, toBeside)}`;
  const bend = Math.min(BEND, Math.abs(gap) / 2);
  const side = gap > 0 ? bend : -bend;
  return `M${point(from, fromBeside)}L${point(trunk - bend, fromBeside)}Q${point(trunk, fromBeside)} ${point(trunk, fromBeside + side)}L${point(trunk, toBeside - side)}Q${point(trunk, toBeside)} ${point(trunk + bend, toBeside)}L${point(to, toBeside)}`;
}

const tenth = (value: number): number => Math.round(value * 10) / 10;

function touches(layout: MapLayout, index: number, area: Area): boolean {
  const [fromX, fromY] = railEnd(layout, layout.parent[index]!);
  const [toX, toY] = railEnd(layout, index);
  return (
    Math.min(fromX, toX) <= area.right &&
    Math.max(fromX, toX) >= area.left &&
    Math.min(fromY, toY) <= area.bottom &&
    Math.max(fromY, toY) >= area.top
  );
}
