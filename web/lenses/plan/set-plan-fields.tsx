import { useId } from 'react';
import {
  IMPORTANCE,
  MAX_OWNER_LENGTH,
  ORIGINS,
  type Origin,
  type PlanChange,
  READINESS,
  type Readiness,
} from '#core/model/plan.ts';
import { IMPORTANCE_WORDS, ORIGIN_WORDS, READINESS_WORDS } from '../../tree/plan-words.tsx';
import { ownersOf } from './plan-columns.tsx';
import { DayField } from '../../fields/day-field.tsx';
import { Choice, TextField, Tick } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

const LEFT = 'left';
const NONE = 'none';

/** The fields of the plan, for several pages at once: what is not in the change stays as each page has it. */
export function SetPlanFields({
  change,
  onChange,
}: {
  readonly change: PlanChange;
  readonly onChange: (change: PlanChange) => void;
}) {
  const { site } = useWorkbench();
  const list = useId();
  const set = <Field extends keyof PlanChange>(field: Field, value: PlanChange[Field] | undefined) => {
    const others = Object.fromEntries(Object.entries(change).filter(([name]) => name !== field));
    onChange(value === undefined ? others : { ...others, [field]: value });
  };
  return (
    <>
      <Choice
        label="Origin"
        value={change.origin === undefined ? LEFT : (change.origin ?? NONE)}
        onChange={({ target: { value } }) =>
          set('origin', value === LEFT ? undefined : value === NONE ? null : (value as Origin))
        }
      >
        <option value={LEFT}>Leave as it is</option>
        {ORIGINS.map((origin) => (
          <option key={origin} value={origin}>
            {ORIGIN_WORDS[origin]}
          </option>
        ))}
        <option value={NONE}>Not set</option>
      </Choice>
      <Choice
        label="Readiness"
        value={change.readiness ?? LEFT}
        onChange={({ target: { value } }) => set('readiness', value === LEFT ? undefined : (value as Readiness))}
      >
        <option value={LEFT}>Leave as it is</option>
        {READINESS.map((readiness) => (
          <option key={readiness} value={readiness}>
            {READINESS_WORDS[readiness]}
          </option>
        ))}
      </Choice>
      <Choice
        label="Importance"
        value={change.importance === undefined ? LEFT : String(change.importance ?? NONE)}
        onChange={({ target: { value } }) =>
          set('importance', value === LEFT ? undefined : (IMPORTANCE.find((one) => String(one) === value) ?? null))
        }
      >
        <option value={LEFT}>Leave as it is</option>
        {IMPORTANCE.map((importance) => (
          <option key={importance} value={importance}>
            {IMPORTANCE_WORDS[importance]}
          </option>
        ))}
        <option value={NONE}>Not set</option>
      </Choice>
      <div>
        <Tick
          label="Give all the same owner"
          checked={change.owner !== undefined}
          onChange={(event) => set('owner', event.target.checked ? '' : undefined)}
        />
        {change.owner !== undefined && (
          <TextField
            label="Owner"
            list={list}
            maxLength={MAX_OWNER_LENGTH}
            value={change.owner}
            hint="Empty: nobody."
            onChange={(event) => set('owner', event.target.value)}
          />
        )}
        <datalist id={list}>
          {ownersOf(site).map((owner) => (
            <option key={owner} value={owner} />
          ))}
        </datalist>
      </div>
      <div>
        <Tick
          label="Give all the same due date"
          checked={change.due !== undefined}
          onChange={(event) => set('due', event.target.checked ? null : undefined)}
        />
        {change.due !== undefined && (
          <DayField
            label="Due"
            value={change.due ?? ''}
            hint="Empty: none."
            onSet={(day) => set('due', day === '' ? null : day)}
          />
        )}
      </div>
      <div>
        <Tick
          label="Expected words for each"
          checked={change.words !== undefined}
          onChange={(event) => set('words', event.target.checked ? null : undefined)}
        />
        {change.words !== undefined && (
          <TextField
            label="Words expected"
            type="number"
            min={0}
            max={1_000_000}
            value={change.words ?? ''}
            onChange={(event) =>
              set('words', event.target.value === '' ? null : Math.max(0, Math.round(Number(event.target.value))))
            }
          />
        )}
      </div>
      {site.goals.length > 0 && (
        <Choice
          label="Goal"
          hint="Replaces the goals they serve."
          value={change.goals === undefined ? LEFT : (change.goals[0] ?? NONE)}
          onChange={({ target: { value } }) =>
            set(
              'goals',
              value === LEFT ? undefined : site.goals.filter((goal) => goal.id === value).map((goal) => goal.id),
            )
          }
        >
          <option value={LEFT}>Leave as it is</option>
          {site.goals.map((goal) => (
            <option key={goal.id} value={goal.id}>
              {goal.statement}
            </option>
          ))}
          <option value={NONE}>None</option>
        </Choice>
      )}
    </>
  );
}
