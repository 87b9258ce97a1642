import { formatDistanceToNow } from 'date-fns';
import type { RemovedBranch } from '#contract/api.ts';
import { nearestParent } from '#core/operations/page-put-back.ts';
import { textIn } from '#core/model/texts.ts';
import { useRemoved } from '../../api/sites.ts';
import { andBelow } from '../../tree/words.ts';
import { Button } from '../../ui/button.tsx';
import { Dialog } from '../../ui/dialog.tsx';
import { useWorkbench } from '../workbench-context.tsx';

/** What was removed, when and by whom, and where it would be put back. */
export function RemovedDialog({ onClose }: { readonly onClose: () => void }) {
  const { site, shown, store, select, mayEdit } = useWorkbench();
  const branches = useRemoved(site.key, shown.revision);
  const putBack = ({ page }: RemovedBranch) => {
    if (store.apply([{ name: 'page.putBack', page }]) !== null) return;
    select({ active: page, chosen: new Set([page]), anchor: page });
    onClose();
  };
  const left = branches?.filter((branch) => site.nodes.get(branch.page)?.removedWith === branch.page);
  return (
    <Dialog
      title="Removed pages"
      description="They are kept until you need them again."
      isOpen
      isWide
      onClose={onClose}
    >
      {left?.length === 0 && (
        <p className="pb-4 text-quiet">
          Nothing has been removed. Pages that you remove will stand here, ready to be put back.
        </p>
      )}
      <ul className="pb-3">
        {left?.map((branch) => {
          const parent = nearestParent(site, branch.page);
          const isMoved = parent !== site.nodes.get(branch.page)!.parent;
          const where =
            parent === null
              ? 'at the top level'
              : `in ‘${textIn(site.nodes.get(parent)!.title, site.settings.language)}’`;
          return (
            <li key={branch.page} className="flex items-center gap-4 border-b border-rule py-2.5 last:border-0">
              <div className="min-w-0 flex-1">
                <p className="truncate">
                  <span className="font-medium">{branch.title}</span>
                  {andBelow(branch.below)}
                </p>
                <p className="text-small text-quiet">
                  {branch.at &&
                    `Removed ${formatDistanceToNow(new Date(branch.at), { addSuffix: true })} by ${branch.by}. `}
                  {isMoved ? `Its place is gone; it would stand ${where}.` : `It stood ${where}.`}
                </p>
              </div>
              {mayEdit && (
                <Button onClick={() => putBack(branch)} aria-label={`Put back ${branch.title}`}>
                  Put back
                </Button>
              )}
            </li>
          );
        })}
      </ul>
    </Dialog>
  );
}
