import type { PageId } from '#core/model/ids.ts';
import { nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { Choice } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { DraftField } from '../../fields/draft-field.tsx';

/** Where a link leads: a page of the tree, or an outside address. */
export function TargetField({ page }: { readonly page: PageId }) {
  const { site, store, derived } = useWorkbench();
  const { target } = nodeAt(site, page);
  const { outline } = derived;
  const set = (next: { page: PageId } | { url: string }) =>
    store.apply([{ name: 'page.set', page, fields: { target: next } }]);
  const to = target && 'page' in target ? target.page : '';
  return (
    <div className="flex flex-col gap-3">
      <Choice
        label="Leads to"
        value={to}
        onChange={(event) =>
          set(event.target.value === '' ? { url: 'https://www.example/' } : { page: event.target.value as PageId })
        }
      >
        <option value="">An outside address</option>
        {outline.nodes.map((node, row) =>
          node.type === 'page' && node.id !== page ? (
            <option key={node.id} value={node.id}>
              {'\u2003'.repeat(outline.depth[row]!) + textIn(node.title, site.settings.language)}
            </option>
          ) : null,
        )}
      </Choice>
      {target && 'url' in target && (
        <DraftField
          label="Outside address"
          saved={target.url}
          longest={2000}
          onSave={(url) => set({ url: url.trim() })}
          hint="Starts with https://, mailto: or tel:"
        />
      )}
    </div>
  );
}
