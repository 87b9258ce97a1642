import { type Aspect, nodeDifferences } from '../model/node.ts';
import type { PageId } from '../model/ids.ts';
import { type Site, branchOf, maybeNodeAt } from '../model/site.ts';

/** How a node of one tree stands to the same node of a later one. */
export type TreeMark = 'gone since' | 'moved since' | 'renamed since' | 'changed since';

export interface TreeComparison {
  /** The marks of nodes that stand in the earlier tree. */
  readonly earlier: ReadonlyMap<PageId, TreeMark>;
  /** The nodes that stand in the later tree only, in its order. */
  readonly added: readonly PageId[];
}

/** What has become of the nodes of an earlier tree in a later one; nodes that are as they were have no mark. */
export function compareTrees(earlier: Site, later: Site): TreeComparison {
  const marks = new Map<PageId, TreeMark>();
  for (const id of branchOf(earlier, null)) {
    const then = earlier.nodes.get(id)!;
    const now = maybeNodeAt(later, id);
    if (now === then) continue;
    if (!now) marks.set(id, 'gone since');
    else {
      const mark = strongest(nodeDifferences(then, now));
      if (mark) marks.set(id, mark);
    }
  }
  return { earlier: marks, added: branchOf(later, null).filter((id) => !maybeNodeAt(earlier, id)) };
}

function strongest(differences: readonly Aspect[]): TreeMark | null {
  if (differences.includes('place') || differences.includes('order')) return 'moved since';
  if (differences.includes('title')) return 'renamed since';
  return differences.length > 0 ? 'changed since' : null;
}
