import { isShownWhenNeeded } from '#core/model/access.ts';
import type { PageId } from '#core/model/ids.ts';
import { nodeAt } from '#core/model/site.ts';
import { KEPT_OUT_WORDS } from '../tree/cells.tsx';
import { Tick } from '../ui/field.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';

/** Whether the tree offers a page to menus, and what keeps it out of them all the same. */
export function InMenusTick({ page }: { readonly page: PageId }) {
  const { site, derived, store } = useWorkbench();
  const node = nodeAt(site, page);
  const row = derived.outline.rowOf.get(page);
  const isHidden = row !== undefined && derived.hiddenBy[row] !== -1;
  const keptOut = isShownWhenNeeded(node) ? 'when needed' : isHidden ? 'hidden' : null;
  return (
    <Tick
      label="In menus"
      hint={keptOut === null ? 'The tree offers it to menus.' : `${KEPT_OUT_WORDS[keptOut].long}.`}
      checked={node.inMenus && keptOut !== 'when needed'}
      disabled={keptOut === 'when needed'}
      onChange={(event) => store.apply([{ name: 'page.set', page, fields: { inMenus: event.target.checked } }])}
    />
  );
}
