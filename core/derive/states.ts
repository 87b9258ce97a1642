import type { Site } from '../model/site.ts';
import { knownBefore } from '../model/steps.ts';
import { type Outline, outlineOf } from './outline.ts';
import { carriedValues } from './row-runs.ts';
import { type State, stateOf } from './state.ts';

interface Known {
  readonly outline: Outline;
  readonly states: readonly State[];
}
const known = new WeakMap<Site, Known>();
/** So many edits back states are looked for that can be gone on from. */
const MAX_STEPS = 64;

/** How each node stands to what visitors have of it, row by row of the outline. After an edit those of the nodes that it touched are worked out. */
export function statesOf(site: Site): readonly State[] {
  const here = known.get(site);
  if (here) return here.states;
  const outline = outlineOf(site);
  const states = fromBefore(site, outline) ?? statesAnew(site, outline);
  known.set(site, { outline, states });
  return states;
}

export const statesAnew = ({ live }: Site, { nodes }: Outline): State[] =>
  nodes.map((node) => stateOf(live.get(node.id), node));

function fromBefore(site: Site, { nodes, rowOf }: Outline): State[] | null {
  const found = knownBefore(site, (before) => known.get(before), { mostSteps: MAX_STEPS });
  if (!found) return null;
  const { touched, known: before } = found;
  const runs = rowOf.runsFrom(before.outline.rowOf);
  if (runs === null) return null;
  const states = carriedValues(before.states, runs, nodes.length);
  for (const id of touched) {
    const row = rowOf.get(id);
    if (row !== undefined) states[row] = stateOf(site.live.get(id), nodes[row]!);
  }
  return states;
}
