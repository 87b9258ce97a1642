import { hasGate } from '#core/derive/audience-signs.ts';
import type { MapNode } from '#core/drawing/map-nodes.ts';
import type { NodeSigns } from '#core/drawing/map-picture.ts';
import { passingOf, tintOfBranch } from '../../tree/access-of.ts';
import type { Workbench } from '../../workbench/workbench-context.tsx';

/** How a node of a map stands in the tree of now, for a picture of it. */
export function signsOf(
  { site, derived, moment, open, found }: Pick<Workbench, 'site' | 'derived' | 'moment' | 'open' | 'found'>,
  nodes: readonly MapNode[],
  index: number,
): NodeSigns {
  const { outline, states, hiddenBy, home } = derived;
  const page = nodes[index]!.page;
  const row = page === null ? undefined : outline.rowOf.get(page);
  const node = row === undefined ? undefined : outline.nodes[row]!;
  const above = row === undefined ? -1 : outline.parent[row]!;
  return {
    state: row === undefined ? 'draft' : states[row]!,
    isCovered: row !== undefined && hiddenBy[row] !== -1,
    tint: above === -1 ? -1 : tintOfBranch(passingOf(site, moment), above),
    hasGate: node !== undefined && hasGate(site, node),
    inMenus: row !== undefined && outline.inMenus[row] === 1,
    hidesItself: node !== undefined && node.hidden !== 'no',
    isHome: page !== null && home === page,
    isLink: node?.type === 'link',
    isHeading: node?.type === 'heading',
    closed: row === undefined || found !== null || open.has(page!) ? 0 : outline.end[row]! - row - 1,
  };
}
