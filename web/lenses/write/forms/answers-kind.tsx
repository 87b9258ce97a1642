import { Circle, CircleCheck, CircleDot, Download, Inbox, Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { ANSWER_STATES, type AnswerState, MAX_ANSWER_NOTE_LENGTH, type Said } from '#core/forms/answer.ts';
import { momentWords } from '#core/model/moment-words.ts';
import { maybeNodeAt } from '#core/model/site.ts';
import type { FormId } from '#core/model/site-form.ts';
import type { AnswersAnswer, ListedAnswer, WholeAnswer } from '#contract/answers.ts';
import {
  type AnswerFilter,
  answersCsvAddress,
  deleteAnswer,
  olderAnswers,
  setAnswer,
  useAnswer,
  useAnswers,
} from '../../../api/answers.ts';
import { wordsOfFault } from '../../../api/client.ts';
import { DraftField } from '../../../fields/draft-field.tsx';
import { ListOfSettings, ListedItem } from '../../../settings/listed-item.tsx';
import type { AskedKind, Named } from '../../../settings/settings-kind.ts';
import { Button } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/field.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { toast } from '../../../ui/toast.ts';

/** What visitors have sent by forms. */
export const ANSWERS: AskedKind = {
  edits: 'answers',
  title: 'Answers',
  one: 'answer',
  Sign: Inbox,
  needs: 'answers',
  description:
    'What visitors have sent with forms, newest first. Changing, moving or removing a form or its page keeps its answers; they are deleted after the number of days set in the form.',
  useItems: useLatest,
  List: AnswerList,
  One: OneAnswer,
};

const STATE_WORDS: Readonly<Record<AnswerState, string>> = { new: 'New', begun: 'In progress', done: 'Done' };
const STATE_SIGNS = { new: CircleDot, begun: Circle, done: CircleCheck } as const;

function useLatest(): readonly Named[] | undefined {
  const { site, beside } = useWorkbench();
  const latest = useAnswers(site.key);
  const open = beside?.kind === 'answers' ? beside.id : null;
  return useMemo(() => {
    if (!latest) return undefined;
    const items = latest.answers.map((one) => ({ id: one.id, name: one.words || one.formName }));
    // An older one is asked for by itself.
    return open === null || items.some(({ id }) => id === open) ? items : [...items, { id: open, name: 'An answer' }];
  }, [latest, open]);
}

function AnswerList() {
  const { site } = useWorkbench();
  const [filter, setFilter] = useState<AnswerFilter>({ form: null, state: null });
  const latest = useAnswers(site.key, filter);
  const [older, setOlder] = useState<{ of: AnswersAnswer; more: AnswersAnswer[] } | null>(null);
  if (!latest) return <p className="text-quiet">Loading …</p>;
  const more = older?.of === latest ? older.more : [];
  const answers = [latest, ...more].flatMap((part) => part.answers);
  const showMore = async () => {
    try {
      const next = await olderAnswers(site.key, filter, answers.at(-1)!.id);
      setOlder({ of: latest, more: [...more, next] });
    } catch (fault) {
      toast.error(wordsOfFault(fault));
    }
  };
  return (
    <div className="flex flex-col gap-4">
      {latest.totals.length > 0 && <Filters totals={latest.totals} filter={filter} onSet={setFilter} />}
      {answers.length === 0 ? (
        <p className="text-quiet">
          {latest.totals.length === 0
            ? 'Nothing has been sent yet. Insert a form into the text of a page, and make both live.'
            : 'No answers match.'}
        </p>
      ) : (
        <ListOfSettings label="Answers">
          {answers.map((one) => (
            <OfList key={one.id} answer={one} isWithForm={filter.form === null} />
          ))}
        </ListOfSettings>
      )}
      {(more.at(-1) ?? latest).hasMore && (
        <Button className="self-start" onClick={() => void showMore()}>
          Show older answers
        </Button>
      )}
    </div>
  );
}

function OfList({ answer, isWithForm }: { readonly answer: ListedAnswer; readonly isWithForm: boolean }) {
  const { site } = useWorkbench();
  const Sign = STATE_SIGNS[answer.state];
  return (
    <ListedItem
      to={{ kind: 'answers', id: answer.id }}
      sign={<Sign size={16} aria-hidden />}
      name={answer.words || 'Nothing was filled in'}
      waits={answer.state === 'new' ? STATE_WORDS.new : undefined}
      says={[
        isWithForm && answer.formName,
        momentWords(answer.sentAt, site.settings.timeZone),
        answer.state !== 'new' && STATE_WORDS[answer.state],
        answer.hasNote && 'with a note',
      ]
        .filter(Boolean)
        .join(' · ')}
    />
  );
}

function Filters({
  totals,
  filter,
  onSet,
}: {
  readonly totals: AnswersAnswer['totals'];
  readonly filter: AnswerFilter;
  readonly onSet: (filter: AnswerFilter) => void;
}) {
  const { site } = useWorkbench();
  const nameOf = (form: FormId, name: string): string =>
    site.settings.forms.find(({ id }) => id === form)?.name ?? `${name} (removed)`;
  return (
    <div className="grid items-end gap-3 @sm:grid-cols-2">
      <Choice
        label="Form"
        value={filter.form ?? ''}
        onChange={(event) => onSet({ ...filter, form: (event.target.value || null) as FormId | null })}
      >
        <option value="">All forms</option>
        {totals.map(({ form, name, count }) => (
          <option key={form} value={form}>
            {nameOf(form, name)} ({count})
          </option>
        ))}
      </Choice>
      <Choice
        label="State"
        value={filter.state ?? ''}
        onChange={(event) => onSet({ ...filter, state: (event.target.value || null) as AnswerState | null })}
      >
        <option value="">Any state</option>
        {ANSWER_STATES.map((state) => (
          <option key={state} value={state}>
            {STATE_WORDS[state]}
          </option>
        ))}
      </Choice>
      {filter.form !== null && (
        <a
          className="inline-flex h-8 items-center gap-1.5 justify-self-start rounded-md border border-edge bg-raised px-3 font-medium hover:border-ink"
          href={answersCsvAddress(site.key, filter.form)}
          download
        >
          <Download size={15} aria-hidden /> Export as CSV
        </a>
      )}
    </div>
  );
}

function OneAnswer({ id, onGone }: { readonly id: string; readonly onGone: () => void }) {
  const { site } = useWorkbench();
  const { answer, fault } = useAnswer(site.key, id);
  if (!answer) return <p className="text-quiet">{fault ? wordsOfFault(fault) : 'Loading …'}</p>;
  const save = async (body: Parameters<typeof setAnswer>[2]) => {
    try {
      await setAnswer(site.key, id, body);
    } catch (failed) {
      toast.error(wordsOfFault(failed));
    }
  };
  const remove = async () => {
    try {
      await deleteAnswer(site.key, id);
      onGone();
    } catch (failed) {
      toast.error(wordsOfFault(failed));
    }
  };
  return (
    <div className="flex flex-col gap-4">
      <p className="text-small text-quiet">
        {answer.formName} · {momentWords(answer.sentAt, site.settings.timeZone)}
        {answer.visitorName !== null && ` · signed in as ${answer.visitorName}`}
      </p>
      <FromPage answer={answer} />
      <dl className="flex flex-col gap-3">
        {answer.said.map((one) => (
          <div key={one.field}>
            <dt className="text-small font-medium text-quiet">{one.name}</dt>
            <dd className="whitespace-pre-wrap wrap-anywhere">
              <SaidWords said={one} />
            </dd>
          </div>
        ))}
      </dl>
      <div className="flex flex-col gap-3 border-t border-rule pt-4">
        <Choice
          label="State"
          value={answer.state}
          onChange={(event) => void save({ state: event.target.value as AnswerState })}
        >
          {ANSWER_STATES.map((state) => (
            <option key={state} value={state}>
              {STATE_WORDS[state]}
            </option>
          ))}
        </Choice>
        <DraftField
          label="Note"
          isLong
          saved={answer.note}
          longest={MAX_ANSWER_NOTE_LENGTH}
          hint="For colleagues; the visitor does not see it."
          onSave={(note) => void save({ note })}
        />
      </div>
      <DeleteForGood onDelete={() => void remove()} />
    </div>
  );
}

/** The page that it was sent from, where it is now. */
function FromPage({ answer: { page, pageTitle } }: { readonly answer: WholeAnswer }) {
  const { site, select } = useWorkbench();
  const node = page === null ? undefined : maybeNodeAt(site, page);
  if (!node || node.removedWith !== null)
    return <p className="text-small text-quiet">Sent from ‘{pageTitle}’, which is not in the tree any more.</p>;
  return (
    <p className="text-small text-quiet">
      Sent from{' '}
      <button
        type="button"
        className="text-accent underline"
        onClick={() => select({ active: node.id, chosen: new Set([node.id]), anchor: node.id })}
      >
        {pageTitle}
      </button>
    </p>
  );
}

function SaidWords({ said: { type, value, words, agreed } }: { readonly said: Said }) {
  const { site } = useWorkbench();
  if (type === 'file')
    return (
      <a className="text-accent underline" href={`/api/sites/${encodeURIComponent(site.key)}/files/${value}`} download>
        {words}
      </a>
    );
  if (type === 'mail')
    return (
      <a className="text-accent underline" href={`mailto:${value.split('@').map(encodeURIComponent).join('@')}`}>
        {words}
      </a>
    );
  return (
    <>
      {words}
      {agreed && (
        <span className="block text-small text-quiet">
          ‘{agreed.title}’, as of release {agreed.release}
        </span>
      )}
    </>
  );
}

/** An answer cannot be brought back, so it is deleted by a second press. */
function DeleteForGood({ onDelete }: { readonly onDelete: () => void }) {
  const [isAsked, setAsked] = useState(false);
  return (
    <div className="flex flex-wrap items-center gap-2 border-t border-rule pt-3">
      {isAsked ? (
        <>
          <p>Neither the answer nor its files can be brought back.</p>
          <Button className="text-danger" onClick={onDelete}>
            <Trash2 size={15} aria-hidden /> Delete the answer
          </Button>
          <Button onClick={() => setAsked(false)}>Keep it</Button>
        </>
      ) : (
        <Button look="quiet" className="-ml-2" onClick={() => setAsked(true)}>
          <Trash2 size={15} aria-hidden /> Delete for good…
        </Button>
      )}
    </div>
  );
}
