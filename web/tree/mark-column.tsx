import { Check } from 'lucide-react';
import type { Column } from './columns.tsx';
import { markOf } from './row-data.ts';

const known = new Map<string, Column>();

/** The column that says of marked rows why they are, and in which rows are picked where they can be. */
export function markColumn(name: string): Column {
  let column = known.get(name);
  if (!column) {
    column = {
      key: 'mark',
      name,
      width: 170,
      values: ({ marks, derived }, row) => {
        const { id } = derived.outline.nodes[row]!;
        const ticks = marks?.ticks;
        return [marks?.words.get(id) ?? null, ticks?.of.has(id) ? ticks.on.has(id) : null, markOf(marks, id)];
      },
      cell: ([words, isOn, mark], { page, title, latest }) => (
        <>
          {isOn !== null && (
            <button
              type="button"
              role="checkbox"
              tabIndex={-1}
              aria-checked={isOn === true}
              aria-label={`${name}: ${title}`}
              onClick={() => latest().marks?.ticks?.pick(page)}
              className="-ml-1 mr-1 inline-flex size-6 shrink-0 items-center justify-center"
            >
              <span
                className={`inline-flex size-4 items-center justify-center rounded-sm border ${isOn === true ? 'border-accent bg-accent text-on-accent' : 'border-edge bg-raised'}`}
              >
                {isOn === true && <Check size={12} strokeWidth={3} aria-hidden />}
              </span>
            </button>
          )}
          {words !== null && (
            <span className={`truncate text-small ${mark === 'faint' ? 'text-quiet' : ''}`} title={String(words)}>
              {words}
            </span>
          )}
        </>
      ),
    };
    known.set(name, column);
  }
  return column;
}
