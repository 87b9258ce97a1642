import type { Workbench } from '../workbench/workbench-context.tsx';

/** Selects the next row of the tree that is marked, from the selected one on; after the last one the first. */
export function selectNextMarked({ marks, derived, selection, select }: Omit<Workbench, 'run'>): void {
  const { nodes, rowOf } = derived.outline;
  if (marks === null || marks.words.size === 0) return;
  // What stands back is passed over, unless all does.
  const ofNote = [...marks.words.keys()].some((page) => !marks.isFaint?.(page));
  const from = selection.active === null ? -1 : (rowOf.get(selection.active) ?? -1);
  for (let step = 1; step <= nodes.length; step++) {
    const { id } = nodes[(from + step) % nodes.length]!;
    if (!marks.words.has(id) || (ofNote && marks.isFaint?.(id))) continue;
    select({ active: id, chosen: new Set([id]), anchor: id });
    return;
  }
}
