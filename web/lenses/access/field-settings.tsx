import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { FIELD_TYPE } from '#core/fields/all-types.ts';
import { propertiesFor } from '#core/fields/schema-org.ts';
import { type TypeChange, typeChangeOf } from '#core/fields/type-change.ts';
import {
  type FieldSettings,
  type FieldTypeName,
  type KindField,
  MAX_FIELD_HELP_LENGTH,
  MAX_FIELD_NAME_LENGTH,
} from '#core/model/kind-field.ts';
import type { PageKind } from '#core/model/page-label.ts';
import { DraftField } from '../../fields/draft-field.tsx';
import { DetailField } from '../../fields/details/detail-field.tsx';
import { useFieldContext } from '../../fields/details/use-field-context.ts';
import { pages } from '../../tree/words.ts';
import { Button } from '../../ui/button.tsx';
import { Choice, Tick } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { TypeSettings } from '../../fields/asking/field-parts.tsx';
import { TypeOptions } from '../../fields/asking/type-options.tsx';

/** Everything that is set of one field. */
export function FieldSettingsPart({ kind, field }: { readonly kind: PageKind; readonly field: KindField }) {
  const { store } = useWorkbench();
  const context = useFieldContext();
  const set = (fields: Partial<FieldSettings> & { title?: string }) =>
    store.apply([{ name: 'field.set', field: field.id, fields }]);
  return (
    <div className="flex flex-col gap-3 border-t border-rule px-3 py-3">
      <DraftField
        label="Name"
        saved={field.name}
        longest={MAX_FIELD_NAME_LENGTH}
        onSave={(title) => title.trim() !== '' && set({ title })}
      />
      <TypeChoice field={field} onSet={(type) => set({ type })} />
      <TypeSettings
        field={field}
        onSet={set}
        besideKind={
          <DraftField
            label="Heading on those pages"
            saved={field.backName}
            longest={MAX_FIELD_NAME_LENGTH}
            placeholder="Courses"
            hint="The chosen pages list the pages that chose them, under this heading. Leave it empty for no list."
            onSave={(backName) => set({ backName })}
          />
        }
      />
      <DraftField
        label="Help"
        saved={field.help}
        longest={MAX_FIELD_HELP_LENGTH}
        hint="A sentence for whoever fills it in."
        onSave={(help) => set({ help })}
      />
      <Tick
        label="Required"
        hint="Pages that leave it empty are listed in the Checks lens and before a release."
        checked={field.isRequired}
        onChange={(event) => set({ isRequired: event.target.checked })}
      />
      <Tick
        label="Visitors see it"
        checked={field.isForVisitors}
        onChange={(event) => set({ isForVisitors: event.target.checked })}
      />
      {field.type !== 'pages' && field.type !== 'file' && (
        <DetailField
          field={{ ...field, name: 'Default', isRequired: false, help: 'Used by pages that leave the field empty.' }}
          context={context}
          value={field.initial}
          otherwise={null}
          onSet={(initial) => set({ initial })}
        />
      )}
      <PropertyField kind={kind} field={field} onSet={(property) => set({ property })} />
      <Button
        look="quiet"
        isTight
        className="self-start text-danger"
        title="The values of its pages are kept, and come back with it"
        onClick={() => set({ isRemoved: true })}
      >
        <Trash2 size={15} aria-hidden /> Remove the field
      </Button>
    </div>
  );
}

/** The type; before another one is taken, what becomes of what pages say is told. */
function TypeChoice({ field, onSet }: { readonly field: KindField; readonly onSet: (type: FieldTypeName) => void }) {
  const { site } = useWorkbench();
  const context = useFieldContext();
  const [asked, setAsked] = useState<FieldTypeName | null>(null);
  const ask = (type: FieldTypeName) => {
    if (type === field.type) return setAsked(null);
    const { said } = typeChangeOf(site, asType(field, type), context);
    if (said === 0) onSet(type);
    else setAsked(type);
  };
  return (
    <div className="flex flex-col gap-2">
      <Choice
        label="Type"
        hint={FIELD_TYPE[asked ?? field.type].says}
        value={asked ?? field.type}
        onChange={(event) => ask(event.target.value as FieldTypeName)}
      >
        <TypeOptions />
      </Choice>
      {asked !== null && (
        <div role="status" className="flex flex-col gap-2 rounded-md bg-accent-soft px-3 py-2">
          <p>{changeWords(typeChangeOf(site, asType(field, asked), context), asked)}</p>
          <div className="flex gap-2">
            <Button
              look="main"
              onClick={() => {
                setAsked(null);
                onSet(asked);
              }}
            >
              Change it
            </Button>
            <Button onClick={() => setAsked(null)}>Leave it as it is</Button>
          </div>
        </div>
      )}
    </div>
  );
}

const asType = (field: KindField, type: FieldTypeName): KindField => ({
  ...field,
  type,
  earlier: [...field.earlier.filter((one) => one !== type), field.type],
});

function changeWords({ said, unread, unreadCount }: TypeChange, type: FieldTypeName): string {
  const filled = `${pages(said)} ${said === 1 ? 'has' : 'have'} a value here.`;
  const name = FIELD_TYPE[type].name.toLowerCase();
  if (unreadCount === 0) return `${filled} All of it can be read as: ${name}.`;
  const examples = unread.map((one) => `‘${one.length > 40 ? `${one.slice(0, 40)} …` : one}’`).join(', ');
  const which = unreadCount === said ? 'None of it' : `${unreadCount} of them`;
  return `${filled} ${which} can${unreadCount === said ? '' : 'not'} be read as: ${name}. Visitors will not see, for example, ${examples}. Nothing is deleted: change the type back and it shows again.`;
}

/** What search engines and other programs are told that it is. */
function PropertyField({
  kind,
  field,
  onSet,
}: {
  readonly kind: PageKind;
  readonly field: KindField;
  readonly onSet: (property: string | null) => void;
}) {
  const proposed = propertiesFor(kind.about, field.type);
  const others = field.property !== null && !proposed.includes(field.property) ? [field.property] : [];
  return (
    <Choice
      label="For search engines"
      hint="The property of schema.org that they find it as."
      value={field.property ?? ''}
      onChange={(event) => onSet(event.target.value || null)}
    >
      <option value="">None</option>
      {[...proposed, ...others].map((property) => (
        <option key={property} value={property}>
          {property}
        </option>
      ))}
    </Choice>
  );
}
