import { Button } from '../ui/button.tsx';
import { useWorkbench } from './workbench-context.tsx';

/** Says as whom the workbench is seen, and leads back to oneself. It shows only then. */
export function SeenAsBar() {
  const { shown, store } = useWorkbench();
  if (shown.seenAs === null) return null;
  return (
    <div className="flex min-h-9 flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule bg-attention-soft px-4 py-1 text-small">
      <p role="status" className="min-w-40 flex-1">
        <span className="font-semibold text-attention">The workbench as {shown.seenAs} sees it</span>. Nothing is
        changed meanwhile.
      </p>
      <Button look="main" onClick={() => store.seeAs(null)}>
        Back to yourself
      </Button>
    </div>
  );
}
