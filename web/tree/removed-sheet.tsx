import { formatDistanceToNow } from 'date-fns';
import { ArchiveRestore } from 'lucide-react';
import { useRef, useState } from 'react';
import { putBackAlone } from '#core/arrange/grow.ts';
import type { PageId } from '#core/model/ids.ts';
import type { RemovedBranch } from '#contract/api.ts';
import type { Edit } from '../api/site-store.ts';
import { useRemoved } from '../api/sites.ts';
import type { WholeKind } from '../settings/settings-kind.ts';
import { andBelow, pages } from './words.ts';
import { Button } from '../ui/button.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { toast } from '../ui/toast.ts';

/** What was removed, when, by whom and from where; it can be put back, whole or one page of it, or deleted for good. */
export const REMOVED: WholeKind = {
  edits: 'shape',
  isForBranches: true,
  title: 'Removed pages',
  Sign: ArchiveRestore,
  description: 'They are kept until you put them back or delete them for good.',
  Whole: Removed,
};

function Removed() {
  const { site, shown } = useWorkbench();
  const list = useRef<HTMLUListElement>(null);
  const branches = useRemoved(site.key, shown.revision);
  const left = branches?.filter((branch) => site.nodes.get(branch.page)?.removedWith === branch.page);
  return (
    <>
      {left?.length === 0 && (
        <p className="text-quiet">Nothing has been removed. Removed pages appear here, ready to be put back.</p>
      )}
      <ul ref={list} tabIndex={-1} aria-label="Removed pages" className="outline-none">
        {left?.map((branch) => (
          <Branch key={branch.page} branch={branch} onGone={() => list.current?.focus()} />
        ))}
      </ul>
    </>
  );
}

const from = (path: readonly string[]): string => (path.length === 0 ? 'the top level' : `‘${path.join(' › ')}’`);

/** Where it comes back, in words, where that is not where it stood. */
function placeWords({ isParentThere, nearest, from: path }: RemovedBranch): string | null {
  if (isParentThere || path.length === 0) return null;
  return nearest
    ? `‘${path.at(-1)}’ no longer exists: it will be put back in ‘${nearest.title}’, the nearest page above that is.`
    : `‘${path.at(-1)}’ no longer exists: it will be put back at the top level.`;
}

function Branch({ branch, onGone }: { readonly branch: RemovedBranch; readonly onGone: () => void }) {
  const { site, store, select, mayEdit, run, focusTree } = useWorkbench();
  const [isAsking, setAsking] = useState(false);
  const elsewhere = placeWords(branch);
  const putBack = (operations: readonly Edit[], page: PageId, words: string) => {
    if (store.apply([...operations]) !== null) return;
    select({ active: page, chosen: new Set([page]), anchor: page });
    // The button is gone with the row: the keyboard goes to where the page is.
    window.setTimeout(focusTree, 0);
    toast(elsewhere ? `${words} ${elsewhere}` : words, { action: { label: 'Undo', onClick: () => run('undo') } });
  };
  const count = branch.below.length + 1;
  const erase = () => {
    if (store.apply([{ name: 'page.erase', page: branch.page }]) !== null) return;
    onGone();
    toast(`Deleted ${pages(count)} for good.`);
  };
  return (
    <li className="border-b border-rule py-2.5 last:border-0">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <div className="min-w-48 flex-1">
          <p className="truncate">
            <span className="font-medium">{branch.title}</span>
            {andBelow(branch.below.length)}
          </p>
          <p className="text-small text-quiet">
            {branch.at &&
              `Removed ${formatDistanceToNow(new Date(branch.at), { addSuffix: true })} by ${branch.by}, from ${from(branch.from)}.`}
            {branch.isLive && ' Visitors still have it until the next release.'}
          </p>
          {elsewhere && <p className="text-small text-attention">{elsewhere}</p>}
        </div>
        {mayEdit && !isAsking && (
          <>
            <Button
              onClick={() =>
                putBack([{ name: 'page.putBack', page: branch.page }], branch.page, `Put back ${pages(count)}.`)
              }
              aria-label={`Put back ${branch.title}`}
            >
              Put back
            </Button>
            <Button
              look="quiet"
              isTight
              onClick={() => setAsking(true)}
              aria-label={`Delete for good… ${branch.title}`}
            >
              Delete for good…
            </Button>
          </>
        )}
      </div>
      {isAsking && (
        <div role="group" aria-label={`Delete ${branch.title} for good`} className="mt-2 rounded-md bg-sunken p-3">
          <p>
            {branch.isLive
              ? 'Visitors still have it. Make the removal live first; then it can be deleted for good.'
              : `${count === 1 ? 'The page is' : `All ${count} pages are`} gone from this list, with ${count === 1 ? 'its' : 'their'} text. While it is your last change, Undo still brings ${count === 1 ? 'it' : 'them'} back.`}
          </p>
          <div className="mt-2 flex gap-2">
            <Button onClick={() => setAsking(false)}>Keep {count === 1 ? 'it' : 'them'}</Button>
            {!branch.isLive && (
              <Button look="danger" onClick={erase}>
                Delete {pages(count)} for good
              </Button>
            )}
          </div>
        </div>
      )}
      {branch.below.length > 0 && (
        <details className="mt-1 text-small">
          <summary className="text-quiet">Put back one page of them</summary>
          <ul className="mt-1 max-h-56 overflow-y-auto">
            {[{ page: branch.page, title: branch.title, depth: 0 }, ...branch.below].map(({ page, title, depth }) => (
              <li
                key={page}
                className="flex min-h-8 items-center gap-2"
                style={{ paddingLeft: `${Math.min(depth, 12)}rem` }}
              >
                <span className="min-w-0 flex-1 truncate">{title}</span>
                {mayEdit && (
                  <Button
                    look="quiet"
                    isTight
                    aria-label={`Put back only this: ${title}`}
                    onClick={() => putBack(putBackAlone(site, page) as Edit[], page, `Put back only ‘${title}’.`)}
                  >
                    Put back only this
                  </Button>
                )}
              </li>
            ))}
          </ul>
        </details>
      )}
    </li>
  );
}
