import type { PagePlan, PlanChange } from '#core/model/plan.ts';
import { Button } from '../../ui/button.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

/** The goals of the site, each with whether the page serves it. */
export function GoalsServed({
  plan,
  onSet,
}: {
  readonly plan: PagePlan;
  readonly onSet: (change: PlanChange) => void;
}) {
  const { site, setBeside } = useWorkbench();
  return (
    <fieldset className="flex flex-col gap-1.5">
      <legend className="mb-1 text-small font-medium">Goals it serves</legend>
      {site.goals.map((goal) => (
        <label key={goal.id} className="flex items-start gap-2">
          <input
            type="checkbox"
            className="mt-0.5 size-4 shrink-0 accent-accent"
            checked={plan.goals.includes(goal.id)}
            onChange={(event) =>
              onSet({
                goals: event.target.checked ? [...plan.goals, goal.id] : plan.goals.filter((one) => one !== goal.id),
              })
            }
          />
          <span>
            {goal.statement}
            {goal.audience !== '' && <span className="text-quiet"> – {goal.audience}</span>}
          </span>
        </label>
      ))}
      {site.goals.length === 0 && (
        <p className="text-small text-quiet">The site has no goals yet. Add some to see which pages serve which.</p>
      )}
      <div>
        <Button
          look="quiet"
          isTight
          className="-ml-2 text-accent"
          onClick={() => setBeside({ kind: 'goals', id: null })}
        >
          {site.goals.length === 0 ? 'Add the first goal…' : 'Goals of the site…'}
        </Button>
      </div>
    </fieldset>
  );
}
