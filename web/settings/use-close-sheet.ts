import { useWorkbench } from '../workbench/workbench-context.tsx';

/** Closes what stands beside the tree; the keyboard goes back there. */
export function useCloseSheet(): () => void {
  const { setBeside, focusTree } = useWorkbench();
  return () => {
    setBeside(null);
    window.setTimeout(focusTree, 0);
  };
}
