import type { PageId } from '#core/model/ids.ts';
import { textIn } from '#core/model/texts.ts';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';

/** The pages of the tree that have an address, as options of a choice; each shows how deep it stands. */
export function PageOptions({ without = null }: { readonly without?: PageId | null }) {
  const { derived, site } = useWorkbench();
  return derived.outline.nodes.map((node, row) =>
    derived.addresses[row] === null || node.id === without ? null : (
      <option key={node.id} value={node.id}>
        {'\u2003'.repeat(derived.outline.depth[row]!) + textIn(node.title, site.settings.language)}
      </option>
    ),
  );
}
