import { Check, X } from 'lucide-react';
import { setArranged } from '#core/arrange/arrange-entries.ts';
import { type Proposal, arrangedNow, declining, taking } from '#core/derive/menu-merge.ts';
import type { Menu } from '#core/model/menu.ts';
import { applyOperations } from '#core/operations/apply.ts';
import type { Edit } from '../../api/site-store.ts';
import { Button, IconButton } from '../../ui/button.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { usePreview } from '../../workbench/use-preview.ts';
import { proposalWords } from './menu-reasons.ts';
import { toast } from '../../ui/toast.ts';

/** What has changed in the tree since a menu was settled, each with the way to settle it. */
export function Proposals({ menu }: { readonly menu: Menu }) {
  const { site, store, mayEdit, focusTree } = useWorkbench();
  const setPreview = usePreview();
  const { proposals } = arrangedNow(site, menu);
  const safe = proposals.filter(({ isSafe }) => isSafe);
  if (proposals.length === 0)
    return <p className="text-small text-quiet">Nothing to settle: the menu matches the tree.</p>;
  const take = (chosen: readonly Proposal[]): Edit[] => [setArranged(menu, taking(site, menu, chosen)) as Edit];
  const settle = (edits: Edit[], chosen: readonly Proposal[], isTaken: boolean) => {
    setPreview(null);
    const after = applyOperations(site, edits);
    if (store.apply(edits) !== null || !after.ok) return;
    const next = after.site.settings.menus.find(({ id }) => id === menu.id)!;
    const left = arrangedNow(after.site, next).proposals;
    const along = proposals.length - left.length - chosen.length;
    if (isTaken && along > 0) toast(`${along === 1 ? 'One more was' : `${along} more were`} taken that it depends on.`);
    if (left.length === 0) focusTree();
  };
  return (
    <section aria-label="Proposals" className="rounded-md border border-rule bg-raised">
      <div className="flex flex-wrap items-center gap-2 border-b border-rule px-3 py-2">
        <p className="flex-1 font-medium">
          {proposals.length === 1 ? '1 difference from the tree' : `${proposals.length} differences from the tree`}
        </p>
        {mayEdit && safe.length > 0 && safe.length < proposals.length && (
          <Button isTight onClick={() => settle(take(safe), safe, true)}>
            Take the safe ones: {safe.length === 1 ? 'one' : safe.length}
          </Button>
        )}
        {mayEdit && (
          <Button isTight look="main" onClick={() => settle(take(proposals), proposals, true)}>
            {proposals.length === 1 ? 'Take it' : `Take all ${proposals.length}`}
          </Button>
        )}
      </div>
      <ul className="divide-y divide-rule">
        {proposals.map((proposal) => {
          const { what, why } = proposalWords(site, menu, proposal);
          const edits = take([proposal]);
          return (
            <li key={`${proposal.kind} ${proposal.page}`} className="flex items-start gap-1 px-3 py-2">
              <div className="min-w-0 flex-1">
                <p>{what}</p>
                <p className="text-small text-quiet">
                  {why} {proposal.isSafe ? 'Safe.' : 'It was arranged differently by hand.'}
                </p>
              </div>
              {mayEdit && (
                <>
                  <IconButton
                    name={`Take: ${what}`}
                    onMouseEnter={() => setPreview(edits)}
                    onMouseLeave={() => setPreview(null)}
                    onFocus={() => setPreview(edits)}
                    onBlur={() => setPreview(null)}
                    onClick={() => settle(edits, [proposal], true)}
                  >
                    <Check size={16} aria-hidden />
                  </IconButton>
                  <IconButton
                    name={`Decline: ${what}`}
                    onClick={() =>
                      settle([setArranged(menu, declining(site, menu, [proposal])) as Edit], [proposal], false)
                    }
                  >
                    <X size={16} aria-hidden />
                  </IconButton>
                </>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
