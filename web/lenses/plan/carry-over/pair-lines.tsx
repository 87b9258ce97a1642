import type { PageId } from '#core/model/ids.ts';
import { type Chosen, type Line, ROW } from './carry-over-context.ts';

const WIDTH = 80;
/** Lines to pages that are so far out of sight end at the edge. */
const BEYOND = 30;

/** The lines between the two lists: solid where accepted, dashed where sure, dotted where not. */
export function PairLines({
  lines,
  oldAt,
  plannedAt,
  offsets,
  chosen,
}: {
  readonly lines: readonly Line[];
  readonly oldAt: ReadonlyMap<string, number>;
  readonly plannedAt: ReadonlyMap<PageId, number>;
  readonly offsets: { readonly old: number; readonly planned: number; readonly height: number };
  readonly chosen: Chosen;
}) {
  const { height } = offsets;
  const drawn = lines.flatMap((line) => {
    const [from, to] = [oldAt.get(line.old), plannedAt.get(line.planned)];
    if (from === undefined || to === undefined) return [];
    const y1 = from * ROW + ROW / 2 - offsets.old;
    const y2 = to * ROW + ROW / 2 - offsets.planned;
    const isSeen = (y: number) => y > -ROW && y < height + ROW;
    if (!isSeen(y1) && !isSeen(y2)) return [];
    const isChosen = chosen.old === line.old || (chosen.old === null && chosen.planned === line.planned);
    return [{ line, y1: within(y1, height), y2: within(y2, height), isChosen }];
  });
  drawn.sort((a, b) => Number(a.isChosen) - Number(b.isChosen));
  return (
    <svg width={WIDTH} height={height} aria-hidden className="border-x border-rule bg-paper max-md:hidden">
      {drawn.map(({ line, y1, y2, isChosen }) => (
        <g key={`${line.old} ${line.planned}`}>
          <path
            d={`M0 ${y1}H8C${WIDTH / 2} ${y1} ${WIDTH / 2} ${y2} ${WIDTH - 8} ${y2}H${WIDTH}`}
            fill="none"
            stroke={line.look === 'accepted' || isChosen ? 'var(--accent)' : 'var(--ink)'}
            strokeWidth={isChosen ? 3 : line.look === 'accepted' ? 2 : 1.5}
            strokeDasharray={line.look === 'accepted' ? undefined : line.look === 'sure' ? '6 4' : '1.5 4'}
            strokeLinecap="round"
            opacity={line.look === 'unsure' && !isChosen ? 0.55 : 1}
          />
          {line.look === 'accepted' && (
            <>
              <circle cx={4} cy={y1} r={3.5} fill="var(--raised)" stroke="var(--accent)" strokeWidth={2} />
              <circle cx={WIDTH - 4} cy={y2} r={3.5} fill="var(--raised)" stroke="var(--accent)" strokeWidth={2} />
            </>
          )}
        </g>
      ))}
    </svg>
  );
}

const within = (y: number, height: number): number => Math.max(-BEYOND, Math.min(height + BEYOND, y));
