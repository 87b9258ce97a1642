import { type FormEvent, useState } from 'react';
import { toast } from 'sonner';
import { type CommentKind, MAX_COMMENT_LENGTH, VERDICTS } from '#core/model/feedback.ts';
import type { PageId } from '#core/model/ids.ts';
import { planOf } from '#core/model/plan.ts';
import { nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import type { CommentAnswer, SharedPlanAnswer } from '#contract/sharing.ts';
import { wordsOfFault } from '../api/client.ts';
import { addComment, takeBackComment } from '../api/shared-plan.ts';
import { VERDICT_MEANING, VERDICT_WORDS, VerdictSign } from '../tree/feedback-words.tsx';
import { IMPORTANCE_WORDS, ORIGIN_MEANING, ORIGIN_WORDS, READINESS_WORDS, dayWords } from '../tree/plan-words.tsx';
import { Button } from '../ui/button.tsx';
import { Radios, TextArea } from '../ui/field.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';
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
  const [typed, setTyped] = useState<Readonly<Record<string, string>>>({});
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
          typed={typed[page] ?? ''}
          onType={(text) => setTyped((before) => ({ ...before, [page]: text }))}
          {...props}
        />
      )}
    </aside>
  );
}

interface Typing {
  readonly typed: string;
  readonly onType: (text: string) => void;
}

function OnePage({ page, token, plan, named, ...typing }: PanelProps & Typing & { readonly page: PageId }) {
  const { site, derived } = useWorkbench();
  const node = nodeAt(site, page);
  const address = derived.addresses[derived.outline.rowOf.get(page)!];
  const comments = plan.feedback.comments.filter((one) => one.page === page);
  const others = plan.feedback.verdicts.filter((one) => one.page === page && one.guest !== plan.guest?.id);
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
      <section aria-label="Comments" className="flex flex-col gap-2 border-t border-rule pt-4">
        <h3 className="font-display text-large font-semibold">Comments</h3>
        {others.length > 0 && (
          <p className="text-small text-quiet">
            {others.map(({ by, verdict }) => `${by}: ${VERDICT_WORDS[verdict].toLowerCase()}`).join(' · ')}
          </p>
        )}
        {comments.map((one) => (
          <OneComment key={one.id} token={token} comment={one} isMine={one.guest === plan.guest?.id} />
        ))}
        <NewComment page={page} token={token} named={named} {...typing} />
      </section>
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

function OneComment({
  token,
  comment,
  isMine,
}: {
  readonly token: string;
  readonly comment: CommentAnswer;
  readonly isMine: boolean;
}) {
  const { id, kind, text, by, at, answer, answeredBy, settledBy } = comment;
  return (
    <article className="rounded-md border border-rule bg-raised px-3 py-2">
      <p className="whitespace-pre-wrap">{text}</p>
      <p className="text-small text-quiet">
        {isMine ? 'You' : by} {kind === 'question' ? 'asked' : 'wrote'} on {dayWords(at)}
        {settledBy !== null && `, settled by ${settledBy}`}
        {isMine && answeredBy === null && (
          <>
            {'. '}
            <button
              type="button"
              className="text-accent hover:underline"
              onClick={() =>
                void takeBackComment(token, id).catch((fault: unknown) => toast.error(wordsOfFault(fault)))
              }
            >
              Take it back
            </button>
          </>
        )}
      </p>
      {answer !== '' && (
        <p className="mt-2 border-l-2 border-accent pl-2 whitespace-pre-wrap">
          <span className="font-medium">{answeredBy}:</span> {answer}
        </p>
      )}
    </article>
  );
}

const KINDS: readonly { readonly value: CommentKind; readonly words: string }[] = [
  { value: 'comment', words: 'A comment' },
  { value: 'question', words: 'A question' },
];

function NewComment({
  page,
  token,
  named,
  typed,
  onType,
}: Pick<PanelProps, 'token' | 'named'> & Typing & { readonly page: PageId }) {
  const [kind, setKind] = useState<CommentKind>('comment');
  const [isSending, setSending] = useState(false);
  const text = typed.trim();
  const send = () => {
    setSending(true);
    void addComment(token, { page, kind, text })
      .then(
        () => onType(''),
        (fault: unknown) => toast.error(wordsOfFault(fault)),
      )
      .finally(() => setSending(false));
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (text !== '') named(send);
  };
  return (
    <form onSubmit={submit} className="flex flex-col gap-2">
      <TextArea
        label="What should be different, or what do you want to know?"
        rows={3}
        maxLength={MAX_COMMENT_LENGTH}
        value={typed}
        onChange={(event) => onType(event.target.value)}
      />
      <Radios legend="It is" choices={KINDS} value={kind} onChoose={setKind} />
      <div>
        <Button type="submit" disabled={text === '' || isSending}>
          {kind === 'question' ? 'Ask' : 'Send the comment'}
        </Button>
      </div>
    </form>
  );
}
