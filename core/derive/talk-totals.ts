import type { PageId } from '../model/ids.ts';
import type { FeedbackTotals } from './feedback-totals.ts';
import type { Outline } from './outline.ts';

/** How many comments wait to be settled, row by row of the outline. */
export interface TalkTotals {
  readonly open: Int32Array;
  /** The same with all below. */
  readonly openInBranch: Int32Array;
}

/** Counts what colleagues say, page by page, and with it what guests of the plan say. One pass from the last row up. */
export function talkTotals(
  { parent, rowOf }: Pick<Outline, 'parent' | 'rowOf'>,
  threads: readonly { readonly page: PageId }[],
  guests: Pick<FeedbackTotals, 'open'> | null,
): TalkTotals {
  const open = guests ? guests.open.slice() : new Int32Array(parent.length);
  for (const { page } of threads) {
    const row = rowOf.get(page);
    if (row !== undefined) open[row]!++;
  }
  const openInBranch = open.slice();
  for (let row = parent.length - 1; row >= 0; row--) {
    const above = parent[row]!;
    if (above !== -1) openInBranch[above]! += openInBranch[row]!;
  }
  return { open, openInBranch };
}
