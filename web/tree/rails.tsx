import type { Derived } from '#core/derive/derived.ts';
import type { State } from '#core/derive/state.ts';

/** The width of one level, and the middle of a row, in pixels. */
export const LEVEL = 20;
const MIDDLE = 16;
const HEIGHT = 32;
const LEFT = 14;
const xOf = (level: number): number => LEFT + level * LEVEL;

/** The room that the rails of a row take before its title. */
export const railsWidth = (depth: number): number => xOf(depth) + 14;

interface Stretch {
  readonly d: string;
  readonly state: State;
  readonly isCovered: boolean;
}

/** Rails of one row: what passes by, what leads to it, and its own sign. */
export function Rails({
  derived,
  row,
  isOpen,
}: {
  readonly derived: Derived;
  readonly row: number;
  readonly isOpen: boolean;
}) {
  const { outline, states, hiddenBy } = derived;
  const depth = outline.depth[row]!;
  const state = states[row]!;
  const node = outline.nodes[row]!;
  const isCovered = hiddenBy[row] !== -1;
  const x = xOf(depth);
  const stretches: Stretch[] = [];
  const add = (d: string, of: number) => stretches.push({ d, state: states[of]!, isCovered: hiddenBy[of] !== -1 });

  for (let at = outline.parent[row]!, level = depth - 1; at !== -1; at = outline.parent[at]!, level--) {
    const next = nextSibling(derived, at);
    if (next !== -1) add(`M${xOf(level)} 0V${HEIGHT}`, next);
  }
  if (row > 0) add(`M${x} 0V${MIDDLE}`, row);
  const next = nextSibling(derived, row);
  if (next !== -1) add(`M${x} ${MIDDLE}V${HEIGHT}`, next);
  if (isOpen && outline.end[row]! > row + 1)
    add(`M${x} ${MIDDLE}c0 12 ${LEVEL} 4 ${LEVEL} ${HEIGHT - MIDDLE}`, row + 1);

  const stroke = isCovered || state === 'retired' ? 'var(--edge)' : 'var(--ink)';
  return (
    <svg width={railsWidth(depth)} height={HEIGHT} className="shrink-0 overflow-visible" fill="none" aria-hidden>
      {stretches.map((stretch, index) => (
        <Rail key={index} {...stretch} />
      ))}
      {state === 'retired' && (
        <path d={`M${x} ${MIDDLE}h9M${x + 9} ${MIDDLE - 5}v10`} stroke={stroke} strokeWidth="1.5" />
      )}
      {node.inMenus && state !== 'retired' && (
        <circle cx={x} cy={MIDDLE} r="4.5" fill="var(--raised)" stroke={stroke} strokeWidth="2" />
      )}
      {!node.inMenus && state !== 'retired' && <path d={`M${x} ${MIDDLE}h7`} stroke={stroke} strokeWidth="1.5" />}
      {node.hidden !== 'no' && (
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

/** Solid: live. Dashed: a draft. Double: live with edits waiting. Thin and grey: retired. */
function Rail({ d, state, isCovered }: Stretch) {
  const stroke = isCovered || state === 'retired' ? 'var(--edge)' : 'var(--ink)';
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

function nextSibling({ outline }: Derived, row: number): number {
  const next = outline.end[row]!;
  return next < outline.nodes.length && outline.parent[next] === outline.parent[row] ? next : -1;
}
