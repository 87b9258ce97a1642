import type { PageId } from '#core/model/ids.ts';
import { ShowRows } from '../../../settings/show-rows.tsx';
import { pages as pagesWords } from '../../../tree/words.ts';
import { Button } from '../../../ui/button.tsx';
import { TextArea } from '../../../ui/field.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { STANDING_WORDS } from '../approval/approval-words.ts';
import { titleIn } from '../publish-words.ts';

/** What of a release lacks approval, and the ways on. */
export function Lacking({
  pages,
  isTakingDown,
  onLeaveOut,
  reason,
  onReason,
}: {
  readonly pages: readonly PageId[];
  /** Nobody proposes that: it takes a manager, or removing the page and proposing the removal. */
  readonly isTakingDown: boolean;
  /** Makes the rest live; null where these come along. */
  readonly onLeaveOut: (() => void) | null;
  readonly reason: string;
  readonly onReason: (reason: string) => void;
}) {
  const { site, approvals, may, setBeside } = useWorkbench();
  return (
    <section aria-label="Approval is missing" className="rounded-md border border-attention px-3 py-2.5">
      <h3 className="mb-1 font-medium text-attention">
        {pages.length === 1 ? 'One page needs approval first' : `${pagesWords(pages.length)} need approval first`}
      </h3>
      <ul>
        {pages.slice(0, 30).map((page) => (
          <li key={page}>
            <ShowRows pages={[page]}>{titleIn(site, page)}</ShowRows>{' '}
            <span className="text-small text-quiet">{STANDING_WORDS[approvals!.standing(page).standing]}</span>
          </li>
        ))}
        {pages.length > 30 && <li className="text-quiet">and {pages.length - 30} more</li>}
      </ul>
      {isTakingDown && (
        <p className="mt-1 text-small text-quiet">
          Remove a page from the tree to propose its removal; a manager can take it down as it is.
        </p>
      )}
      <p className="mt-2 flex flex-wrap gap-2">
        {onLeaveOut && <Button onClick={onLeaveOut}>{pages.length === 1 ? 'Leave it out' : 'Leave them out'}</Button>}
        {!isTakingDown && may('write', 'somewhere') && (
          <Button onClick={() => setBeside({ kind: 'proposing', id: null })}>Propose them…</Button>
        )}
        <Button look="quiet" onClick={() => setBeside({ kind: 'proposals', id: null })}>
          See the proposals
        </Button>
      </p>
      {may('everything', null) && (
        <div className="mt-3">
          <TextArea
            label={isTakingDown ? 'Or take them down without it. Why?' : 'Or make them live without it. Why?'}
            hint="Kept with the release."
            rows={2}
            maxLength={2000}
            value={reason}
            onChange={(event) => onReason(event.target.value)}
          />
        </div>
      )}
    </section>
  );
}
