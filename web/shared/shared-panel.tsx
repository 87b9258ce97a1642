import { useState } from 'react';
import { VERDICTS } from '#core/model/feedback.ts';
import type { PageId } from '#core/model/ids.ts';
import { planOf } from '#core/model/plan.ts';
import { nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import type { SharedPlanAnswer } from '#contract/sharing.ts';
import { VERDICT_MEANING, VERDICT_WORDS, VerdictSign } from '../tree/feedback-words.tsx';
import { IMPORTANCE_WORDS, ORIGIN_MEANING, ORIGIN_WORDS, READINESS_WORDS, dayWords } from '../tree/plan-words.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { Comments } from './comments.tsx';
import { SharedSketch } from './shared-sketch.tsx';
import { type CommentDraft, NO_DRAFT } from './new-comment.tsx';
import { numberWords } from '../ui/number-words.ts';

interface PanelProps {
  readonly token: string;
  readonly plan: SharedPlanAnswer;
  /** Does something under the guest's name, which is asked for first where there is none. */
  readonly named: (work: () => void) => void;
}

/** The selected page of a shared plan: what is planned for it, what the guest thinks of it, and what was said. */
export function SharedPanel(props: PanelProps) {
  const { selection } = useWorkbench();
  // What is typed about a page stays while others are looked at.
  const [drafts, setDrafts] = useState<Readonly<Record<string, CommentDraft>>>({});
  const page = selection.active;
  return (
    <aside
      aria-label="Selected page"
      className="min-h-0 overflow-y-auto border-l border-rule bg-paper p-4 max-md:border-t max-md:border-l-0"
    >
      {page === null ? (
        <p className="text-quiet">Select a page to see what is planned for it.</p>
      ) : (
        <OnePage
          key={page}
          page={page}
          draft={drafts[page] ?? NO_DRAFT}
          onDraft={(draft) => setDrafts((before) => ({ ...before, [page]: draft }))}
          {...props}
        />
      )}
    </aside>
  );
}

interface Writing {
  readonly draft: CommentDraft;
  readonly onDraft: (draft: CommentDraft) => void;
}

function OnePage({ page, token, plan, named, ...writing }: PanelProps & Writing & { readonly page: PageId }) {
  const { site, derived } = useWorkbench();
  const node = nodeAt(site, page);
  const address = derived.addresses[derived.outline.rowOf.get(page)!];
  return (
    <div className="flex flex-col gap-4">
      <div>
        <h2 className="font-display text-title leading-tight font-semibold">
          {textIn(node.title, site.settings.language)}
        </h2>
        {address && <p className="mt-1 font-mono text-small break-all text-quiet">{address}</p>}
      </div>
      <YourVerdict page={page} />
      <Planned page={page} />
      <SharedSketch page={page} token={token} plan={plan} named={named} {...writing} />
      <Comments page={page} token={token} plan={plan} named={named} {...writing} />
    </div>
  );
}

const LOOKS = {
  agreed: 'border-accent bg-accent-soft text-accent',
  change: 'border-attention bg-attention-soft text-attention',
  unsure: 'border-ink bg-sunken text-ink',
} as const;

function YourVerdict({ page }: { readonly page: PageId }) {
  const { guest, derived } = useWorkbench();
  const mine = guest!.verdicts[derived.outline.rowOf.get(page)!] ?? null;
  return (
    <fieldset>
      <legend className="mb-1 text-small font-medium">What do you think of this page?</legend>
      <div className="grid grid-cols-3 gap-1.5">
        {VERDICTS.map((verdict) => (
          <button
            key={verdict}
            type="button"
            aria-pressed={mine === verdict}
            onClick={() => guest!.give([page], mine === verdict ? null : verdict)}
            className={`inline-flex h-10 items-center justify-center gap-1.5 rounded-md border font-medium ${mine === verdict ? LOOKS[verdict] : 'border-edge bg-raised hover:border-ink'}`}
          >
            <VerdictSign verdict={verdict} size={16} /> {VERDICT_WORDS[verdict]}
          </button>
        ))}
      </div>
      <p className="mt-1 min-h-5 text-small text-quiet">
        {mine === null ? 'You have not answered yet.' : VERDICT_MEANING[mine]}
      </p>
    </fieldset>
  );
}

/** What is planned for the page, as far as it is said. */
function Planned({ page }: { readonly page: PageId }) {
  const { site } = useWorkbench();
  const node = nodeAt(site, page);
  const { origin, purpose, owner, due, readiness, importance, words, goals, oldAddresses } = planOf(node);
  const served = site.goals.filter(({ id }) => goals.includes(id)).map(({ statement }) => statement);
  const facts: readonly (readonly [string, string | false | null])[] = [
    ['Origin', origin !== null && `${ORIGIN_WORDS[origin]}. ${ORIGIN_MEANING[origin]}`],
    ['Old addresses', oldAddresses.join('\n')],
    ['Serves', served.join('\n')],
    ['Written by', owner],
    ['Due', due !== null && dayWords(due)],
    ['Readiness', node.type === 'page' && READINESS_WORDS[readiness]],
    ['Words', words !== null && numberWords(words)],
    ['Importance', importance !== null && IMPORTANCE_WORDS[importance]],
  ];
  return (
    <section aria-label="What is planned" className="border-t border-rule pt-3">
      {purpose !== '' && <p className="mb-2">{purpose}</p>}
      <dl className="grid grid-cols-[6.5rem_minmax(0,1fr)] gap-x-2 gap-y-1">
        {facts.map(
          ([name, value]) =>
            value && (
              <div key={name} className="contents">
                <dt className="text-small leading-6 text-quiet">{name}</dt>
                <dd
                  className={`whitespace-pre-line ${name === 'Old addresses' ? 'font-mono text-small leading-6 break-all' : ''}`}
                >
                  {value}
                </dd>
              </div>
            ),
        )}
      </dl>
    </section>
  );
}
