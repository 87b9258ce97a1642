import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { FIELD_TYPE } from '#core/fields/all-types.ts';
import type { PageId } from '#core/model/ids.ts';
import { type FieldId, MAX_FIELD_HELP_LENGTH, MAX_FIELD_NAME_LENGTH } from '#core/model/kind-field.ts';
import {
  FORM_FIELD_TYPES,
  type FormField,
  type FormFieldType,
  MAX_FORM_FIELDS,
  NO_FORM_FIELD_SETTINGS,
  type ShownIf,
  type SiteForm,
} from '#core/model/site-form.ts';
import { newFieldId } from '../../../api/site-store.ts';
import { FieldList, NewField } from '../../../fields/asking/field-list.tsx';
import { TypeSettings } from '../../../fields/asking/field-parts.tsx';
import { TypeOptions } from '../../../fields/asking/type-options.tsx';
import { DraftField } from '../../../fields/draft-field.tsx';
import { PageField } from '../../../fields/page-field.tsx';
import { Button } from '../../../ui/button.tsx';
import { Choice, Tick } from '../../../ui/field.tsx';

type Change = Partial<Omit<FormField, 'id'>>;

/** What a form asks for, in its order. */
export function FormFields({
  form,
  onSet,
}: {
  readonly form: SiteForm;
  /** Gives whether it was accepted. */
  readonly onSet: (fields: FormField[]) => boolean;
}) {
  const [open, setOpen] = useState<FieldId | null>(null);
  const { fields } = form;
  const change = (id: FieldId, to: Change) => onSet(fields.map((one) => (one.id === id ? { ...one, ...to } : one)));
  return (
    <section aria-labelledby="form-fields" className="flex flex-col gap-2 border-t border-rule pt-4">
      <h3 id="form-fields" className="font-display text-large font-semibold">
        Fields
      </h3>
      {fields.length === 0 && <p className="text-small text-quiet">Add the fields that visitors fill in.</p>}
      <FieldList
        fields={fields}
        summaryOf={summaryOf}
        open={open}
        onOpen={setOpen}
        onMove={(at, by) => {
          const field = fields[at]!;
          onSet(fields.toSpliced(at, 1).toSpliced(at + by, 0, field));
        }}
        settingsOf={(field) => (
          <OneField
            field={field}
            before={fields.slice(0, fields.indexOf(field))}
            onSet={(to) => change(field.id, to)}
            onRemove={() => onSet(fields.filter((one) => one !== field))}
          />
        )}
      />
      {fields.length < MAX_FORM_FIELDS && (
        <NewField
          placeholder="Your name"
          types={FORM_FIELD_TYPES}
          onAdd={(name, type) => {
            const id = newFieldId();
            const isAdded = onSet([...fields, { ...NO_FORM_FIELD_SETTINGS, id, name, type }]);
            if (isAdded) setOpen(id);
            return isAdded;
          }}
        />
      )}
    </section>
  );
}

const summaryOf = ({ type, isRequired, step, shownIf }: FormField): string =>
  [FIELD_TYPE[type].name, isRequired && 'required', shownIf && 'conditional', step !== null && `starts ‘${step}’`]
    .filter(Boolean)
    .join(' · ');

