import { type ReactNode, useId, useState } from 'react';
import { FIELD_TYPE } from '#core/fields/all-types.ts';
import type { FieldContext } from '#core/fields/field-type.ts';
import type { KindField } from '#core/model/kind-field.ts';
import { TextArea, TextField } from '../../ui/field.tsx';
import { useDraft } from '../use-draft.ts';
import { toast } from '../../ui/toast.ts';

/** What stands in a field's place when it cannot hold what was typed. */
export const faultOf = (field: KindField): string =>
  `That does not fit ‘${field.name}’. Type ${FIELD_TYPE[field.type].expects(field)}.`;

/** A value that is typed. What the field cannot hold stays as it was typed, with the reason, and nothing is saved. */
export function TypedField({
  field,
  context,
  label,
  hint,
  value,
  placeholder,
  suggestions = [],
  onSet,
}: {
  readonly field: KindField;
  readonly context: FieldContext;
  readonly label: string;
  readonly hint?: ReactNode;
  /** In the form in which it is kept; null for none. */
  readonly value: string | null;
  readonly placeholder?: string | undefined;
  readonly suggestions?: readonly string[];
  readonly onSet: (value: string | null) => void;
}) {
  const type = FIELD_TYPE[field.type];
  const [fault, setFault] = useState<string | undefined>(undefined);
  const meant = (text: string): string | null | undefined =>
    text.trim() === '' ? null : type.read(text, field, context);
  const draft = useDraft(value === null ? '' : type.written(value, field, context), (text) => {
    const next = meant(text);
    // It is handed over as it is when the field goes away: it is not lost without a word.
    if (next === undefined) toast.error(`‘${text}’ was not saved. ${faultOf(field)}`);
    else if (next !== value) onSet(next);
  });
  const list = useId();
  const take = () => {
    const isFault = draft.isTyping && meant(draft.value) === undefined;
    setFault(isFault ? faultOf(field) : undefined);
    if (!isFault) draft.commit();
  };
  const shared = {
    label,
    hint,
    fault,
    placeholder,
    value: draft.value,
    onBlur: take,
    required: field.isRequired,
  };
  const escape = () => {
    setFault(undefined);
    draft.cancel();
  };
  if (field.type === 'longText' || field.type === 'address')
    return (
      <TextArea
        {...shared}
        rows={field.type === 'address' ? 3 : 4}
        onChange={(event) => draft.type(event.target.value)}
        onKeyDown={(event) => event.key === 'Escape' && take()}
      />
    );
  return (
    <>
      <TextField
        {...shared}
        list={suggestions.length > 0 ? list : undefined}
        inputMode={MODES[field.type] ?? 'text'}
        onChange={(event) => draft.type(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Enter') take();
          else if (event.key === 'Escape') escape();
        }}
      />
      {suggestions.length > 0 && (
        <datalist id={list}>{draft.isTyping && suggestions.map((one) => <option key={one} value={one} />)}</datalist>
      )}
    </>
  );
}

/** Which keys telephones and tablets show. */
const MODES: Readonly<Partial<Record<KindField['type'], 'tel' | 'email' | 'url'>>> = {
  telephone: 'tel',
  mail: 'email',
  link: 'url',
};
