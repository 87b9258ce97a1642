import { useCallback, useEffect, useId, useState } from 'react';
import type { Edit } from '../api/site-store.ts';
import { useWorkbench } from './workbench-context.tsx';

/** Who considers which changes: a key of theirs, so that nobody takes back what somebody else considers. */
interface Considered {
  readonly by: string;
  readonly operations: readonly Edit[];
}
type Consider = (by: string, operations: readonly Edit[] | null) => void;

/** The changes that are considered at the moment: what was last said, until whoever said it takes it back. */
export function useConsidered(): readonly [preview: readonly Edit[] | null, setPreview: Consider] {
  const [considered, setConsidered] = useState<Considered | null>(null);
  const setPreview = useCallback<Consider>(
    (by, operations) =>
      setConsidered((before) => (operations ? { by, operations } : before?.by === by ? null : before)),
    [],
  );
  return [considered?.operations ?? null, setPreview];
}

/**
 * Tells the trail strip which changes a component considers; null for none any more. What it considers is taken back
 * when the component goes, and nothing else is: the side sheet is often drawn later than what is dragged over the tree.
 */
export function usePreview(): (operations: readonly Edit[] | null) => void {
  const { setPreview } = useWorkbench();
  const by = useId();
  const consider = useCallback((operations: readonly Edit[] | null) => setPreview(by, operations), [setPreview, by]);
  useEffect(() => () => consider(null), [consider]);
  return consider;
}
