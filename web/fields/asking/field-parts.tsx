import { type ReactNode, useState } from 'react';
import { FIELD_TYPE } from '#core/fields/all-types.ts';
import { choicesNamed } from '#core/fields/type-change.ts';
import type { LabelId } from '#core/model/access.ts';
import { type KindField, MAX_CHOICES, MAX_CHOICE_NAME_LENGTH } from '#core/model/kind-field.ts';
import { newFieldId } from '../../api/site-store.ts';
import { Choice, TextField, Tick } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { DraftField } from '../draft-field.tsx';
import { KindOptions } from '../kind-choice.tsx';

/** Three letters of a currency, as ISO 4217 has them. */
function CurrencyField({ saved, onSet }: { readonly saved: string; readonly onSet: (currency: string) => void }) {
  const [fault, setFault] = useState<string | undefined>(undefined);
  const [typed, setTyped] = useState<string | null>(null);
  const take = () => {
    const currency = (typed ?? saved).trim().toUpperCase();
    const isOne = /^[A-Z]{3}$/.test(currency);
    setFault(isOne ? undefined : 'Type three letters, such as EUR.');
    if (!isOne) return;
    setTyped(null);
    if (currency !== saved) onSet(currency);
  };
  return (
    <TextField
      label="Currency, unless another is typed"
      fault={fault}
      maxLength={3}
      value={typed ?? saved}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => event.key === 'Enter' && take()}
    />
  );
}

/** What can be chosen, a line each. */
function ChoicesField({
  field,
  onSet,
}: {
  readonly field: Pick<KindField, 'choices'>;
  readonly onSet: (choices: KindField['choices']) => void;
}) {
  const newId = () => newFieldId().slice(0, 8);
  return (
    <DraftField
      label="Choices"
      isLong
      saved={field.choices.map(({ name }) => name).join('\n')}
      longest={4000}
      hint={`One on each line, at most ${MAX_CHOICES} of ${MAX_CHOICE_NAME_LENGTH} letters. A choice that you rename in its line stays chosen.`}
      onSave={(text) => {
        const names = text
          .split('\n')
          .map((line) =>
            line
              .replace(/[\s;]+/g, ' ')
              .trim()
              .slice(0, MAX_CHOICE_NAME_LENGTH)
              .trim(),
          )
          .filter((line) => line !== '');
        const once = names.filter((name, at) => names.findIndex((one) => isSame(one, name)) === at);
        onSet(choicesNamed(once.slice(0, MAX_CHOICES), field.choices, newId));
      }}
    />
  );
}
const isSame = (a: string, b: string): boolean => a.toLowerCase() === b.toLowerCase();

/** Of which kind the pages are that can be chosen. */
function OfKind({
  field,
  onSet,
}: {
  readonly field: Pick<KindField, 'of'>;
  readonly onSet: (of: LabelId | null) => void;
}) {
  const { site } = useWorkbench();
  return (
    <Choice
      label="Which pages"
      value={field.of ?? ''}
      onChange={(event) => onSet(event.target.value === '' ? null : (event.target.value as LabelId))}
    >
      <option value="">Any page</option>
      <KindOptions labels={site.settings.labels} />
    </Choice>
  );
}

/** What is set of a field by its type. `besideKind` stands below the kind that pages are of. */
export function TypeSettings({
  field,
  besideKind,
  onSet,
}: {
  readonly field: Pick<KindField, 'type' | 'unit' | 'currency' | 'choices' | 'of' | 'isSeveral'>;
  readonly besideKind?: ReactNode;
  readonly onSet: (to: Partial<Pick<KindField, 'unit' | 'currency' | 'choices' | 'of' | 'isSeveral'>>) => void;
}) {
  const { settings } = FIELD_TYPE[field.type];
  return (
    <>
      {settings.includes('unit') && (
        <DraftField label="Unit" saved={field.unit} longest={20} placeholder="m" onSave={(unit) => onSet({ unit })} />
      )}
      {settings.includes('currency') && (
        <CurrencyField saved={field.currency} onSet={(currency) => onSet({ currency })} />
      )}
      {settings.includes('choices') && <ChoicesField field={field} onSet={(choices) => onSet({ choices })} />}
      {settings.includes('of') && (
        <>
          <OfKind field={field} onSet={(of) => onSet({ of })} />
          {besideKind}
        </>
      )}
      {settings.includes('isSeveral') && (
        <Tick
          label="Several can be chosen"
          checked={field.isSeveral}
          onChange={(event) => onSet({ isSeveral: event.target.checked })}
        />
      )}
    </>
  );
}
