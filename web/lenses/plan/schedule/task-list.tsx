import type { Task } from '#core/derive/schedule.ts';
import type { PageId } from '#core/model/ids.ts';
import { READINESS_WORDS, dayWords } from '../../../tree/plan-words.tsx';
import { useArrangement } from '../../../workbench/use-view.ts';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { numberWords } from '../../../ui/number-words.ts';

/** Pages that have to be written; pressing one goes to it in the tree. */
export function TaskList({ tasks }: { readonly tasks: readonly Task[] }) {
  const { select, setView } = useWorkbench();
  const [{ view }] = useArrangement();
  const go = (page: PageId) => {
    select({ active: page, chosen: new Set([page]), anchor: page });
    setView(view);
  };
  return (
    <ul>
      {tasks.map((task) => (
        <li key={task.page} className="border-b border-rule py-1.5 last:border-0">
          <div className="flex items-baseline gap-3">
            <button
              type="button"
              onClick={() => go(task.page)}
              title={[...task.above, task.title].join(' › ')}
              className="min-w-0 flex-1 truncate text-left font-medium hover:text-accent hover:underline"
            >
              {task.title}
            </button>
            <span
              className={`text-small whitespace-nowrap ${task.isLate ? 'font-medium text-attention' : 'text-quiet'}`}
            >
              {task.isLate ? `since ${dayWords(task.due)}` : dayWords(task.due)}
            </span>
          </div>
          <p className="text-small text-quiet">
            {task.owner || 'Nobody yet'} · {READINESS_WORDS[task.readiness].toLowerCase()} · {numberWords(task.words)}{' '}
            words
          </p>
        </li>
      ))}
    </ul>
  );
}
