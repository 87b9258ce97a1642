import type { PageId } from '../model/ids.ts';
import { type Aspect, type SiteNode, isNodeDifferent, nodeDifferences } from '../model/node.ts';
import type { LiveNode, Site } from '../model/site.ts';

/** Never been live; live as drafted; live with edits waiting; was live and taken down. */
export const STATES = ['draft', 'live', 'edited', 'retired'] as const;
export type State = (typeof STATES)[number];

/** The state of a node that stands in the tree, beside what visitors have of it. */
export function stateOf(entry: LiveNode | undefined, node: SiteNode): State {
  if (!entry) return 'draft';
  if (entry.retired) return 'retired';
  return isNodeDifferent(node, entry.node) ? 'edited' : 'live';
}

/** What differs between a node and what visitors have of it. */
export type Difference = 'new' | 'removed' | Aspect;

/** The differences that a release of this node would settle; none for a node that is retired and still is to be. */
export function differencesOf(site: Site, id: PageId): Difference[] {
  const node = site.nodes.get(id);
  const entry = site.live.get(id);
  if (!node || node.removedWith !== null) return entry && !entry.retired ? ['removed'] : [];
  if (!entry) return ['new'];
  if (entry.retired) return [];
  return nodeDifferences(node, entry.node);
}
