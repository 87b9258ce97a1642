import { Check, Undo2, UserCheck } from 'lucide-react';
import { useMemo, useState } from 'react';
import { liveEffects } from '#core/changes/live-effects.ts';
import { planRelease } from '#core/changes/release-plan.ts';
import { printOf } from '#core/approval/print.ts';
import { differencesOf } from '#core/derive/state.ts';
import type { PageId } from '#core/model/ids.ts';
import { momentWords } from '#core/model/moment-words.ts';
import { textIn } from '#core/model/texts.ts';
import { ASPECT_WORDS, type Aspect } from '#core/model/node.ts';
import type { ChangedSince, Proposal } from '#contract/approval.ts';
import { decide, propose, useApproval, useChangedSince, withdrawProposal } from '../../../api/approval.ts';
import { wordsOfFault } from '../../../api/client.ts';
import { useColleagues } from '../../../api/people.ts';
import { useKept } from '../../../fields/use-kept.ts';
import { ListOfSettings, ListedItem } from '../../../settings/listed-item.tsx';
import type { AskedKind, Named } from '../../../settings/settings-kind.ts';
import { ShowRows } from '../../../settings/show-rows.tsx';
import { useMarkRows } from '../../../settings/use-mark-rows.ts';
import { DIFFERENCE_WORDS, pages } from '../../../tree/words.ts';
import { Button } from '../../../ui/button.tsx';
import { TextArea } from '../../../ui/field.tsx';
import { Notice } from '../../../ui/notice.tsx';
import { useNow } from '../../../ui/use-now.ts';
import { type Marks, useWorkbench } from '../../../workbench/workbench-context.tsx';
import { Effects } from '../release/effects.tsx';
import { ComparedTexts } from '../texts-sheet.tsx';
import { STANDING_WORDS, STATE_WORDS, decidersWords } from './approval-words.ts';
import { toast } from '../../../ui/toast.ts';

/** What colleagues offer for approval, and what was decided about it. */
export const PROPOSALS: AskedKind = {
  title: 'Proposals',
  one: 'proposal',
  Sign: UserCheck,
  description: 'Pages that colleagues offer for approval, with what visitors would notice, and what was decided.',
  useItems: useNamed,
  List: Proposals,
  One: OneProposal,
};

function useNamed(): readonly Named[] | undefined {
  const { site } = useWorkbench();
  const answer = useApproval(site.key);
  return useMemo(
    () => answer?.proposals.map(({ id, by, pages: of }) => ({ id, name: `${by}: ${pages(of.length)}` })),
    [answer],
  );
}

function Proposals() {
  const { site, may, setBeside } = useWorkbench();
  const answer = useApproval(site.key);
  if (!answer) return <p className="text-quiet">Loading …</p>;
  const { proposals, rules } = answer;
  const titles = (of: readonly PageId[]) =>
    of.map((page) => textIn(site.nodes.get(page)?.title ?? {}, site.settings.language)).join(', ');
  return (
    <div className="flex flex-col gap-3">
      {proposals.length === 0 && (
        <p>
          {rules.length === 0
            ? 'No branch needs approval, so there is nothing to propose.'
            : 'Nothing is proposed. Select pages that differ from what is live, and propose them.'}
        </p>
      )}
      {proposals.length > 0 && (
        <ListOfSettings label="Proposals">
          {proposals.map((one) => (
            <ListedItem
              key={one.id}
              to={{ kind: 'proposals', id: one.id }}
              sign={<UserCheck size={16} aria-hidden />}
              name={titles(one.pages)}
              waits={one.toDecide.length > 0 && 'Waits for you'}
              says={`${one.by}, ${momentWords(one.at, site.settings.timeZone)} · ${STATE_WORDS[one.state]}`}
            />
          ))}
        </ListOfSettings>
      )}
      <p className="flex flex-wrap gap-x-4 text-small">
        {rules.length > 0 && may('write', 'somewhere') && (
          <button
            type="button"
            className="text-accent hover:underline"
            onClick={() => setBeside({ kind: 'proposing', id: null })}
          >
            Propose pages…
          </button>
        )}
        <button
          type="button"
          className="text-accent hover:underline"
          onClick={() => setBeside({ kind: 'approval', id: null })}
        >
          Which branches need approval
        </button>
      </p>
    </div>
  );
}

