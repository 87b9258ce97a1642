import { planTotalsOf } from '#core/derive/plan-totals.ts';
import type { PageId } from '#core/model/ids.ts';
import { READINESS } from '#core/model/plan.ts';
import { READINESS_WORDS, dayWords, todayHere } from '../../tree/plan-words.tsx';
import { ReadinessBar } from '../../tree/readiness-bar.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { numberWords } from '../../ui/number-words.ts';

/** What the plans of a branch come to; nothing for a page without any below. */
export function BranchTotals({ page }: { readonly page: PageId }) {
  const { derived, sketched } = useWorkbench();
  const { outline } = derived;
  const row = outline.rowOf.get(page)!;
  if (outline.end[row] === row + 1) return null;
  const totals = planTotalsOf(outline);
  const counts = READINESS.map((_, at) => totals.readiness[row * READINESS.length + at]!);
  const due = totals.due[row]!;
  const questions = totals.questions[row]!;
  const words = totals.words[row]!;
  return (
    <section aria-label="The branch" className="rounded-md bg-sunken px-3 py-2.5 text-small">
      <div className="flex items-center gap-3">
        <span className="font-medium whitespace-nowrap">
          Branch: {counts[READINESS.length - 1]} of {totals.pages[row]} pages ready
        </span>
        <ReadinessBar counts={counts} width={110} />
      </div>
      <p className="mt-1 text-quiet">
        {READINESS.slice(0, -1)
          .map((readiness, at) => `${counts[at]} ${READINESS_WORDS[readiness].toLowerCase()}`)
          .join(' · ')}
      </p>
      <p className="mt-0.5 text-quiet">
        {due === null
          ? 'No due date'
          : due < todayHere()
            ? `Late since ${dayWords(due)}`
            : `First due ${dayWords(due)}`}
        {` · ${questions === 0 ? 'no open questions' : questions === 1 ? '1 open question' : `${questions} open questions`}`}
        {words > 0 && ` · ${numberWords(words)} words expected`}
      </p>
      {sketched !== null && sketched.sketched[row]! > 0 && (
        <p className="mt-0.5 text-quiet">
          {sketched.writtenInBranch[row]} of {sketched.plannedInBranch[row]} planned sections written
          {sketched.open[row]! > 0 &&
            ` · ${sketched.open[row] === 1 ? '1 sketch waits' : `${sketched.open[row]} sketches wait`} for a choice`}
        </p>
      )}
    </section>
  );
}
