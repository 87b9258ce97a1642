import { useMemo } from 'react';
import type { PageId } from '#core/model/ids.ts';
import { heldAt, powersOf } from '#core/people/powers.ts';
import { useColleagues } from '../../../api/people.ts';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { heldWords } from './role-words.ts';

/** Which colleague has which role at a page, and through which branch. */
export function PageColleagues({ page }: { readonly page: PageId }) {
  const { site, setBeside } = useWorkbench();
  const answer = useColleagues(site.key);
  const rows = useMemo(
    () =>
      (answer?.colleagues ?? []).flatMap(({ id, name, state, roles }) => {
        if (!answer || state === 'suspended') return [];
        const { held, through } = heldAt(site, powersOf(answer.roles, roles), page);
        if (!held) return [];
        return [{ id, name, words: heldWords(site, held, through, page), isNear: through !== null }];
      }),
    [answer, site, page],
  );
  if (rows.length === 0) return null;
  return (
    <section aria-label="Colleagues" className="flex flex-col gap-2 border-t border-rule pt-4">
      <h3 className="font-display text-large font-semibold">Who works on it</h3>
      <ul className="divide-y divide-rule border-y border-rule">
        {rows
          .toSorted((a, b) => Number(b.isNear) - Number(a.isNear))
          .map(({ id, name, words, isNear }) => (
            <li key={id} className="flex flex-wrap items-baseline gap-x-3 py-1">
              <button
                type="button"
                className="min-w-0 flex-1 text-left hover:text-accent hover:underline"
                onClick={() => setBeside({ kind: 'colleagues', id })}
              >
                {name}
              </button>
              <span className={`text-small ${isNear ? '' : 'text-quiet'}`}>{words}</span>
            </li>
          ))}
      </ul>
    </section>
  );
}
