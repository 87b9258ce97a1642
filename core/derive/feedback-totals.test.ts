import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { type Feedback, VERDICTS } from '../model/feedback.ts';
import { branchOf } from '../model/site.ts';
import { IDS, anySite } from '../testing/random-site.ts';
import { STANDINGS, type Standing, feedbackTotals } from './feedback-totals.ts';
import { outlineOf } from './outline.ts';

const anyFeedback: fc.Arbitrary<Feedback> = fc.record({
  verdicts: fc.array(
    fc.record({
      page: fc.constantFrom(...IDS),
      verdict: fc.constantFrom(...VERDICTS),
      isSettled: fc.boolean(),
    }),
    { maxLength: 12 },
  ),
  comments: fc.array(fc.record({ page: fc.constantFrom(...IDS), isSettled: fc.boolean() }), { maxLength: 6 }),
});

/** Said plainly: how a page stands, by looking at all that was said of it. */
function standsSo({ verdicts, comments }: Feedback, page: string): Standing {
  const other = [...verdicts.filter(({ verdict }) => verdict !== 'agreed'), ...comments].filter(
    (one) => one.page === page,
  );
  if (other.some((one) => !one.isSettled)) return 'open';
  if (other.length > 0) return 'settled';
  return verdicts.some((one) => one.page === page) ? 'agreed' : 'unseen';
}

describe('what the feedback comes to', () => {
  it('is for each branch what its pages come to one by one', () =>
    holds(
      fc.property(anySite, anyFeedback, (site, feedback) => {
        const outline = outlineOf(site);
        const totals = feedbackTotals(outline, feedback);
        outline.nodes.forEach((node, row) => {
          const below = branchOf(site, node.id);
          const stand = below
            .map((id) => ({ id, standing: standsSo(feedback, id) }))
            .filter(({ id, standing }) => site.nodes.get(id)!.type === 'page' || standing !== 'unseen');
          const counts = STANDINGS.map((one) => stand.filter(({ standing }) => standing === one).length);
          expect([...totals.pages.subarray(row * 4, row * 4 + 4)]).toEqual(counts);
          const waits = ({ page, isSettled }: { page: string | null; isSettled: boolean }) =>
            !isSettled && below.some((id) => id === page);
          expect(totals.openInBranch[row]).toBe(
            feedback.verdicts.filter((one) => one.verdict !== 'agreed' && waits(one)).length +
              feedback.comments.filter(waits).length,
          );
        });
      }),
    ));

  it('counts each verdict on the page that it is about', () =>
    holds(
      fc.property(anySite, anyFeedback, (site, feedback) => {
        const outline = outlineOf(site);
        const { verdicts } = feedbackTotals(outline, feedback);
        outline.nodes.forEach(({ id }, row) =>
          VERDICTS.forEach((verdict, at) =>
            expect(verdicts[row * VERDICTS.length + at]).toBe(
              feedback.verdicts.filter((one) => one.page === id && one.verdict === verdict).length,
            ),
          ),
        );
      }),
    ));
});
