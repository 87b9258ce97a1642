import { useDraggable } from '@dnd-kit/core';
import { ChevronRight } from 'lucide-react';
import type { ReactNode } from 'react';
import { useDrag } from '../drag/drag-context.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import type { Beside } from './settings-keys.ts';

/** A list of settings. */
export function ListOfSettings({ label, children }: { readonly label?: string; readonly children: ReactNode }) {
  return (
    <ul aria-label={label} className="divide-y divide-rule rounded-md border border-rule bg-raised">
      {children}
    </ul>
  );
}

/** One of the settings in a list: what it is, what waits, what it touches. It opens with a click. */
export function ListedItem({
  to,
  sign,
  name,
  says,
  waits,
  isGiven = false,
}: {
  readonly to: Beside & { readonly id: string };
  readonly sign: ReactNode;
  readonly name: ReactNode;
  readonly says: ReactNode;
  readonly waits?: ReactNode;
  /** Whether rows of the tree can be dropped here, and it on them; its name is words then. */
  readonly isGiven?: boolean;
}) {
  const { setBeside } = useWorkbench();
  const { drag } = useDrag();
  const { setNodeRef, listeners } = useDraggable({
    id: `setting:${to.id}`,
    data: { setting: to.id, name },
    disabled: !isGiven,
  });
  const isOver = isGiven && drag?.giving === to.id;
  const quiet = isOver ? '' : 'text-quiet';
  return (
    <li>
      <button
        type="button"
        ref={setNodeRef}
        onMouseDown={listeners?.onMouseDown as undefined}
        onTouchStart={listeners?.onTouchStart as undefined}
        data-give={isGiven ? to.id : undefined}
        onClick={() => setBeside(to)}
        className={`flex w-full items-center gap-3 px-3 py-2 text-left ${isOver ? 'bg-accent text-on-accent' : drag && isGiven ? 'outline-1 -outline-offset-1 outline-accent outline-dashed' : 'hover:bg-accent-soft'}`}
      >
        <span className={`shrink-0 ${quiet}`}>{sign}</span>
        <span className="min-w-0 flex-1">
          <span className="block font-medium wrap-anywhere">{name}</span>
          {waits && <span className={`block text-small ${isOver ? '' : 'text-attention'}`}>{waits}</span>}
          {says !== '' && <span className={`block text-small ${quiet}`}>{says}</span>}
        </span>
        <ChevronRight size={16} aria-hidden className={`shrink-0 ${quiet}`} />
      </button>
    </li>
  );
}