function OneProposal({ id }: { readonly id: string }) {
  const { site, shown } = useWorkbench();
  const proposal = useApproval(site.key)?.proposals.find((one) => one.id === id);
  const isOpen = proposal?.state === 'open';
  const changed = useChangedSince(site.key, isOpen ? id : null, shown.revision)?.pages;
  const now = useNow();
  const standing = (proposal?.pages ?? []).filter((page) => differencesOf(site, page).length > 0);
  const key = standing.join();
  const plan = useMemo(
    () => planRelease(site, { pages: key === '' ? [] : (key.split(',') as PageId[]), retire: [], settings: [] }),
    [site, key],
  );
  const effects = useMemo(() => liveEffects(site, plan.after, now, new Set()), [site, plan, now]);
  useMarkRows(useProposalMarks(proposal));
  if (!proposal) return null;
  const { by, at, note, state, decisions } = proposal;
  return (
    <div className="flex flex-col gap-4">
      <div>
        <p className="text-small text-quiet">
          Proposed by {by}, {momentWords(at, site.settings.timeZone)} · {STATE_WORDS[state]}
        </p>
        {note !== '' && <p className="mt-1 whitespace-pre-wrap wrap-anywhere">{note}</p>}
      </div>
      <section aria-label="Pages">
        <ul className="flex flex-col gap-2">
          {proposal.pages.map((page) => (
            <ProposedPage key={page} page={page} isOpen={isOpen} changed={changed?.find((one) => one.page === page)} />
          ))}
        </ul>
      </section>
      {isOpen && standing.length > 0 && (
        <section aria-labelledby="proposal-effects" className="rounded-md border border-rule px-3 py-2.5">
          <h3 id="proposal-effects" className="mb-1.5 font-display text-large font-semibold">
            What visitors would notice
          </h3>
          <Effects effects={effects} after={plan.after} broken={[]} lacking={[]} />
        </section>
      )}
      {decisions.length > 0 && (
        <section aria-label="What was decided">
          <h3 className="mb-1 font-medium">What was decided</h3>
          <ul className="divide-y divide-rule rounded-md border border-rule bg-raised">
            {decisions.map((one) => (
              <li key={one.id} className="px-3 py-1.5">
                <p className={one.kind === 'returned' ? 'text-attention' : ''}>
                  {one.by} {one.kind === 'approved' ? 'approved it' : 'returned it'},{' '}
                  {momentWords(one.at, site.settings.timeZone)}
                </p>
                {one.words !== '' && <p className="whitespace-pre-wrap wrap-anywhere">{one.words}</p>}
              </li>
            ))}
          </ul>
        </section>
      )}
      <Deciding proposal={proposal} />
    </div>
  );
}

/** The pages of a proposal, each with how it stands. */
function useProposalMarks(proposal: Proposal | undefined): Marks | null {
  const { approvals } = useWorkbench();
  return useMemo(
    () =>
      proposal === undefined || approvals === null
        ? null
        : {
            name: 'Proposed',
            words: new Map(proposal.pages.map((page) => [page, STANDING_WORDS[approvals.standing(page).standing]])),
          },
    [proposal, approvals],
  );
}

