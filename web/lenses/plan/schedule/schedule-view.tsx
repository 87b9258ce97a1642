import { Download } from 'lucide-react';
import { useMemo, useState } from 'react';
import { type Task, WORDS_A_WEEK, scheduleOf } from '#core/derive/schedule.ts';
import { EXPORTS } from '#contract/exports.ts';
import { dayWords, todayHere } from '../../../tree/plan-words.tsx';
import { pages } from '../../../tree/words.ts';
import { ActionMenu } from '../../../ui/action-menu.tsx';
import { Button } from '../../../ui/button.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { LoadChart } from './load-chart.tsx';
import { TaskList } from './task-list.tsx';
import { numberWords } from '../../../ui/number-words.ts';

export interface ChosenWeek {
  readonly owner: string;
  readonly week: string;
}

/** Who has to write what by when: owners by weeks, what is late, and what the site cannot open without. */
export function ScheduleView() {
  const { site, derived } = useWorkbench();
  const today = todayHere();
  const schedule = useMemo(() => scheduleOf(site, derived, today), [site, derived, today]);
  const [chosen, choose] = useState<ChosenWeek | null>(null);
  const load = chosen && schedule.owners.find(({ name }) => name === chosen.owner)?.weeks.get(chosen.week);
  const tooMuch = schedule.owners.reduce(
    (count, { weeks }) => count + [...weeks.values()].filter(({ isTooMuch }) => isTooMuch).length,
    0,
  );
  if (schedule.tasks.length === 0) return <EmptySchedule />;
  return (
    <div
      data-tree-view
      tabIndex={-1}
      className="flex min-h-0 min-w-0 flex-1 flex-col outline-none max-md:short:block max-md:short:overflow-y-auto"
    >
      <div className="flex min-h-11 flex-wrap items-center gap-x-5 gap-y-1 border-b border-rule bg-paper px-4 py-1.5">
        <p>
          <strong className={schedule.late.length > 0 ? 'text-attention' : ''}>{schedule.late.length} late</strong>
          <span className="text-quiet">
            {' '}
            · {schedule.blocking.length} needed before opening · {schedule.undated} without a due date
          </span>
        </p>
        {tooMuch > 0 && (
          <p className="text-small text-attention">
            {tooMuch === 1 ? 'One week has' : `${tooMuch} weeks have`} more than {numberWords(WORDS_A_WEEK)} words for
            one person
          </p>
        )}
        <div className="ml-auto">
          <ActionMenu
            label="Export the schedule"
            actions={(['schedule.csv', 'schedule.ics'] as const).map((name) => ({
              words: EXPORTS[name].words,
              run: () => window.location.assign(`/api/sites/${site.key}/exports/${name}`),
            }))}
            trigger={
              <Button>
                <Download size={15} aria-hidden /> Export
              </Button>
            }
          />
        </div>
      </div>
      <div className="flex min-h-0 flex-1 max-md:flex-col max-md:short:block">
        <LoadChart schedule={schedule} today={today} chosen={chosen} onChoose={choose} />
        <aside
          aria-label="Pages of the schedule"
          className="w-96 shrink-0 overflow-y-auto border-l border-rule bg-paper p-4 max-md:w-auto max-md:flex-1 max-md:border-t max-md:border-l-0"
        >
          {chosen && load ? (
            <Tasks
              title={`${chosen.owner || 'Nobody yet'}, week of ${dayWords(chosen.week)}`}
              hint={`${pages(load.tasks.length)}, ${numberWords(load.words)} words to write${load.isTooMuch ? ': too many for one week' : ''}.`}
              tasks={load.tasks}
              onBack={() => choose(null)}
            />
          ) : (
            <>
              <Tasks title="Late" hint="Due before today and not ready." tasks={schedule.late} />
              <Tasks
                title="Needed before opening"
                hint="Not ready, and either most important or at the top level."
                tasks={schedule.blocking}
              />
            </>
          )}
        </aside>
      </div>
    </div>
  );
}

function Tasks({
  title,
  hint,
  tasks,
  onBack,
}: {
  readonly title: string;
  readonly hint: string;
  readonly tasks: readonly Task[];
  readonly onBack?: () => void;
}) {
  return (
    <section aria-label={title} className="mb-5">
      <h2 className="font-display text-large font-semibold">{title}</h2>
      <p className="mb-1 text-small text-quiet">{hint}</p>
      {tasks.length === 0 ? <p className="text-quiet">None.</p> : <TaskList tasks={tasks} />}
      {onBack && (
        <Button className="mt-3" onClick={onBack}>
          What is late and what blocks opening
        </Button>
      )}
    </section>
  );
}

function EmptySchedule() {
  return (
    <div className="flex flex-1 flex-col items-center justify-center gap-1 bg-raised p-8 text-center">
      <p className="font-display text-large font-semibold">No page has a due date yet</p>
      <p className="max-w-sm text-quiet">
        Give pages an owner and a due date in the tree to see who has to write how much each week.
      </p>
    </div>
  );
}
