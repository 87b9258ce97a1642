import { useEffect } from 'react';
import { type Marks, useWorkbench } from '../workbench/workbench-context.tsx';

/** Marks rows of the tree for as long as the component that says so is there. @param marks the same object while they are the same */
export function useMarkRows(marks: Marks | null): void {
  const { setSheetMarks } = useWorkbench();
  useEffect(() => {
    setSheetMarks(marks);
    return () => setSheetMarks(null);
  }, [marks, setSheetMarks]);
}
