import { ArrowDownToDot, Network, Pin, Rows3 } from 'lucide-react';
import type { SharedPlanAnswer } from '#contract/sharing.ts';
import { dayWords } from '../tree/plan-words.tsx';
import { Button, IconButton } from '../ui/button.tsx';
import { Wordmark } from '../ui/wordmark.tsx';
import { FindField } from '../workbench/find-field.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';

const VIEWS = [
  { view: 'sheet', name: 'As rows', Sign: Rows3 },
  { view: 'map', name: 'As a map', Sign: Network },
] as const;

/** Whose plan it is, how far the guest has come, and how the tree is seen. */
export function SharedBar({
  plan,
  isOnBoards,
  onBoards,
  onName,
}: {
  readonly plan: SharedPlanAnswer;
  readonly isOnBoards: boolean;
  readonly onBoards: () => void;
  readonly onName: () => void;
}) {
  const { site, view, setView, derived, guest, selection, select } = useWorkbench();
  const { nodes } = derived.outline;
  const verdicts = guest!.verdicts;
  const pages = nodes.filter((node) => node.type === 'page').length;
  const given = nodes.filter((node, row) => node.type === 'page' && verdicts[row] !== null).length;
  const next = () => {
    const from = selection.active === null ? -1 : derived.outline.rowOf.get(selection.active)!;
    const waits = (row: number) => nodes[row]!.type === 'page' && verdicts[row] === null;
    const order = [...nodes.keys()];
    const row = [...order.slice(from + 1), ...order.slice(0, from + 1)].find(waits);
    if (row === undefined) return;
    const { id } = nodes[row]!;
    select({ active: id, chosen: new Set([id]), anchor: id });
  };
  return (
    <header className="flex min-h-bar flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule bg-raised px-3 py-1.5">
      <span className="max-md:hidden">
        <Wordmark size={20} />
      </span>
      <span aria-hidden className="h-4 w-px bg-rule max-md:hidden" />
      <p className="min-w-0 leading-tight">
        <span className="block truncate font-medium">The plan for {plan.site}</span>
        <span className="block truncate text-small text-quiet">
          Shared by {plan.madeBy} with {plan.name} until {dayWords(plan.expiresAt)}
        </span>
      </p>
      <div className="ml-auto flex flex-wrap items-center justify-end gap-1">
        <p role="status" className="text-small text-quiet">
          <span aria-hidden className="mr-2 inline-block h-2 w-16 overflow-hidden rounded-sm bg-rule max-md:hidden">
            <span className="block h-2 bg-accent" style={{ width: `${(100 * given) / Math.max(1, pages)}%` }} />
          </span>
          {given === pages && pages > 0 ? (
            'You have looked at every page'
          ) : (
            <>
              {given} of {pages}
              <span className="max-md:sr-only"> looked at</span>
            </>
          )}
        </p>
        <Button
          look="quiet"
          isTight
          disabled={given === pages}
          title="Select the next page that has no verdict of yours"
          onClick={next}
        >
          <ArrowDownToDot size={16} aria-hidden /> Next
        </Button>
        {site.boards.length > 0 && (
          <Button look={isOnBoards ? 'chosen' : 'quiet'} isTight aria-pressed={isOnBoards} onClick={onBoards}>
            <Pin size={16} aria-hidden /> <span className="max-md:sr-only">Boards</span>
          </Button>
        )}
        <div role="group" aria-label="View" className="mx-1 flex rounded-md border border-edge">
          {VIEWS.map(({ view: one, name, Sign }) => (
            <IconButton
              key={one}
              name={name}
              aria-pressed={view === one}
              onClick={() => setView(one)}
              className={view === one ? 'bg-accent-soft text-accent' : ''}
            >
              <Sign size={16} aria-hidden />
            </IconButton>
          ))}
        </div>
        <FindField label="Find by title or address" />
        {plan.guest ? (
          <p className="max-w-48 truncate px-2 text-small max-md:sr-only">
            <span className="text-quiet">You are</span> <span className="font-medium">{plan.guest.name}</span>
          </p>
        ) : (
          <Button look="quiet" isTight onClick={onName} className="max-md:hidden">
            Give your name
          </Button>
        )}
      </div>
    </header>
  );
}
