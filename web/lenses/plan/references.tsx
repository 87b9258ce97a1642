import { X } from 'lucide-react';
import type { PageId } from '#core/model/ids.ts';
import { planOf } from '#core/model/plan.ts';
import { maybeNodeAt, nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { IconButton } from '../../ui/button.tsx';
import { PageField } from '../../fields/page-field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

/** Other pages that whoever writes this one should look at, and the pages that name this one. */
export function References({ page }: { readonly page: PageId }) {
  const { site, store, derived, select, mayEdit } = useWorkbench();
  const { language } = site.settings;
  const { references } = planOf(nodeAt(site, page));
  const set = (next: PageId[]) => store.apply([{ name: 'page.set', page, fields: { plan: { references: next } } }]);
  const namedBy = derived.outline.nodes.filter((node) => node.plan?.references.includes(page));
  const go = (to: PageId) => select({ active: to, chosen: new Set([to]), anchor: to });
  return (
    <section aria-label="References" className="flex flex-col gap-2 border-t border-rule pt-4">
      <h3 className="font-display text-large font-semibold">See also</h3>
      {references.length > 0 && (
        <ul>
          {references.map((id) => {
            const node = maybeNodeAt(site, id);
            const title = node ? textIn(node.title, language) : 'A page that was removed';
            return (
              <li key={id} className="flex items-center gap-1">
                {node ? (
                  <button
                    type="button"
                    onClick={() => go(id)}
                    className="min-w-0 flex-1 truncate text-left text-accent hover:underline"
                  >
                    {title}
                  </button>
                ) : (
                  <span className="flex-1 text-quiet">{title}</span>
                )}
                <IconButton name={`Remove ‘${title}’`} onClick={() => set(references.filter((one) => one !== id))}>
                  <X size={15} aria-hidden />
                </IconButton>
              </li>
            );
          })}
        </ul>
      )}
      {namedBy.length > 0 && (
        <p className="text-small text-quiet">
          Named by {namedBy.map((node) => `‘${textIn(node.title, language)}’`).join(', ')}.
        </p>
      )}
      {mayEdit && (
        <PageField
          label="Another page"
          value=""
          isOffered={(row, id) =>
            derived.outline.nodes[row]!.type === 'page' && id !== page && !references.includes(id)
          }
          onChoose={(id) => set([...references, id as PageId])}
        />
      )}
    </section>
  );
}
