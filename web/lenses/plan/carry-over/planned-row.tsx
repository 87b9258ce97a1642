import { useDroppable } from '@dnd-kit/core';
import type { PageId } from '#core/model/ids.ts';
import type { SiteNode } from '#core/model/node.ts';
import { planOf } from '#core/model/plan.ts';
import { textIn } from '#core/model/texts.ts';
import { ORIGIN_WORDS, OriginSign } from '../../../tree/plan-words.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { type Line, ROW } from './carry-over-context.ts';

/** One page of the plan, with where it comes from. */
export function PlannedRow({
  id,
  node,
  depth,
  lines,
  top,
  isChosen,
  onChoose,
}: {
  readonly id: string;
  readonly node: SiteNode;
  readonly depth: number;
  readonly lines: readonly Line[];
  readonly top: number;
  readonly isChosen: boolean;
  readonly onChoose: (page: PageId) => void;
}) {
  const { site } = useWorkbench();
  const { setNodeRef, isOver } = useDroppable({ id: node.id });
  const plan = planOf(node);
  const accepted = plan.oldAddresses.length;
  const proposed = lines.filter((line) => line.pair !== null).length;
  const source =
    accepted > 0
      ? accepted === 1
        ? 'from 1 old page'
        : `from ${accepted} old pages`
      : plan.origin === 'new'
        ? 'no old page'
        : proposed > 0
          ? proposed === 1
            ? '1 proposal'
            : `${proposed} proposals`
          : 'no source yet';
  return (
    // The list has the focus and names its chosen row, so rows take none themselves.
    // eslint-disable-next-line jsx-a11y/interactive-supports-focus, jsx-a11y/click-events-have-key-events
    <div
      ref={setNodeRef}
      role="option"
      id={id}
      aria-selected={isChosen}
      onClick={() => onChoose(node.id)}
      className={`absolute inset-x-0 flex cursor-pointer items-center border-b border-rule/60 pr-3 ${isOver ? 'bg-accent text-on-accent' : isChosen ? 'bg-accent-soft' : 'hover:bg-sunken/60'}`}
      style={{ top, height: ROW, paddingLeft: 12 + depth * 16 }}
    >
      <div className="min-w-0 flex-1 leading-tight">
        <p className="truncate font-medium">{textIn(node.title, site.settings.language)}</p>
        <p className={`flex items-center gap-1.5 text-tiny ${isOver ? '' : 'text-quiet'}`}>
          {plan.origin !== null && (accepted > 0 || plan.origin === 'new') && (
            <>
              <OriginSign origin={plan.origin} /> {ORIGIN_WORDS[plan.origin]},
            </>
          )}
          <span
            className={accepted === 0 && proposed === 0 && plan.origin !== 'new' && !isOver ? 'text-attention' : ''}
          >
            {source}
          </span>
        </p>
      </div>
    </div>
  );
}
