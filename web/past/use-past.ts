import { useMemo } from 'react';
import { compareTrees } from '#core/changes/compare-trees.ts';
import type { SiteKey } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { useTreeAt } from '../api/sites.ts';
import type { Past } from '../workbench/workbench-context.tsx';

/** The tree as it was at a revision, compared with how it is now; null for now, and until the first one is here. */
export function usePast(key: SiteKey, now: Site, revision: number | null): Past | null {
  const tree = useTreeAt(key, revision);
  return useMemo(
    () => (revision === null || !tree ? null : { ...tree, comparison: compareTrees(tree.site, now) }),
    [revision, tree, now],
  );
}
