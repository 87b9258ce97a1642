import { Target } from 'lucide-react';
import { giveGoal } from '#core/arrange/give.ts';
import { goalsServed } from '#core/derive/plan-totals.ts';
import { touchedByGoal } from '#core/derive/touched.ts';
import type { Goal, GoalId } from '#core/model/plan.ts';
import { MAX_AUDIENCE_LENGTH, MAX_MEASURE_LENGTH, MAX_STATEMENT_LENGTH } from '#core/operations/goals.ts';
import { type Edit, newGoalId } from '../../api/site-store.ts';
import { DraftField } from '../../fields/draft-field.tsx';
import type { ListKind } from '../../settings/settings-kind.ts';
import { pages } from '../../tree/words.ts';
import { Button } from '../../ui/button.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

/** The goals of the site: what it is to achieve, for whom, how one will know, and which pages serve that. */
export const GOALS: ListKind = {
  edits: 'plan',
  title: 'Goals of the site',
  one: 'goal',
  Sign: Target,
  description: 'What the site should achieve, for whom, and how you will know. Each page can serve one or more.',
  placeholder: 'People who have never held a plane apply for a course',
  longest: MAX_STATEMENT_LENGTH,
  nameLabel: 'Goal',
  items: ({ goals }) => goals.map(({ id, statement }) => ({ id, name: statement })),
  says: (site, { outline }) => {
    const served = goalsServed(site, outline).pages;
    return (id) => {
      const count = served.get(id as GoalId) ?? 0;
      return count === 0
        ? { says: '', waits: 'No page serves it yet' }
        : { says: count === 1 ? '1 page serves it' : `${pages(count)} serve it` };
    };
  },
  touched: (_, { outline }, id) => touchedByGoal(outline, id as GoalId),
  add: (statement) => {
    const goal = newGoalId();
    return { id: goal, edit: { name: 'goal.add', goal, statement, audience: '', measure: '' } };
  },
  rename: (id, statement) => ({ name: 'goal.set', goal: id as GoalId, fields: { statement } }),
  remove: (id) => ({ name: 'goal.remove', goal: id as GoalId }),
  give: (site, to, id) => giveGoal(site, to, id as GoalId) as Edit[],
  Fields: GoalFields,
  ForAll: ServingNone,
};

function GoalFields({ id }: { readonly id: string }) {
  const { site, store } = useWorkbench();
  const goal = site.goals.find((one) => one.id === id);
  if (!goal) return null;
  const set = (fields: Partial<Omit<Goal, 'id'>>) => store.apply([{ name: 'goal.set', goal: goal.id, fields }]);
  return (
    <>
      <DraftField
        label="For whom"
        saved={goal.audience}
        longest={MAX_AUDIENCE_LENGTH}
        onSave={(audience) => set({ audience })}
      />
      <DraftField
        label="How you will know"
        saved={goal.measure}
        longest={MAX_MEASURE_LENGTH}
        onSave={(measure) => set({ measure })}
      />
    </>
  );
}

function ServingNone() {
  const { site, derived, filter, setFilter } = useWorkbench();
  if (site.goals.length === 0) return null;
  const { servingNone } = goalsServed(site, derived.outline);
  return (
    <p className="flex flex-wrap items-center gap-x-3 gap-y-1">
      {servingNone === 0
        ? 'Every page serves a goal.'
        : `${pages(servingNone)} ${servingNone === 1 ? 'serves' : 'serve'} no goal.`}
      {servingNone > 0 && (
        <Button onClick={() => setFilter({ ...filter, plan: ['no-goal'] })}>Show them in the tree</Button>
      )}
    </p>
  );
}
