import { railColor } from './access-of.ts';
import type { RailsData, Stretch } from './rails-data.ts';

/** The width of one level, and the middle of a row, in pixels. */
export const LEVEL = 20;
const MIDDLE = 16;
/** Every row of the sheet is so high, in pixels. */
export const ROW_HEIGHT = 32;
const LEFT = 14;
/** Where the rail of a level runs, from the left of the row's rails. */
export const railX = (level: number): number => LEFT + level * LEVEL;

/** The room that the rails of a row take before its title. */
export const railsWidth = (depth: number): number => railX(depth) + 14;

/** The rails of one row, and its own sign. */
export function Rails({ depth, state, isCovered, hasStop, hasCover, hasGate, tint, stretches }: RailsData) {
  const x = railX(depth);
  const stroke = isCovered || state === 'retired' ? 'var(--edge)' : railColor(tint);
  return (
    <svg width={railsWidth(depth)} height={ROW_HEIGHT} className="shrink-0 overflow-visible" fill="none" aria-hidden>
      {stretches.map((stretch, index) => (
        <Rail key={index} {...stretch} />
      ))}
      {state === 'retired' && (
        <path d={`M${x} ${MIDDLE}h9M${x + 9} ${MIDDLE - 5}v10`} stroke={stroke} strokeWidth="1.5" />
      )}
      {hasStop && state !== 'retired' && (
        <circle cx={x} cy={MIDDLE} r="4.5" fill="var(--raised)" stroke={stroke} strokeWidth="2" />
      )}
      {!hasStop && state !== 'retired' && <path d={`M${x} ${MIDDLE}h7`} stroke={stroke} strokeWidth="1.5" />}
      {hasGate && <path d={`M${x - 5} 4h10M${x - 5} 8h10`} stroke="var(--accent)" strokeWidth="2" />}
      {hasCover && (
        <path
          d={`M${x - 7.5} ${MIDDLE + 1}a7.5 8 0 0 1 15 0`}
          stroke="var(--attention)"
          strokeWidth="2.25"
          strokeLinecap="round"
        />
      )}
    </svg>
  );
}

function pathOf({ way, level }: Stretch): string {
  const x = railX(level);
  switch (way) {
    case 'passes':
      return `M${x} 0V${ROW_HEIGHT}`;
    case 'arrives':
      return `M${x} 0V${MIDDLE}`;
    case 'leaves':
      return `M${x} ${MIDDLE}V${ROW_HEIGHT}`;
    case 'bends':
      return `M${x} ${MIDDLE}c0 12 ${LEVEL} 4 ${LEVEL} ${ROW_HEIGHT - MIDDLE}`;
  }
}

/** Solid: live. Dashed: a draft. Double: live with edits waiting. Thin and grey: retired. */
function Rail(stretch: Stretch) {
  const { state, isCovered, tint } = stretch;
  const d = pathOf(stretch);
  const stroke = isCovered || state === 'retired' ? 'var(--edge)' : railColor(tint);
  if (state === 'draft') return <path d={d} stroke={stroke} strokeWidth="2" strokeDasharray="3.5 3" />;
  if (state === 'retired') return <path d={d} stroke={stroke} strokeWidth="1" />;
  if (state === 'edited') {
    return (
      <>
        <path d={d} stroke={stroke} strokeWidth="5" />
        <path d={d} stroke="var(--raised)" strokeWidth="2" />
      </>
    );
  }
  return <path d={d} stroke={stroke} strokeWidth="2" />;
}
