import { ArrowDownToDot } from 'lucide-react';
import type { ReactNode } from 'react';
import { Button } from '../ui/button.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { selectNextMarked } from './next-marked.ts';

/** What is marked in the tree, in words, and the ways to it. */
export function MarkedRows({ count, children }: { readonly count: number; readonly children: ReactNode }) {
  const { isOnlyMarked, setOnlyMarked, latest } = useWorkbench();
  return (
    <section aria-label="In the tree" className="rounded-md border border-rule bg-raised px-3 py-2">
      <p role="status">{children}</p>
      {(count > 0 || isOnlyMarked) && (
        <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1">
          <Button
            isTight
            disabled={count === 0}
            onClick={() => selectNextMarked(latest())}
            title="The next marked row (G in the tree)"
          >
            <ArrowDownToDot size={15} aria-hidden /> Next one
          </Button>
          <label className="inline-flex items-center gap-1.5">
            <input
              type="checkbox"
              className="size-4 accent-accent"
              checked={isOnlyMarked}
              onChange={(event) => setOnlyMarked(event.target.checked)}
            />
            Only these
          </label>
        </div>
      )}
    </section>
  );
}