function ProposedPage({
  page,
  isOpen,
  changed,
}: {
  readonly page: PageId;
  readonly isOpen: boolean;
  /** What is new on it since it was approved. */
  readonly changed: ChangedSince['pages'][number] | undefined;
}) {
  const { site, approvals } = useWorkbench();
  const people = useColleagues(site.key);
  const [isCompared, setCompared] = useState(false);
  const node = site.nodes.get(page);
  const title = textIn(node?.title ?? {}, site.settings.language);
  const { standing, rule, by } = approvals?.standing(page) ?? { standing: 'free' as const, rule: null, by: [] };
  const differences = differencesOf(site, page);
  const isTextChanged = changed?.differs.includes('text') === true;
  const before = isTextChanged ? changed!.textBefore : (site.live.get(page)?.node.content ?? null);
  const hasText = isTextChanged || differences.includes('text') || differences.includes('new');
  return (
    <li className="rounded-md border border-rule bg-raised px-3 py-2">
      <p className="flex items-baseline gap-2">
        <span className="min-w-0 flex-1 font-medium">
          <ShowRows pages={[page]}>{title}</ShowRows>
        </span>
        {isOpen && (
          <span
            className={`text-small font-medium ${standing === 'approved' ? 'text-accent' : standing === 'free' ? 'text-quiet' : 'text-attention'}`}
          >
            {standing === 'free' ? 'Needs no approval' : STANDING_WORDS[standing]}
          </span>
        )}
      </p>
      {isOpen && rule && (
        <p className="text-small text-quiet">
          Approvals: {by.length} of {rule.count}, from {decidersWords(rule.by, rule.count, people)}
        </p>
      )}
      <p className="text-small">
        {changed
          ? `New since ${changed.approvedBy} approved it: ${changed.differs.map((one) => ASPECT_WORDS[one as keyof typeof ASPECT_WORDS] ?? DIFFERENCE_WORDS[one as Aspect]).join(', ')}`
          : differences.length === 0
            ? 'Visitors have it as it is drafted.'
            : `Differs: ${differences.map((one) => DIFFERENCE_WORDS[one]).join(', ')}`}
      </p>
      {isOpen && hasText && (
        <>
          <button
            type="button"
            aria-expanded={isCompared}
            className="text-small text-accent hover:underline"
            onClick={() => setCompared(!isCompared)}
          >
            {isCompared ? 'Hide the texts' : isTextChanged ? 'Show what is new in the text' : 'Compare the texts'}
          </button>
          {isCompared && (
            <ComparedTexts
              before={before}
              after={node?.content ?? null}
              heads={isTextChanged ? ['As it was approved', 'Now'] : ['Live', 'Draft']}
            />
          )}
        </>
      )}
    </li>
  );
}

/** What whoever looks can do: approve or return, propose again, withdraw, make live. */
function Deciding({ proposal }: { readonly proposal: Proposal }) {
  const { site, approvals, mayPublish, setBeside, select, may } = useWorkbench();
  const [words, setWords] = useKept(`decision.${proposal.id}`);
  const [fault, setFault] = useState<string | null>(null);
  const [isSending, setSending] = useState(false);
  const { id, state, toDecide, isOwn } = proposal;
  const run = (what: Promise<unknown>, done: string) => {
    setSending(true);
    setFault(null);
    void what
      .then(
        () => {
          setWords('');
          toast.success(done);
        },
        (problem: unknown) => setFault(wordsOfFault(problem)),
      )
      .finally(() => setSending(false));
  };
  const isApproved = state === 'open' && approvals?.lacking(proposal.pages).length === 0;
  const prints = () => Object.fromEntries(toDecide.map((page) => [page, printOf(site, page)]));
  return (
    <div className="flex flex-col gap-3">
      {fault && <Notice>{fault}</Notice>}
      {toDecide.length > 0 && (
        <>
          <TextArea
            label="What you want to say"
            hint="Needed where you return it."
            rows={3}
            maxLength={4000}
            value={words}
            onChange={(event) => setWords(event.target.value)}
          />
          <div className="flex flex-wrap gap-2">
            <Button
              look="main"
              disabled={isSending}
              onClick={() =>
                run(decide(site.key, id, { kind: 'approved', words: words.trim(), prints: prints() }), 'Approved.')
              }
            >
              <Check size={15} aria-hidden /> Approve {pages(toDecide.length)}
            </Button>
            <Button
              disabled={isSending || words.trim() === ''}
              onClick={() =>
                run(decide(site.key, id, { kind: 'returned', words: words.trim(), prints: {} }), 'Returned.')
              }
            >
              <Undo2 size={15} aria-hidden /> Return it
            </Button>
          </div>
        </>
      )}
      <div className="flex flex-wrap gap-2">
        {isApproved && mayPublish && (
          <Button
            look="main"
            onClick={() => {
              const [first] = proposal.pages;
              if (first) select({ active: first, chosen: new Set(proposal.pages), anchor: first });
              setBeside({ kind: 'going-live', id: null });
            }}
          >
            Make {proposal.pages.length === 1 ? 'this page' : 'these'} live…
          </Button>
        )}
        {isOwn && state === 'returned' && (
          <Button
            disabled={isSending}
            onClick={() =>
              run(propose(site.key, { pages: [...proposal.pages], note: proposal.note }), 'Proposed again.')
            }
          >
            Propose it again
          </Button>
        )}
        {state === 'open' && (isOwn || may('everything', null)) && (
          <Button look="quiet" disabled={isSending} onClick={() => run(withdrawProposal(site.key, id), 'Withdrawn.')}>
            Withdraw it
          </Button>
        )}
      </div>
    </div>
  );
}
