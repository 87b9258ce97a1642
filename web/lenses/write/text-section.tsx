import type { PageId } from '#core/model/ids.ts';
import { nodeAt } from '#core/model/site.ts';
import { RichText } from '../../fields/rich-text.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

/** The page's text, in the editor; saved by itself. */
export function TextSection({ page }: { readonly page: PageId }) {
  const { site, store, mayEdit } = useWorkbench();
  return (
    <RichText
      site={site.key}
      content={nodeAt(site, page).content}
      name="Text"
      mayEdit={mayEdit}
      audiences={site.settings.audiences}
      facts={site.settings.facts}
      onSave={(text) =>
        store.apply([{ name: 'page.set', page, fields: { content: text?.id ?? null } }], text ? [text] : [])
      }
    />
  );
}
