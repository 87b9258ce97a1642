import { UserCheck } from 'lucide-react';
import { useCallback, useMemo, useState } from 'react';
import { waitingPages } from '#core/changes/release-plan.ts';
import type { PageId } from '#core/model/ids.ts';
import { maybeNodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { propose } from '../../../api/approval.ts';
import { wordsOfFault } from '../../../api/client.ts';
import { useColleagues } from '../../../api/people.ts';
import { useKept } from '../../../fields/use-kept.ts';
import { SheetFoot } from '../../../settings/sheet-foot.tsx';
import type { WholeKind } from '../../../settings/settings-kind.ts';
import { useCloseSheet } from '../../../settings/use-close-sheet.ts';
import { useMarkRows } from '../../../settings/use-mark-rows.ts';
import { ShowRows } from '../../../settings/show-rows.tsx';
import { pages } from '../../../tree/words.ts';
import { Button } from '../../../ui/button.tsx';
import { TextArea, Tick } from '../../../ui/field.tsx';
import { Notice } from '../../../ui/notice.tsx';
import { type Marks, useWorkbench } from '../../../workbench/workbench-context.tsx';
import { decidersWords } from './approval-words.ts';

/** Offers pages for approval, ticked in the tree. */
export const PROPOSING: WholeKind = {
  title: 'Propose pages',
  Sign: UserCheck,
  description:
    'Those who decide are told, look at what visitors would notice, and approve it or return it with reasons. What you propose is ticked in the tree.',
  edits: 'write',
  isForBranches: true,
  Whole: Proposing,
};

function Proposing() {
  const { site, chosen, may, approvals, setBeside } = useWorkbench();
  const close = useCloseSheet();
  const people = useColleagues(site.key);
  const offered = useMemo(
    () => new Set(waitingPages(site).filter((page) => site.nodes.has(page) && may('write', page))),
    [site, may],
  );
  const [picked, setPicked] = useState<ReadonlySet<PageId>>(
    () => new Set(chosen.some((page) => offered.has(page)) ? chosen.filter((page) => offered.has(page)) : []),
  );
  const [note, setNote] = useKept(`proposal.${site.key}`);
  const [fault, setFault] = useState<string | null>(null);
  const [isSending, setSending] = useState(false);
  const pick = useCallback(
    (page: PageId) =>
      setPicked((before) => new Set(before.has(page) ? [...before].filter((one) => one !== page) : [...before, page])),
    [],
  );
  const marks = useMemo<Marks>(
    () => ({
      name: 'Propose',
      words: new Map([...picked].map((page) => [page, 'is proposed'])),
      ticks: {
        on: picked,
        of: offered,
        pick,
      },
    }),
    [picked, offered, pick],
  );
  useMarkRows(marks);
  const list = [...picked].filter((page) => offered.has(page));
  const deciders = [
    ...new Set(
      list.flatMap((page) => {
        const rule = approvals?.standing(page).rule;
        return rule ? [decidersWords(rule.by, rule.count, people)] : [];
      }),
    ),
  ];
  const send = () => {
    setSending(true);
    void propose(site.key, { pages: list, note: note.trim() })
      .then(
        (id) => {
          setNote('');
          setBeside({ kind: 'proposals', id });
        },
        (problem: unknown) => setFault(wordsOfFault(problem)),
      )
      .finally(() => setSending(false));
  };
  return (
    <div className="flex flex-col gap-4">
      {fault && <Notice>{fault}</Notice>}
      {offered.size === 0 && <p>Visitors have everything that you may write as it is drafted.</p>}
      {list.length === 0 && offered.size > 0 && <p>Tick pages in the tree: {pages(offered.size)} can be proposed.</p>}
      {list.length > 0 && (
        <section aria-label="These are proposed">
          <ul>
            {list.map((page) => (
              <li key={page}>
                <ShowRows pages={[page]}>{textIn(site.nodes.get(page)!.title, site.settings.language)}</ShowRows>
              </li>
            ))}
          </ul>
          <p className="mt-1 text-small text-quiet">
            {deciders.length === 0 ? 'None of these needs approval.' : `Approved by ${deciders.join('; ')}.`}
          </p>
        </section>
      )}
      <RemovedPages pages={[...offered].filter((page) => !maybeNodeAt(site, page))} picked={picked} onPick={pick} />
      <TextArea
        label="Note (optional)"
        hint="What it is about, for those who decide."
        rows={3}
        maxLength={4000}
        value={note}
        onChange={(event) => setNote(event.target.value)}
      />
      <SheetFoot>
        <Button onClick={close}>Cancel</Button>
        <Button look="main" disabled={list.length === 0 || isSending} onClick={send}>
          {list.length === 0 ? 'Nothing to propose' : `Propose ${pages(list.length)}`}
        </Button>
      </SheetFoot>
    </div>
  );
}

/** Pages that no row stands for any more, and that visitors still have. */
function RemovedPages({
  pages: removed,
  picked,
  onPick,
}: {
  readonly pages: readonly PageId[];
  readonly picked: ReadonlySet<PageId>;
  readonly onPick: (page: PageId) => void;
}) {
  const { site } = useWorkbench();
  if (removed.length === 0) return null;
  return (
    <fieldset>
      <legend className="mb-1 text-small font-medium">Removed from the tree, still live</legend>
      {removed.map((page) => (
        <Tick
          key={page}
          label={textIn(site.nodes.get(page)!.title, site.settings.language)}
          checked={picked.has(page)}
          onChange={() => onPick(page)}
        />
      ))}
    </fieldset>
  );
}