function OneField({
  field,
  before,
  onSet,
  onRemove,
}: {
  readonly field: FormField;
  readonly before: readonly FormField[];
  readonly onSet: (to: Change) => void;
  readonly onRemove: () => void;
}) {
  return (
    <div className="flex flex-col gap-3 border-t border-rule px-3 py-3">
      <DraftField
        label="Name"
        saved={field.name}
        longest={MAX_FIELD_NAME_LENGTH}
        onSave={(name) => name.trim() !== '' && onSet({ name: name.trim() })}
      />
      <Choice
        label="Type"
        hint={FIELD_TYPE[field.type].says}
        value={field.type}
        onChange={(event) => onSet({ type: event.target.value as FormFieldType })}
      >
        <TypeOptions types={FORM_FIELD_TYPES} />
      </Choice>
      <TypeSettings field={field} onSet={onSet} />
      {field.type === 'yesNo' && <PolicyField field={field} onSet={(policy) => onSet({ policy })} />}
      <DraftField
        label="Help"
        saved={field.help}
        longest={MAX_FIELD_HELP_LENGTH}
        hint="A sentence for whoever fills it in."
        onSave={(help) => onSet({ help })}
      />
      <Tick
        label="Required"
        hint={field.type === 'yesNo' ? 'It has to be ticked.' : undefined}
        checked={field.isRequired}
        onChange={(event) => onSet({ isRequired: event.target.checked })}
      />
      {(field.type === 'text' || field.type === 'mail') && (
        <Choice
          label="Prefill for signed-in visitors"
          value={field.filledWith ?? ''}
          onChange={(event) => onSet({ filledWith: (event.target.value || null) as FormField['filledWith'] })}
        >
          <option value="">Nothing</option>
          {field.type === 'text' && <option value="name">Their name</option>}
          <option value="mail">Their mail address</option>
        </Choice>
      )}
      {before.length > 0 && <ShownIfField field={field} before={before} onSet={(shownIf) => onSet({ shownIf })} />}
      <DraftField
        label="Start a new step"
        saved={field.step ?? ''}
        longest={MAX_FIELD_NAME_LENGTH}
        placeholder="About you"
        hint="The heading of the step. Leave it empty to stay in the step of the field before."
        onSave={(step) => onSet({ step: step.trim() || null })}
      />
      <Button
        look="quiet"
        isTight
        className="self-start text-danger"
        title="Answers that have come keep what was said in it"
        onClick={onRemove}
      >
        <Trash2 size={15} aria-hidden /> Remove the field
      </Button>
    </div>
  );
}

const NO_POLICY = { value: 'none', words: 'No page: this is not a consent' };

/** The page that is agreed to. */
function PolicyField({ field, onSet }: { readonly field: FormField; readonly onSet: (policy: PageId | null) => void }) {
  return (
    <PageField
      label="Consent to"
      hint={
        field.policy === null
          ? undefined
          : 'The form links to it, and each answer keeps the version that was agreed to.'
      }
      value={field.policy ?? NO_POLICY.value}
      others={[NO_POLICY]}
      onChoose={(next) => onSet(next === NO_POLICY.value ? null : (next as PageId))}
    />
  );
}

/** Whether a field is asked for only after something was said in another one. */
function ShownIfField({
  field,
  before,
  onSet,
}: {
  readonly field: FormField;
  readonly before: readonly FormField[];
  readonly onSet: (shownIf: ShownIf | null) => void;
}) {
  const offered = before.flatMap(conditionsOn);
  const kept = field.shownIf && JSON.stringify(field.shownIf);
  const isKnown = kept === null || offered.some(({ value }) => value === kept);
  return (
    <Choice
      label="Show this field"
      value={kept ?? ''}
      onChange={(event) => onSet(event.target.value === '' ? null : (JSON.parse(event.target.value) as ShownIf))}
    >
      <option value="">Always</option>
      {!isKnown && <option value={kept}>Always: the field it depends on is not before it</option>}
      {offered.map(({ value, words }) => (
        <option key={value} value={value}>
          {words}
        </option>
      ))}
    </Choice>
  );
}

function conditionsOn({ id, name, type, choices }: FormField): { readonly value: string; readonly words: string }[] {
  const of = (test: ShownIf['test'], value: string, words: string) => ({
    value: JSON.stringify({ field: id, test, value } satisfies ShownIf),
    words: `Only if ‘${name}’ is ${words}`,
  });
  if (type === 'yesNo') return [of('is', 'yes', 'ticked'), of('is not', 'yes', 'not ticked')];
  return [
    ...(type === 'choice'
      ? choices.flatMap((one) => [of('is', one.id, `‘${one.name}’`), of('is not', one.id, `not ‘${one.name}’`)])
      : []),
    of('said', '', 'filled in'),
    of('not said', '', 'left empty'),
  ];
}
