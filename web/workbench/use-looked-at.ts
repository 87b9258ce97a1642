import { useNow } from '../ui/use-now.ts';
import { useWorkbench } from './workbench-context.tsx';

/** The moment at which access is looked at, in milliseconds since 1970: the one that was chosen, or now. */
export function useLookedAt(): number {
  const { moment } = useWorkbench();
  const now = useNow();
  return moment ?? now;
}
