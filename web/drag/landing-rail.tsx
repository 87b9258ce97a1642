import { ROW_HEIGHT, railX } from '../tree/rails.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import type { Landing } from './drag-context.ts';
import { placeWords } from './place-words.ts';

/** The rails of a row begin so far from the sheet's edge. */
const INSET = 4;

export interface LandingRailProps {
  readonly landing: Landing;
  /** The row of the page that it would hang under among those that show, or -1. */
  readonly parentIndex: number;
}

/** The rail that would lead to what is dragged: from the page that it would hang under to its stop, with the place in words. */
export function LandingRail({ landing, parentIndex }: LandingRailProps) {
  const { site } = useWorkbench();
  const { place, gap, isInside } = landing;
  const y = isInside ? (gap + 1) * ROW_HEIGHT : gap * ROW_HEIGHT;
  const x = INSET + railX(place.depth);
  const fromX = INSET + railX(Math.max(0, place.depth - 1));
  const fromY = parentIndex === -1 ? y : parentIndex * ROW_HEIGHT + ROW_HEIGHT / 2;
  const words = placeWords(site, landing);
  return (
    <div className="pointer-events-none absolute inset-0 z-10" aria-hidden>
      {parentIndex !== -1 && (
        <div
          className="absolute inset-x-0 rounded-sm outline-2 -outline-offset-2 outline-accent"
          style={{ top: parentIndex * ROW_HEIGHT, height: ROW_HEIGHT }}
        />
      )}
      <svg className="absolute inset-0 size-full overflow-visible text-accent" fill="none">
        {parentIndex !== -1 && (
          <path
            d={`M${fromX} ${fromY + 5}V${Math.max(fromY + 5, y - 10)}C${fromX} ${y} ${fromX + 4} ${y} ${x} ${y}`}
            stroke="currentColor"
            strokeWidth="2.5"
            strokeDasharray="5 3"
          />
        )}
        <path d={`M${x} ${y}H4000`} stroke="currentColor" strokeWidth="2.5" />
        <circle cx={x} cy={y} r="5" fill="var(--raised)" stroke="currentColor" strokeWidth="2.5" />
      </svg>
      <p
        className="absolute right-3 max-w-[70%] -translate-y-1/2 truncate rounded-full bg-accent px-2.5 py-0.5 text-small font-medium text-on-accent"
        style={{ top: y }}
      >
        {words}
      </p>
    </div>
  );
}
