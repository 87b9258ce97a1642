import { ChevronDown, ChevronRight, ChevronUp, Plus } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { type FieldId, type FieldTypeName, MAX_FIELD_NAME_LENGTH } from '#core/model/kind-field.ts';
import { Button, IconButton } from '../../ui/button.tsx';
import { Choice, TextField } from '../../ui/field.tsx';
import { TypeOptions } from './type-options.tsx';

interface Listed {
  readonly id: FieldId;
  readonly name: string;
}

/** Fields in their order: each opens to what is set of it, and moves by one place. */
export function FieldList<Field extends Listed>({
  fields,
  summaryOf,
  open,
  onOpen,
  onMove,
  settingsOf,
}: {
  readonly fields: readonly Field[];
  readonly summaryOf: (field: Field) => ReactNode;
  readonly open: FieldId | null;
  readonly onOpen: (field: FieldId | null) => void;
  /** Moves the field at a place in the list up (-1) or down (1). */
  readonly onMove: (at: number, by: -1 | 1) => void;
  readonly settingsOf: (field: Field) => ReactNode;
}) {
  return (
    <ol aria-label="Fields" className="flex flex-col gap-1">
      {fields.map((field, at) => (
        <li key={field.id} className="rounded-md border border-rule">
          <div className="flex items-center gap-1 pr-1">
            <button
              type="button"
              aria-expanded={open === field.id}
              onClick={() => onOpen(open === field.id ? null : field.id)}
              className="flex min-h-9 min-w-0 flex-1 items-center gap-2 rounded-md px-2 text-left hover:bg-sunken"
            >
              {open === field.id ? (
                <ChevronDown size={15} aria-hidden className="shrink-0" />
              ) : (
                <ChevronRight size={15} aria-hidden className="shrink-0" />
              )}
              <span className="flex min-w-0 items-baseline gap-2">
                <span className="max-w-full truncate font-medium">{field.name}</span>
                <span className="min-w-0 shrink-[50] truncate text-small text-quiet">{summaryOf(field)}</span>
              </span>
            </button>
            <IconButton name={`Move ${field.name} up`} disabled={at === 0} onClick={() => onMove(at, -1)}>
              <ChevronUp size={15} aria-hidden />
            </IconButton>
            <IconButton
              name={`Move ${field.name} down`}
              disabled={at === fields.length - 1}
              onClick={() => onMove(at, 1)}
            >
              <ChevronDown size={15} aria-hidden />
            </IconButton>
          </div>
          {open === field.id && settingsOf(field)}
        </li>
      ))}
    </ol>
  );
}

/** Adds a field: its name and its type. What else is set of it opens below. `onAdd` gives whether it was added. */
export function NewField<Type extends FieldTypeName>({
  placeholder,
  types,
  onAdd,
}: {
  readonly placeholder: string;
  readonly types?: readonly Type[];
  readonly onAdd: (name: string, type: Type) => boolean;
}) {
  const [name, setName] = useState('');
  const [type, setType] = useState('text' as Type);
  return (
    <form
      className="grid items-end gap-2 @sm:grid-cols-[1fr_1fr_auto]"
      onSubmit={(event) => {
        event.preventDefault();
        if (name.trim() !== '' && onAdd(name.trim(), type)) setName('');
      }}
    >
      <TextField
        label="New field"
        placeholder={placeholder}
        maxLength={MAX_FIELD_NAME_LENGTH}
        value={name}
        onChange={(event) => setName(event.target.value)}
      />
      <Choice label="Type of field" value={type} onChange={(event) => setType(event.target.value as Type)}>
        <TypeOptions {...(types && { types })} />
      </Choice>
      <Button type="submit" disabled={name.trim() === ''}>
        <Plus size={15} aria-hidden /> Add
      </Button>
    </form>
  );
}
