import { fieldsFor, valueAs } from '#core/fields/values.ts';
import { ruleOf } from '#core/model/access.ts';
import type { PageId } from '#core/model/ids.ts';
import { kindAmong } from '#core/model/page-label.ts';
import { nodeAt } from '#core/model/site.ts';
import { Notice } from '../../ui/notice.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { DetailField } from './detail-field.tsx';
import { useFieldContext } from './use-field-context.ts';

/** What a page says in the fields of its kind; nothing where its kind has none. */
export function DetailsPart({ page }: { readonly page: PageId }) {
  const { site, store, setBeside } = useWorkbench();
  const context = useFieldContext();
  const { details, access } = nodeAt(site, page);
  const { labels } = ruleOf({ access });
  const kind = kindAmong(labels, site.settings.labels);
  const fields = fieldsFor(labels, site.settings.labels);
  if (kind === null || fields.length === 0) return null;
  return (
    <>
      <h3 className="-mb-2 flex items-baseline justify-between gap-2 border-t border-rule pt-4 font-display text-large font-semibold">
        {kind.name}
        <button
          type="button"
          onClick={() => setBeside({ kind: 'labels', id: kind.id })}
          className="font-body text-small font-normal text-accent hover:underline"
        >
          Change the fields
        </button>
      </h3>
      {fields.map((field) => {
        const kept = details?.[field.id] ?? null;
        const value = kept === null ? null : valueAs(field, kept, context);
        return (
          // What was typed and is none stays with its page.
          <div key={`${page} ${field.id}`} className="flex flex-col gap-1">
            <DetailField
              field={field}
              context={context}
              value={value}
              otherwise={field.initial}
              onSet={(next) => store.apply([{ name: 'page.set', page, fields: { details: { [field.id]: next } } }])}
            />
            {kept !== null && value === null && (
              <Notice>
                ‘{kept.length > 80 ? `${kept.slice(0, 80)} …` : kept}’ does not fit the type of the field, so visitors
                do not see it.
              </Notice>
            )}
          </div>
        );
      })}
    </>
  );
}
