import { ChevronDown, ChevronRight, ChevronUp, Plus, Undo2 } from 'lucide-react';
import { useState } from 'react';
import { FIELD_TYPE } from '#core/fields/all-types.ts';
import { type FieldId, type FieldTypeName, type KindField, MAX_FIELD_NAME_LENGTH } from '#core/model/kind-field.ts';
import type { PageKind } from '#core/model/page-label.ts';
import { propertiesFor } from '#core/fields/schema-org.ts';
import { newFieldId } from '../../api/site-store.ts';
import { Button, IconButton } from '../../ui/button.tsx';
import { Choice, TextField } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { FieldSettingsPart } from './field-settings.tsx';
import { TypeOptions } from './type-options.tsx';

/** What the pages of a kind say of themselves: its fields, in their order. */
export function KindFields({ kind }: { readonly kind: PageKind }) {
  const { store } = useWorkbench();
  const [open, setOpen] = useState<FieldId | null>(null);
  const all = kind.fields ?? [];
  const fields = all.filter(({ isRemoved }) => !isRemoved);
  const removed = all.filter(({ isRemoved }) => isRemoved);
  const move = (at: number, by: -1 | 1) => {
    const { id } = fields[at]!;
    const after = by === 1 ? fields[at + 1]!.id : (fields[at - 2]?.id ?? null);
    store.apply([{ name: 'field.move', field: id, after }]);
  };
  return (
    <section aria-labelledby="kind-fields" className="flex flex-col gap-2 border-t border-rule pt-4">
      <h3 id="kind-fields" className="font-display text-large font-semibold">
        Fields
      </h3>
      <p className="text-small text-quiet">
        Every page of this kind has these fields. Fill them in beside the page, or in the tree: filter by this kind to
        see a column for each.
      </p>
      <ol aria-label="Fields" className="flex flex-col gap-1">
        {fields.map((field, at) => (
          <li key={field.id} className="rounded-md border border-rule">
            <div className="flex items-center gap-1 pr-1">
              <button
                type="button"
                aria-expanded={open === field.id}
                onClick={() => setOpen(open === field.id ? null : field.id)}
                className="flex min-h-9 min-w-0 flex-1 items-center gap-2 rounded-md px-2 text-left hover:bg-sunken"
              >
                {open === field.id ? <ChevronDown size={15} aria-hidden /> : <ChevronRight size={15} aria-hidden />}
                <span className="flex min-w-0 items-baseline gap-2">
                  <span className="truncate font-medium">{field.name}</span>
                  <span className="truncate text-small text-quiet">{summaryOf(field)}</span>
                </span>
              </button>
              <IconButton name={`Move ${field.name} up`} disabled={at === 0} onClick={() => move(at, -1)}>
                <ChevronUp size={15} aria-hidden />
              </IconButton>
              <IconButton
                name={`Move ${field.name} down`}
                disabled={at === fields.length - 1}
                onClick={() => move(at, 1)}
              >
                <ChevronDown size={15} aria-hidden />
              </IconButton>
            </div>
            {open === field.id && <FieldSettingsPart kind={kind} field={field} />}
          </li>
        ))}
      </ol>
      <NewField kind={kind} onAdded={setOpen} />
      {removed.length > 0 && (
        <details>
          <summary className="text-small text-quiet">
            {removed.length === 1 ? 'One field was removed' : `${removed.length} fields were removed`}
          </summary>
          <ul aria-label="Removed fields" className="mt-1 flex flex-col gap-1">
            {removed.map((field) => (
              <li key={field.id} className="flex items-center gap-2">
                <span className="min-w-0 flex-1 truncate">{field.name}</span>
                <Button
                  isTight
                  title="With all that pages said in it"
                  onClick={() => store.apply([{ name: 'field.set', field: field.id, fields: { isRemoved: false } }])}
                >
                  <Undo2 size={14} aria-hidden /> Put back
                </Button>
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}

const summaryOf = ({ type, unit, isRequired, isForVisitors }: KindField): string =>
  [
    FIELD_TYPE[type].name + (type === 'number' && unit !== '' ? ` in ${unit}` : ''),
    isRequired && 'required',
    !isForVisitors && 'not for visitors',
  ]
    .filter(Boolean)
    .join(' · ');

/** Adds a field: its name and its type. What else is set of it opens below. */
function NewField({ kind, onAdded }: { readonly kind: PageKind; readonly onAdded: (field: FieldId) => void }) {
  const { store } = useWorkbench();
  const [name, setName] = useState('');
  const [type, setType] = useState<FieldTypeName>('text');
  const add = () => {
    const field = newFieldId();
    const taken = new Set((kind.fields ?? []).map(({ property }) => property));
    const property = propertiesFor(kind.about, type).find((one) => !taken.has(one)) ?? null;
    const isRefused =
      store.apply([{ name: 'field.add', label: kind.id, field, title: name.trim(), settings: { type, property } }]) !==
      null;
    if (isRefused) return;
    setName('');
    onAdded(field);
  };
  return (
    <form
      className="grid items-end gap-2 @sm:grid-cols-[1fr_1fr_auto]"
      onSubmit={(event) => {
        event.preventDefault();
        if (name.trim() !== '') add();
      }}
    >
      <TextField
        label="New field"
        placeholder="Price"
        maxLength={MAX_FIELD_NAME_LENGTH}
        value={name}
        onChange={(event) => setName(event.target.value)}
      />
      <Choice label="Type of field" value={type} onChange={(event) => setType(event.target.value as FieldTypeName)}>
        <TypeOptions />
      </Choice>
      <Button type="submit" disabled={name.trim() === ''}>
        <Plus size={15} aria-hidden /> Add
      </Button>
    </form>
  );
}
