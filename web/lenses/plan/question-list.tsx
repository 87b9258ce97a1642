import type { PageId } from '#core/model/ids.ts';
import { type Question, planOf } from '#core/model/plan.ts';
import { nodeAt } from '#core/model/site.ts';
import { useSession } from '../../api/session.ts';
import { newQuestionId } from '../../api/site-store.ts';
import { DraftField } from '../../fields/draft-field.tsx';
import { useKept } from '../../fields/use-kept.ts';
import { dayWords } from '../../tree/plan-words.tsx';
import { Button } from '../../ui/button.tsx';
import { TextArea } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

const MAX_QUESTION_LENGTH = 2000;
const MAX_ANSWER_LENGTH = 4000;

/** What is asked about a page: open questions first, each with its answer and who settled it. */
export function QuestionList({ page }: { readonly page: PageId }) {
  const { site, store } = useWorkbench();
  const name = useSession()?.account?.name ?? '';
  const [typed, setTyped] = useKept(`question ${site.key} ${page}`);
  const questions = Object.entries(planOf(nodeAt(site, page)).questions);
  const set = (id: string, question: Question | null) =>
    store.apply([{ name: 'page.set', page, fields: { plan: { questions: { [id]: question } } } }]);
  const open = questions.filter(([, question]) => question.settledBy === null);
  const settled = questions.filter(([, question]) => question.settledBy !== null);
  const ask = () => {
    const text = typed.trim();
    if (text === '') return;
    set(newQuestionId(), { text, by: name, at: new Date().toISOString(), answer: '', settledBy: null });
    setTyped('');
  };
  return (
    <section aria-label="Questions" className="flex flex-col gap-2 border-t border-rule pt-4">
      <h3 className="font-display text-large font-semibold">Questions</h3>
      {open.map(([id, question]) => (
        <div key={id} className="rounded-md border border-edge bg-raised px-3 py-2">
          <p className="font-medium">{question.text}</p>
          <p className="mb-2 text-small text-quiet">
            {question.by} asked on {dayWords(question.at)}
          </p>
          <DraftField
            label="Answer"
            isLong
            saved={question.answer}
            longest={MAX_ANSWER_LENGTH}
            onSave={(answer) => set(id, { ...question, answer: answer.trim() })}
          />
          <div className="mt-2 flex gap-2">
            <Button onClick={() => set(id, { ...question, settledBy: name })}>Settle</Button>
            <Button look="quiet" onClick={() => set(id, null)}>
              Remove
            </Button>
          </div>
        </div>
      ))}
      {settled.map(([id, question]) => (
        <div key={id} className="border-l-2 border-rule pl-3">
          <p>{question.text}</p>
          {question.answer !== '' && <p className="text-quiet">{question.answer}</p>}
          <p className="text-small text-quiet">
            Settled by {question.settledBy}.{' '}
            <button
              type="button"
              className="text-accent hover:underline"
              onClick={() => set(id, { ...question, settledBy: null })}
            >
              Reopen
            </button>
          </p>
        </div>
      ))}
      <form
        onSubmit={(event) => {
          event.preventDefault();
          ask();
        }}
        className="flex flex-col gap-2"
      >
        <TextArea
          label={questions.length === 0 ? 'What needs an answer?' : 'Another question'}
          rows={2}
          maxLength={MAX_QUESTION_LENGTH}
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          onKeyDown={(event) => {
            if (event.key === 'Enter' && (event.ctrlKey || event.metaKey)) ask();
          }}
        />
        <div>
          <Button type="submit" disabled={typed.trim() === ''}>
            Ask
          </Button>
        </div>
      </form>
    </section>
  );
}
