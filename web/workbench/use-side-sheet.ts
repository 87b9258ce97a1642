import { isTreeView } from './lenses.ts';
import { useArrangement } from './use-view.ts';
import { useNarrow } from './use-compact.ts';
import { useWorkbench } from './workbench-context.tsx';

interface SideSheet {
  readonly isOpen: boolean;
  readonly setOpen: (isOpen: boolean) => void;
  /** Whether it takes the place of the tree, rather than standing beside it. */
  readonly isOver: boolean;
}

/**
 * Whether the side sheet is open. Beside the tree it stays as the person arranged it, view by view; where there is room for one of
 * the two alone, it is opened to look at a page and closed again.
 */
export function useSideSheet(): SideSheet {
  const { view, isSideOver, setSideOver, beside, setBeside } = useWorkbench();
  const [arrangement, keep] = useArrangement();
  const isNarrow = useNarrow();
  if (beside !== null) return { isOpen: true, setOpen: (isOpen) => !isOpen && setBeside(null), isOver: isNarrow };
  if (!isTreeView(view)) return { isOpen: false, setOpen: () => undefined, isOver: isNarrow };
  if (isNarrow) return { isOpen: isSideOver, setOpen: setSideOver, isOver: true };
  const { withoutSide } = arrangement;
  return {
    isOpen: !withoutSide.includes(view),
    setOpen: (isOpen) =>
      keep({ ...arrangement, withoutSide: [...withoutSide.filter((one) => one !== view), ...(isOpen ? [] : [view])] }),
    isOver: view === 'split',
  };
}
