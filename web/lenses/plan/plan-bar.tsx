import { ArrowDownUp, ArrowRightLeft, CalendarRange, ListTree, MessagesSquare, Target } from 'lucide-react';
import { planTotalsOf } from '#core/derive/plan-totals.ts';
import { READINESS } from '#core/model/plan.ts';
import { EXPORTS } from '#contract/exports.ts';
import { dayWords, todayHere } from '../../tree/plan-words.tsx';
import { ReadinessBar } from '../../tree/readiness-bar.tsx';
import { ActionMenu } from '../../ui/action-menu.tsx';
import { Button } from '../../ui/button.tsx';
import { isTreeView } from '../../workbench/lenses.ts';
import { useArrangement } from '../../workbench/use-view.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

const PARTS = [
  { part: null, words: 'Tree', Sign: ListTree },
  { part: 'schedule', words: 'Schedule', Sign: CalendarRange },
  { part: 'carry-over', words: 'Carry-over', Sign: ArrowRightLeft },
] as const;

const TAKEN = ['site.csv', 'site.opml', 'site.md', 'sitemap.xml', 'site.json'] as const;

/** What the whole plan comes to, and the ways to its other parts; it stands above the tree in the Plan lens. */
export function PlanBar() {
  const { site, derived, mayEdit, view, setView, setDialog } = useWorkbench();
  const [{ view: tree }] = useArrangement();
  const { outline } = derived;
  const totals = planTotalsOf(outline);
  const counts = READINESS.map(() => 0);
  let due: string | null = null;
  let pages = 0;
  for (let row = 0; row < outline.nodes.length; row = outline.end[row]!) {
    pages += totals.pages[row]!;
    counts.forEach((count, at) => (counts[at] = count + totals.readiness[row * READINESS.length + at]!));
    const first = totals.due[row]!;
    if (first !== null && (due === null || first < due)) due = first;
  }
  return (
    <div className="flex min-h-9 flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule bg-paper px-4 py-1 text-small max-md:px-2">
      <p className="flex items-center gap-2 max-md:hidden">
        <ReadinessBar counts={counts} width={64} />
        <span>
          {counts[READINESS.length - 1]} of {pages} ready
        </span>
      </p>
      {due !== null && (
        <p className={`max-md:hidden ${due < todayHere() ? 'font-medium text-attention' : 'text-quiet'}`}>
          {due < todayHere() ? `Late since ${dayWords(due)}` : `First due ${dayWords(due)}`}
        </p>
      )}
      <div className="ml-auto flex flex-wrap items-center gap-0.5">
        {PARTS.map(({ part, words, Sign }) => {
          const isOn = part === null ? isTreeView(view) : view === part;
          return (
            <Button
              key={words}
              look={isOn ? 'chosen' : 'quiet'}
              isTight
              aria-pressed={isOn}
              onClick={() => setView(part ?? tree)}
            >
              <Sign size={15} aria-hidden /> <span className="max-md:sr-only">{words}</span>
            </Button>
          );
        })}
        <Button look="quiet" isTight onClick={() => setDialog('goals')}>
          <Target size={15} aria-hidden /> Goals{site.goals.length > 0 && ` (${site.goals.length})`}
        </Button>
        {mayEdit && (
          <Button look="quiet" isTight onClick={() => setDialog('share')} title="Share the plan for comment">
            <MessagesSquare size={15} aria-hidden /> <span className="max-md:sr-only">Share</span>
          </Button>
        )}
        <ActionMenu
          label="Import and export"
          actions={[
            ...(mayEdit
              ? [
                  { words: 'Begin from a starter…', run: () => setDialog('starters') },
                  { words: 'Import pages…', run: () => setDialog('import') },
                  null,
                ]
              : []),
            ...TAKEN.map((name) => ({
              words: EXPORTS[name].words,
              run: () => window.location.assign(`/api/sites/${site.key}/exports/${name}`),
            })),
            ...(mayEdit
              ? [
                  {
                    words: 'The whole site with its history (JSON)',
                    run: () => window.location.assign(`/api/sites/${site.key}/archive`),
                  },
                ]
              : []),
          ]}
          trigger={
            <Button look="quiet" isTight>
              <ArrowDownUp size={15} aria-hidden /> <span className="max-md:sr-only">Import and export</span>
            </Button>
          }
        />
      </div>
    </div>
  );
}
