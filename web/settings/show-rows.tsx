import type { ReactNode } from 'react';
import type { PageId } from '#core/model/ids.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';

/** Words about rows of the tree that lead there: the rows are selected, and the first comes into view. */
export function ShowRows({ pages, children }: { readonly pages: readonly PageId[]; readonly children: ReactNode }) {
  const { derived, select } = useWorkbench();
  const { rowOf } = derived.outline;
  const there = pages.filter((page) => rowOf.has(page));
  if (there.length === 0) return <span>{children}</span>;
  return (
    <button
      type="button"
      className="py-[3px] text-left underline decoration-edge decoration-dotted underline-offset-3 hover:text-accent hover:decoration-solid"
      onClick={() => select({ active: there[0]!, chosen: new Set(there), anchor: there[0]! })}
    >
      {children}
    </button>
  );
}
