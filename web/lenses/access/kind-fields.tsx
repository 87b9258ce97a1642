import { Undo2 } from 'lucide-react';
import { useState } from 'react';
import { FIELD_TYPE } from '#core/fields/all-types.ts';
import type { FieldId, KindField } from '#core/model/kind-field.ts';
import type { PageKind } from '#core/model/page-label.ts';
import { propertiesFor } from '#core/fields/schema-org.ts';
import { newFieldId } from '../../api/site-store.ts';
import { FieldList, NewField } from '../../fields/asking/field-list.tsx';
import { Button } from '../../ui/button.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { FieldSettingsPart } from './field-settings.tsx';

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
      <FieldList
        fields={fields}
        summaryOf={summaryOf}
        open={open}
        onOpen={setOpen}
        onMove={move}
        settingsOf={(field) => <FieldSettingsPart kind={kind} field={field} />}
      />
      <NewKindField kind={kind} onAdded={setOpen} />
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

/** Adds a field, with the property that search engines find it as. */
function NewKindField({ kind, onAdded }: { readonly kind: PageKind; readonly onAdded: (field: FieldId) => void }) {
  const { store } = useWorkbench();
  return (
    <NewField
      placeholder="Price"
      onAdd={(title, type) => {
        const field = newFieldId();
        const taken = new Set((kind.fields ?? []).map(({ property }) => property));
        const property = propertiesFor(kind.about, type).find((one) => !taken.has(one)) ?? null;
        const fault = store.apply([{ name: 'field.add', label: kind.id, field, title, settings: { type, property } }]);
        if (fault === null) onAdded(field);
        return fault === null;
      }}
    />
  );
}
