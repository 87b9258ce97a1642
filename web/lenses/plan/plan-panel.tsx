import type { PageId } from '#core/model/ids.ts';
import {
  IMPORTANCE,
  MAX_OWNER_LENGTH,
  MAX_PURPOSE_LENGTH,
  ORIGINS,
  type Origin,
  type PlanChange,
  READINESS,
  type Readiness,
  planOf,
} from '#core/model/plan.ts';
import { nodeAt } from '#core/model/site.ts';
import { DraftField } from '../../fields/draft-field.tsx';
import { JointRichText } from '../../joint/joint-rich-text.tsx';
import { IMPORTANCE_WORDS, ORIGIN_MEANING, ORIGIN_WORDS, READINESS_WORDS } from '../../tree/plan-words.tsx';
import { DayField } from '../../fields/day-field.tsx';
import { Choice } from '../../ui/field.tsx';
import { WhyNot } from '../../workbench/allowing.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { PageHead } from '../page-head.tsx';
import { BranchTotals } from './branch-totals.tsx';
import { GoalsServed } from './goals-served.tsx';
import { OldAddresses } from './old-addresses.tsx';
import { OwnerField } from './owner-field.tsx';
import { QuestionList } from './question-list.tsx';
import { References } from './references.tsx';
import { PageSketch } from './sketches/page-sketch.tsx';

/** The Plan lens: what the page is for, where it comes from, who writes it by when, and what is still asked. */
export function PlanPanel({ page }: { readonly page: PageId | null }) {
  const { mayEdit } = useWorkbench();
  if (page === null) return <p className="text-quiet">Select a page in the tree to see what is planned for it.</p>;
  return (
    <fieldset disabled={!mayEdit} className="contents">
      <PagePlanFields key={page} page={page} />
    </fieldset>
  );
}

function PagePlanFields({ page }: { readonly page: PageId }) {
  const { site, store, may, mayEdit } = useWorkbench();
  const node = nodeAt(site, page);
  const plan = planOf(node);
  const set = (change: PlanChange) => store.apply([{ name: 'page.set', page, fields: { plan: change } }]);
  const isPage = node.type === 'page';
  return (
    <div className="flex flex-col gap-4">
      <PageHead page={page} />
      <BranchTotals page={page} />
      <DraftField
        label="Purpose"
        isLong
        saved={plan.purpose}
        longest={MAX_PURPOSE_LENGTH}
        hint="Who comes here, and what they can do afterwards."
        onSave={(purpose) => set({ purpose })}
      />
      {isPage && <GoalsServed plan={plan} onSet={set} />}
      {isPage && (
        <Choice
          label="Origin"
          value={plan.origin ?? ''}
          hint={
            plan.origin === null ? 'Not yet decided whether it comes from the old site.' : ORIGIN_MEANING[plan.origin]
          }
          onChange={(event) => set({ origin: event.target.value === '' ? null : (event.target.value as Origin) })}
        >
          <option value="">Not set</option>
          {ORIGINS.map((origin) => (
            <option key={origin} value={origin}>
              {ORIGIN_WORDS[origin]}
            </option>
          ))}
        </Choice>
      )}
      {isPage && <OldAddresses plan={plan} onSet={set} />}
      <h3 className="-mb-2 border-t border-rule pt-4 font-display text-large font-semibold">Writing</h3>
      <div className="grid grid-cols-2 gap-3">
        <OwnerField saved={plan.owner} longest={MAX_OWNER_LENGTH} onSave={(owner) => set({ owner })} />
        <DayField label="Due" value={plan.due ?? ''} onSet={(day) => set({ due: day === '' ? null : day })} />
        {isPage && (
          <Choice
            label="Readiness"
            value={plan.readiness}
            onChange={(event) => set({ readiness: event.target.value as Readiness })}
          >
            {READINESS.map((readiness) => (
              <option key={readiness} value={readiness}>
                {READINESS_WORDS[readiness]}
              </option>
            ))}
          </Choice>
        )}
        <WordsField saved={plan.words} onSave={(words) => set({ words })} />
      </div>
      {isPage && (
        <Choice
          label="Importance"
          hint="How quickly visitors must find it."
          value={plan.importance ?? ''}
          onChange={(event) =>
            set({ importance: IMPORTANCE.find((one) => String(one) === event.target.value) ?? null })
          }
        >
          <option value="">Not set</option>
          {IMPORTANCE.map((importance) => (
            <option key={importance} value={importance}>
              {IMPORTANCE_WORDS[importance]}
            </option>
          ))}
        </Choice>
      )}
      {isPage && <PageSketch page={page} onSet={set} />}
      <QuestionList page={page} />
      <section className="flex flex-col gap-2 border-t border-rule pt-4">
        <h3 className="font-display text-large font-semibold">Notes</h3>
        {plan.notes === null || may('read', page) ? (
          <JointRichText
            key={page}
            site={site.key}
            store={store}
            place={{ of: 'notes', id: page }}
            content={plan.notes}
            name="Notes"
            mayEdit={mayEdit}
            isShort
          />
        ) : (
          <WhyNot permission="read" at={page} />
        )}
      </section>
      <References page={page} />
    </div>
  );
}

function WordsField({
  saved,
  onSave,
}: {
  readonly saved: number | null;
  readonly onSave: (words: number | null) => void;
}) {
  return (
    <DraftField
      label="Words expected"
      saved={saved === null ? '' : String(saved)}
      longest={7}
      onSave={(text) => {
        const digits = text.replace(/[^0-9]/g, '');
        onSave(digits === '' ? null : Math.min(Number(digits), 1_000_000));
      }}
    />
  );
}
