import type { Derived } from '#core/derive/derived.ts';
import type { SiteNode } from '#core/model/node.ts';
import type { State } from '#core/derive/state.ts';

/** One stretch of rail in a row: where it runs, and what it stands for. */
export interface Stretch {
  /** `passes`: from top to bottom; `arrives`: from the top to the row's sign; `leaves`: from there on; `bends`: to the children. */
  readonly way: 'passes' | 'arrives' | 'leaves' | 'bends';
  readonly level: number;
  readonly state: State;
  readonly isCovered: boolean;
}

/** All that the rails of a row show. */
export interface RailsData {
  readonly depth: number;
  readonly state: State;
  readonly isCovered: boolean;
  readonly hasStop: boolean;
  readonly hasCover: boolean;
  /** Whether access narrows here by a rule of its own. */
  readonly hasGate: boolean;
  readonly stretches: readonly Stretch[];
  /** Equal for rails that look the same. */
  readonly signature: string;
}

/** The rails of a row: what passes by, what leads to it, and its own sign. */
export function railsOf(derived: Derived, row: number, isOpen: boolean): RailsData {
  const { outline, states, hiddenBy } = derived;
  const depth = outline.depth[row]!;
  const stretches: Stretch[] = [];
  const add = (way: Stretch['way'], level: number, of: number) =>
    stretches.push({ way, level, state: states[of]!, isCovered: hiddenBy[of] !== -1 });
  for (let at = outline.parent[row]!, level = depth - 1; at !== -1; at = outline.parent[at]!, level--) {
    const next = nextSibling(derived, at);
    if (next !== -1) add('passes', level, next);
  }
  if (row > 0) add('arrives', depth, row);
  const next = nextSibling(derived, row);
  if (next !== -1) add('leaves', depth, next);
  if (isOpen && outline.end[row]! > row + 1) add('bends', depth, row + 1);
  const data = {
    depth,
    state: states[row]!,
    isCovered: hiddenBy[row] !== -1,
    hasStop: outline.inMenus[row] === 1,
    hasCover: outline.hidden[row] !== 0,
    hasGate: narrows(outline.nodes[row]!),
    stretches,
  };
  return { ...data, signature: JSON.stringify(data) };
}

const narrows = ({ access }: SiteNode): boolean =>
  access !== null && (access.only !== null || access.except.length > 0);

function nextSibling({ outline }: Derived, row: number): number {
  const next = outline.end[row]!;
  return next < outline.nodes.length && outline.parent[next] === outline.parent[row] ? next : -1;
}
