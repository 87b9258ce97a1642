import type { MapLayout } from '#core/drawing/map-layout.ts';
import { railEnd } from '#core/drawing/map-rails.ts';
import type { PageId } from '#core/model/ids.ts';
import { useDrag } from '../drag/drag-context.ts';
import { placeWords } from '../drag/place-words.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { MAP_TYPE, measure } from './measure.ts';
import type { DrawnMap } from './use-map-layout.ts';

const AHEAD = 46;
const BESIDE = 9;

/** The rail that would lead to what is dragged over the map, with the place in words. */
export function MapLanding({ drawn, scale }: { readonly drawn: DrawnMap; readonly scale: number }) {
  const { site } = useWorkbench();
  const { drag } = useDrag();
  const landing = drag?.landing;
  if (landing?.view !== 'map') return null;
  const { nodes, layout } = drawn;
  const { parent, after } = landing.place;
  const indexOf = (page: PageId | null) => nodes.findIndex((node) => node.page === page && node.kind !== 'new');
  const above = indexOf(parent);
  if (above === -1) return null;
  const [endX, endY] = railEnd(layout, above);
  const across = layout.direction === 'across';
  const [fromX, fromY] = across ? [endX + layout.width[above]!, endY] : [endX, endY + layout.height[above]!];
  const [x, y] = endOf(drawn, above, after === null ? -1 : indexOf(after));
  const words = placeWords(site, landing);
  const size = MAP_TYPE.title.size / Math.min(1, scale);
  const width = (measure(words, 'title') + 20) / Math.min(1, scale);
  return (
    <g aria-hidden pointerEvents="none" className="text-accent">
      <rect
        x={layout.x[above]! - 4}
        y={layout.y[above]! - 4}
        width={layout.width[above]! + 8}
        height={layout.height[above]! + 8}
        rx={9}
        fill="none"
        stroke="currentColor"
        strokeWidth={2.5}
      />
      <path
        d={
          across
            ? `M${fromX} ${fromY}H${x - 30}Q${x - 22} ${fromY} ${x - 22} ${fromY + Math.sign(y - fromY) * Math.min(8, Math.abs(y - fromY))}V${y}H${x}`
            : `M${fromX} ${fromY}V${y - 24}H${x}V${y}`
        }
        fill="none"
        stroke="currentColor"
        strokeWidth={2.5}
        strokeDasharray="5 3"
      />
      <circle cx={x} cy={y} r={6} fill="var(--raised)" stroke="currentColor" strokeWidth={2.5} />
      <g transform={`translate(${across ? x + 12 : x - width / 2} ${across ? y - size * 0.9 : y + 12})`}>
        <rect width={width} height={size * 1.8} rx={size * 0.9} fill="currentColor" />
        <text
          x={10 / Math.min(1, scale)}
          y={size * 1.25}
          fontFamily={MAP_TYPE.title.family}
          fontSize={size}
          fontWeight={500}
          fill="var(--on-accent)"
        >
          {words}
        </text>
      </g>
    </g>
  );
}

/** Where the rail would end: past the sibling that it would follow, or before the first one. */
function endOf({ nodes, layout }: DrawnMap, above: number, after: number): [number, number] {
  const across = layout.direction === 'across';
  const siblings = [...nodes.keys()].filter((index) => index > 0 && nodes[index]!.parent === above);
  const next = siblings[siblings.indexOf(after) + 1];
  const beside = across ? [layout.y, layout.height] : [layout.x, layout.width];
  const [start, breadth] = beside as [Float64Array, Float64Array];
  const along =
    siblings[0] !== undefined
      ? (across ? layout.x : layout.y)[siblings[0]]!
      : across
        ? layout.x[above]! + layout.width[above]! + AHEAD
        : layout.y[above]! + layout.height[above]! + AHEAD;
  const at =
    siblings.length === 0
      ? start[above]! + breadth[above]! / 2
      : after === -1 || !siblings.includes(after)
        ? start[siblings[0]!]! - BESIDE
        : next !== undefined
          ? (start[after]! + breadth[after]! + start[next]!) / 2
          : start[after]! + breadth[after]! + BESIDE;
  return across ? [along, at] : [at, along];
}

/** The area of one node, for showing it. */
export const areaOf = ({ x, y, width, height }: MapLayout, index: number) => ({
  left: x[index]!,
  top: y[index]!,
  right: x[index]! + width[index]!,
  bottom: y[index]! + height[index]!,
});
