import { Trash2 } from 'lucide-react';
import { goalsServed } from '#core/derive/plan-totals.ts';
import type { Goal } from '#core/model/plan.ts';
import { MAX_AUDIENCE_LENGTH, MAX_MEASURE_LENGTH, MAX_STATEMENT_LENGTH } from '#core/operations/goals.ts';
import { newGoalId } from '../../api/site-store.ts';
import { DraftField } from '../../fields/draft-field.tsx';
import { pages } from '../../tree/words.ts';
import { useKept } from '../../fields/use-kept.ts';
import { Button, IconButton } from '../../ui/button.tsx';
import { Dialog } from '../../ui/dialog.tsx';
import { TextField } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

/** The goals of the site: what it is to achieve, for whom, how one will know, and which pages serve that. */
export function GoalsDialog({ onClose }: { readonly onClose: () => void }) {
  const { site, store, derived, mayEdit, setFilter, filter } = useWorkbench();
  const served = goalsServed(site, derived.outline);
  const show = (name: string, value: string) => {
    setFilter({ ...filter, [name]: [value] });
    onClose();
  };
  return (
    <Dialog
      title="Goals of the site"
      description="What the site should achieve, for whom, and how you will know. Each page can serve one or more."
      isOpen
      isWide
      onClose={onClose}
      actions={<Button onClick={onClose}>Close</Button>}
    >
      <fieldset disabled={!mayEdit} className="flex flex-col gap-4 pb-2">
        {site.goals.map((goal) => (
          <OneGoal
            key={goal.id}
            goal={goal}
            count={served.pages.get(goal.id) ?? 0}
            onShow={() => show('goal', goal.id)}
          />
        ))}
        {site.goals.length > 0 && (
          <p className="flex flex-wrap items-center gap-x-3 border-t border-rule pt-3">
            {served.servingNone === 0
              ? 'Every page serves a goal.'
              : `${pages(served.servingNone)} ${served.servingNone === 1 ? 'serves' : 'serve'} no goal.`}
            {served.servingNone > 0 && <Button onClick={() => show('plan', 'no-goal')}>Show them in the tree</Button>}
          </p>
        )}
        {mayEdit && (
          <NewGoal
            isFirst={site.goals.length === 0}
            onAdd={(given) => store.apply([{ name: 'goal.add', goal: newGoalId(), ...given }])}
          />
        )}
      </fieldset>
    </Dialog>
  );
}

function OneGoal({
  goal,
  count,
  onShow,
}: {
  readonly goal: Goal;
  readonly count: number;
  readonly onShow: () => void;
}) {
  const { store } = useWorkbench();
  const set = (fields: Partial<Omit<Goal, 'id'>>) => store.apply([{ name: 'goal.set', goal: goal.id, fields }]);
  return (
    <section aria-label={goal.statement} className="rounded-md border border-rule px-4 py-3">
      <DraftField
        label="Goal"
        saved={goal.statement}
        longest={MAX_STATEMENT_LENGTH}
        onSave={(statement) => statement.trim() !== '' && set({ statement })}
      />
      <div className="mt-2 grid gap-3 sm:grid-cols-2">
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
      </div>
      <div className="mt-2 flex items-center gap-3">
        {count === 0 ? (
          <p className="text-attention">No page serves it yet.</p>
        ) : (
          <button type="button" onClick={onShow} className="text-accent hover:underline">
            {count === 1 ? '1 page serves it' : `${count} pages serve it`}
          </button>
        )}
        <IconButton
          name={`Remove the goal ‘${goal.statement}’`}
          className="ml-auto"
          onClick={() => store.apply([{ name: 'goal.remove', goal: goal.id }])}
        >
          <Trash2 size={16} aria-hidden />
        </IconButton>
      </div>
    </section>
  );
}

function NewGoal({
  isFirst,
  onAdd,
}: {
  readonly isFirst: boolean;
  readonly onAdd: (given: { statement: string; audience: string; measure: string }) => void;
}) {
  const goal = `goal ${useWorkbench().site.key}`;
  const [statement, setStatement] = useKept(goal);
  const [audience, setAudience] = useKept(`${goal} for whom`);
  const [measure, setMeasure] = useKept(`${goal} measure`);
  return (
    <form
      className="flex flex-col gap-3 border-t border-rule pt-4 first:border-0 first:pt-0"
      onSubmit={(event) => {
        event.preventDefault();
        if (statement.trim() === '') return;
        onAdd({ statement, audience, measure });
        setStatement('');
        setAudience('');
        setMeasure('');
      }}
    >
      <TextField
        label={isFirst ? 'The first goal' : 'Another goal'}
        placeholder="People who have never held a plane apply for a course"
        value={statement}
        maxLength={MAX_STATEMENT_LENGTH}
        onChange={(event) => setStatement(event.target.value)}
      />
      <div className="grid gap-3 sm:grid-cols-2">
        <TextField
          label="For whom"
          value={audience}
          maxLength={MAX_AUDIENCE_LENGTH}
          onChange={(event) => setAudience(event.target.value)}
        />
        <TextField
          label="How you will know"
          value={measure}
          maxLength={MAX_MEASURE_LENGTH}
          onChange={(event) => setMeasure(event.target.value)}
        />
      </div>
      <div>
        <Button type="submit" look="main" disabled={statement.trim() === ''}>
          Add the goal
        </Button>
      </div>
    </form>
  );
}
