import { useCallback, useMemo, useState } from 'react';
import { outlineOf } from '#core/derive/outline.ts';
import type { Derived } from '#core/derive/derived.ts';
import { type PageId, pageIdSchema } from '#core/model/ids.ts';
import { type Site, ancestorsOf, childrenOf, maybeNodeAt } from '#core/model/site.ts';
import type { Workbench } from './workbench-context.tsx';

/** At first the top level is open where the site is small enough to be seen whole. */
const SMALL = 400;

type Selected = Pick<Workbench, 'selection' | 'select' | 'open' | 'setOpen' | 'openTo' | 'chosen'>;

/**
 * What is selected and which branches are open, shared by every view of the tree. `current` gives the site as it is
 * when something is selected: what was made a moment ago is not drawn yet.
 */
export function useSelection(site: Site, derived: Derived, asked: string | null, current: () => Site): Selected {
  const [kept, setKept] = useState(() => firstSelection(site, asked));
  const [open, setOpenNodes] = useState<ReadonlySet<PageId>>(() => firstOpen(site, kept.active));

  const setOpen = useCallback((page: PageId, isOpen: boolean) => {
    setOpenNodes((before) => {
      if (before.has(page) === isOpen) return before;
      const next = new Set(before);
      if (isOpen) next.add(page);
      else next.delete(page);
      return next;
    });
  }, []);
  const openTo = useCallback(
    (levels: number) => {
      const { nodes, depth, end } = outlineOf(current());
      const next = new Set<PageId>();
      nodes.forEach((node, row) => {
        if (depth[row]! < levels - 1 && end[row]! > row + 1) next.add(node.id);
      });
      setOpenNodes(next);
    },
    [current],
  );
  // What is selected shows: the branches above it are open.
  const select = useCallback(
    (next: Workbench['selection']) => {
      setKept(next);
      const now = current();
      const isThere = next.active !== null && maybeNodeAt(now, next.active) !== undefined;
      const above = isThere ? ancestorsOf(now, next.active!).map(({ id }) => id) : [];
      setOpenNodes((before) => (above.every((id) => before.has(id)) ? before : new Set([...before, ...above])));
    },
    [current],
  );
  // A node that somebody else removed is not selected any more.
  const active = kept.active !== null && maybeNodeAt(site, kept.active) ? kept.active : null;
  const selection = useMemo(() => ({ ...kept, active }), [kept, active]);
  const chosen = useMemo(
    () =>
      [...kept.chosen]
        .filter((id) => derived.outline.rowOf.has(id))
        .sort((a, b) => derived.outline.rowOf.get(a)! - derived.outline.rowOf.get(b)!),
    [kept.chosen, derived],
  );
  return { selection, select, open, setOpen, openTo, chosen };
}

function firstSelection(site: Site, asked: string | null): Workbench['selection'] {
  const parsed = pageIdSchema.safeParse(asked);
  const active = parsed.success && maybeNodeAt(site, parsed.data) ? parsed.data : (childrenOf(site, null)[0] ?? null);
  return { active, chosen: new Set(active === null ? [] : [active]), anchor: active };
}

function firstOpen(site: Site, active: PageId | null): ReadonlySet<PageId> {
  const open = new Set<PageId>();
  if (site.nodes.size <= SMALL) for (const id of childrenOf(site, null)) open.add(id);
  if (active !== null) for (const node of ancestorsOf(site, active)) open.add(node.id);
  return open;
}
