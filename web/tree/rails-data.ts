import type { Derived } from '#core/derive/derived.ts';
import { type AudienceSign, hasGate } from '#core/derive/audience-signs.ts';
import type { State } from '#core/derive/state.ts';
import type { Workbench } from '../workbench/workbench-context.tsx';
import { passingOf, tintOfBranch } from './access-of.ts';

/** One stretch of rail in a row: where it runs, and what it stands for. */
export interface Stretch {
  /** `passes`: from top to bottom; `arrives`: from the top to the row's sign; `leaves`: from there on; `bends`: to the children. */
  readonly way: 'passes' | 'arrives' | 'leaves' | 'bends';
  readonly level: number;
  readonly state: State;
  readonly isCovered: boolean;
  /** The tint of the audience that passes; -1 where everyone does, or nobody. */
  readonly tint: number;
}

/** All that the rails of a row show. */
export interface RailsData {
  readonly depth: number;
  readonly state: State;
  readonly isCovered: boolean;
  readonly hasStop: boolean;
  readonly hasCover: boolean;
  readonly tint: number;
  /** Whether access narrows here by a rule of its own. */
  readonly hasGate: boolean;
  /** Who passes the gate: letters, names and the tint of each audience; empty where everyone does, or nobody. */
  readonly passing: readonly AudienceSign[];
  readonly stretches: readonly Stretch[];
  /** Equal for rails that look the same. */
  readonly signature: string;
}

/** The site that is looked at, and when. */
type Seen = Pick<Workbench, 'site' | 'derived' | 'moment'>;

/** The rails of a row: what passes by, what leads to it, and its own sign. */
export function railsOf({ site, derived, moment }: Seen, row: number, isOpen: boolean): RailsData {
  const { outline, states, hiddenBy } = derived;
  const passing = passingOf(site, moment);
  const tintOf = (of: number) => (of === -1 ? -1 : tintOfBranch(passing, of));
  const depth = outline.depth[row]!;
  const stretches: Stretch[] = [];
  // A rail is of the branch that it runs in: it takes a tint below the gate, not on the way to it.
  const add = (way: Stretch['way'], level: number, of: number) =>
    stretches.push({
      way,
      level,
      state: states[of]!,
      isCovered: hiddenBy[of] !== -1,
      tint: tintOf(outline.parent[of]!),
    });
  for (let at = outline.parent[row]!, level = depth - 1; at !== -1; at = outline.parent[at]!, level--) {
    const next = nextSibling(derived, at);
    if (next !== -1) add('passes', level, next);
  }
  if (row > 0) add('arrives', depth, row);
  const next = nextSibling(derived, row);
  if (next !== -1) add('leaves', depth, next);
  if (isOpen && outline.end[row]! > row + 1) add('bends', depth, row + 1);
  const isGate = hasGate(site, outline.nodes[row]!);
  const data = {
    depth,
    state: states[row]!,
    isCovered: hiddenBy[row] !== -1,
    hasStop: outline.inMenus[row] === 1,
    hasCover: outline.hidden[row] !== 0,
    tint: tintOf(row),
    hasGate: isGate,
    passing: isGate ? (passing(row) ?? []) : [],
    stretches,
  };
  return { ...data, signature: JSON.stringify(data) };
}

function nextSibling({ outline }: Derived, row: number): number {
  const next = outline.end[row]!;
  return next < outline.nodes.length && outline.parent[next] === outline.parent[row] ? next : -1;
}
