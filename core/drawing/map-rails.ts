import type { State } from '../derive/state.ts';
import type { Area, MapLayout } from './map-layout.ts';

/** One look that rails of a map can have. */
export interface RailLook {
  readonly state: State;
  /** Whether the page that it leads to is hidden. */
  readonly isCovered: boolean;
  /** The tint of the audience that passes at the node above; -1 where everyone does, or nobody. */
  readonly tint: number;
}

export interface MapRails extends RailLook {
  /** All rails of this look, as the data of one SVG path. */
  readonly path: string;
}

const BEND = 9;
/** So far before its node the bars of a gate stand, and half as long as this they are. */
const GATE = [12, 8];
const GATE_HALF = 5;
/** The rail leaves the trunk so far before the node that it leads to. */
const TRUNK_BEFORE = 24;

/** So far outside of an area trunks are cut, which is more than a bend takes. */
const CUT = 2 * BEND;

/** Order in which they are drawn: what is live lies on top. */
const ORDER: readonly State[] = ['retired', 'draft', 'edited', 'live'];

/**
 * The rails of a map, gathered by their look so that few paths draw thousands of rails. Each runs from the node above,
 * through it, to the node that it stands for. `area` leaves out rails that do not touch it, and cuts trunks at its edges: what many
 * rails have in common there is drawn once. Where the nodes themselves are not drawn, `runsThrough` lets each rail go on to the far end of its node.
 */
export function mapRails(
  layout: MapLayout,
  lookOf: (index: number) => RailLook,
  { area = null, runsThrough = false }: { area?: Area | null; runsThrough?: boolean } = {},
): MapRails[] {
  const paths = new Map<string, { readonly look: RailLook; readonly parts: Set<string> }>();
  for (let index = 1; index < layout.parent.length; index++) {
    if (area && !touches(layout, index, area)) continue;
    const look = lookOf(index);
    const part =
      (area ? cutRail(layout, index, area) : railPath(layout, index)) + (runsThrough ? through(layout, index) : '');
    const key = `${look.state}/${look.isCovered}/${look.tint}`;
    const same = paths.get(key);
    if (same) same.parts.add(part);
    else paths.set(key, { look, parts: new Set([part]) });
  }
  const layer = ({ state, isCovered }: RailLook) => 2 * ORDER.indexOf(state) + (isCovered ? 0 : 1);
  return [...paths.values()]
    .sort((a, b) => layer(a.look) - layer(b.look) || a.look.tint - b.look.tint)
    .map(({ look: { state, isCovered, tint }, parts }) => ({ state, isCovered, tint, path: [...parts].join('') }));
}

/**
 * The rails of a whole map that is drawn so small that bends do not show, in pixels, as the data of one SVG path: each
 * runs through its node, at right angles, and what falls on the same pixels is drawn once. `scale` is pixels by the
 * layout's units.
 */
export function smallRails(layout: MapLayout, scale: number): string {
  const isAcross = layout.direction === 'across';
  const length = isAcross ? layout.width : layout.height;
  const small = (value: number) => Math.round(value * scale);
  const parts = new Set<string>();
  for (let index = 1; index < layout.parent.length; index++) {
    const [fromX, fromY] = railEnd(layout, layout.parent[index]!);
    const [toX, toY] = railEnd(layout, index);
    const [from, to] = isAcross ? [fromX, toX] : [fromY, toY];
    const [fromBeside, toBeside] = isAcross ? [small(fromY), small(toY)] : [small(fromX), small(toX)];
    const [trunk, end] = [small(to - TRUNK_BEFORE), small(to + length[index]!)];
    parts.add(
      isAcross
        ? `M${small(from)} ${fromBeside}H${trunk}V${toBeside}H${end}`
        : `M${fromBeside} ${small(from)}V${trunk}H${toBeside}V${end}`,
    );
  }
  return [...parts].join('');
}

/** The two bars of a gate across the rail, shortly before the node that it leads to, as the data of an SVG path. */
export function gatePath(layout: MapLayout, index: number): string {
  const [x, y] = railEnd(layout, index);
  return GATE.map((before) =>
    layout.direction === 'across'
      ? `M${tenth(x - before)} ${tenth(y - GATE_HALF)}L${tenth(x - before)} ${tenth(y + GATE_HALF)}`
      : `M${tenth(x - GATE_HALF)} ${tenth(y - before)}L${tenth(x + GATE_HALF)} ${tenth(y - before)}`,
  ).join('');
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

/** The rail as far as an area has it: where an end lies beside the area, its trunk ends at the edge. */
function cutRail(layout: MapLayout, index: number, area: Area): string {
  const isAcross = layout.direction === 'across';
  const [fromX, fromY] = railEnd(layout, layout.parent[index]!);
  const [toX, toY] = railEnd(layout, index);
  const [fromBeside, toBeside] = isAcross ? [fromY, toY] : [fromX, toX];
  const [low, high] = isAcross ? [area.top - CUT, area.bottom + CUT] : [area.left - CUT, area.right + CUT];
  const within = (beside: number) => Math.max(low, Math.min(high, beside));
  const [first, last] = [within(fromBeside), within(toBeside)];
  if (first === fromBeside && last === toBeside) return railPath(layout, index);
  const point = isAcross
    ? (along: number, beside: number) => `${tenth(along)} ${tenth(beside)}`
    : (along: number, beside: number) => `${tenth(beside)} ${tenth(along)}`;
  const [from, to] = isAcross ? [fromX, toX] : [fromY, toY];
  const trunk = to - TRUNK_BEFORE;
  const side = toBeside > fromBeside ? BEND : -BEND;
  const start =
    first === fromBeside
      ? `M${point(from, first)}L${point(trunk - BEND, first)}Q${point(trunk, first)} ${point(trunk, first + side)}`
      : `M${point(trunk, first)}`;
  const end =
    last === toBeside
      ? `L${point(trunk, last - side)}Q${point(trunk, last)} ${point(trunk + BEND, last)}L${point(to, last)}`
      : `L${point(trunk, last)}`;
  return start + end;
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
  const [across, above] = [layout.direction === 'across', layout.parent[index]!];
  const { x, y, width, height } = layout;
  // As `railEnd` has it, without a pair of numbers for each of very many rails.
  const fromX = across ? x[above]! : x[above]! + width[above]! / 2;
  const fromY = across ? y[above]! + height[above]! / 2 : y[above]!;
  const toX = across ? x[index]! : x[index]! + width[index]! / 2;
  const toY = across ? y[index]! + height[index]! / 2 : y[index]!;
  return (
    Math.min(fromX, toX) <= area.right &&
    Math.max(fromX, toX) >= area.left &&
    Math.min(fromY, toY) <= area.bottom &&
    Math.max(fromY, toY) >= area.top
  );
}
