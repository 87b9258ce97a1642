import type { PageId } from '#core/model/ids.ts';
import { nodeAt } from '#core/model/site.ts';
import { PageField } from '../../fields/page-field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { DraftField } from '../../fields/draft-field.tsx';

const OUTSIDE = { value: 'outside', words: 'An outside address' };

/** Where a link leads: a page of the tree, or an outside address. */
export function TargetField({ page }: { readonly page: PageId }) {
  const { site, store, derived } = useWorkbench();
  const { target } = nodeAt(site, page);
  const { outline } = derived;
  const set = (next: { page: PageId } | { url: string }) =>
    store.apply([{ name: 'page.set', page, fields: { target: next } }]);
  return (
    <div className="flex flex-col gap-3">
      <PageField
        label="Leads to"
        value={target && 'page' in target ? target.page : OUTSIDE.value}
        others={[OUTSIDE]}
        isOffered={(row, id) => outline.nodes[row]!.type === 'page' && id !== page}
        onChoose={(to) => set(to === OUTSIDE.value ? { url: 'https://www.example/' } : { page: to as PageId })}
      />
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
