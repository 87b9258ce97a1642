import { type Feedback, VERDICTS } from '../model/feedback.ts';
import type { Outline } from './outline.ts';

/**
 * How a page stands with those who were asked. `open`: a change that is wanted, a doubt or a comment waits to be
 * settled; `settled`: all of these were; `agreed`: nobody said anything else; `unseen`: nobody has said anything.
 */
export const STANDINGS = ['agreed', 'settled', 'open', 'unseen'] as const;
export type Standing = (typeof STANDINGS)[number];

/** What the feedback comes to, row by row of the outline. */
export interface FeedbackTotals {
  /** How the row's own page stands; null for a heading or a link of which nobody has said anything. */
  readonly standing: readonly (Standing | null)[];
  /** How many have given each verdict on the row's own page, in the order of `VERDICTS`: row × 3 and on. */
  readonly verdicts: Int32Array;
  /** What waits to be settled on the row's own page: verdicts other than `agreed`, and comments. */
  readonly open: Int32Array;
  /** The same with all below. */
  readonly openInBranch: Int32Array;
  /** How many pages of the branch stand how, in the order of `STANDINGS`: row × 4 and on. */
  readonly pages: Int32Array;
}

/** Counts the feedback; what was said of pages that do not stand in the tree is left out. One pass from the last row up. */
export function feedbackTotals(
  { parent, rowOf, isPage }: Pick<Outline, 'parent' | 'rowOf' | 'isPage'>,
  { verdicts, comments }: Feedback,
): FeedbackTotals {
  const count = parent.length;
  const given = new Int32Array(count * VERDICTS.length);
  const open = new Int32Array(count);
  const said = new Int32Array(count);
  const settled = new Int32Array(count);
  for (const { page, verdict, isSettled } of verdicts) {
    const row = rowOf.get(page);
    if (row === undefined) continue;
    given[row * VERDICTS.length + VERDICTS.indexOf(verdict)]!++;
    said[row]!++;
    if (verdict === 'agreed') continue;
    if (isSettled) settled[row]!++;
    else open[row]!++;
  }
  for (const { page, isSettled } of comments) {
    const row = page === null ? undefined : rowOf.get(page);
    if (row === undefined) continue;
    said[row]!++;
    if (isSettled) settled[row]!++;
    else open[row]!++;
  }
  const standing = Array.from(isPage, (one, row): Standing | null => {
    if (open[row]! > 0) return 'open';
    if (settled[row]! > 0) return 'settled';
    if (said[row]! > 0) return 'agreed';
    return one === 1 ? 'unseen' : null;
  });
  const openInBranch = open.slice();
  const pages = new Int32Array(count * STANDINGS.length);
  for (let row = count - 1; row >= 0; row--) {
    const own = standing[row];
    if (own) pages[row * STANDINGS.length + STANDINGS.indexOf(own)]!++;
    const above = parent[row]!;
    if (above === -1) continue;
    openInBranch[above]! += openInBranch[row]!;
    for (let at = 0; at < STANDINGS.length; at++)
      pages[above * STANDINGS.length + at]! += pages[row * STANDINGS.length + at]!;
  }
  return { standing, verdicts: given, open, openInBranch, pages };
}
