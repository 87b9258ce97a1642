import { AtSign } from 'lucide-react';
import { numberWords } from '../ui/number-words.ts';
import { Tooltip } from '../ui/tooltip.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { useForYou } from './use-for-you.ts';

/** How much is new that concerns whoever is signed in, and the way there. */
export function ForYouButton() {
  const { beside, setBeside } = useWorkbench();
  const unread = useForYou()?.unread ?? 0;
  const isOpen = beside?.kind === 'for-you';
  const words =
    unread === 0 ? 'For you: nothing new' : unread === 1 ? 'For you: one is new' : `For you: ${unread} are new`;
  return (
    <Tooltip text={words}>
      <button
        type="button"
        aria-label={words}
        aria-pressed={isOpen}
        onClick={() => setBeside({ kind: 'for-you', id: null })}
        className={`inline-flex h-8 min-w-8 items-center justify-center gap-1 rounded-md px-1.5 ${isOpen ? 'bg-accent-soft text-accent' : 'hover:bg-sunken'}`}
      >
        <AtSign size={17} aria-hidden className="shrink-0" />
        {unread > 0 && (
          <span className="min-w-5 rounded-full bg-accent px-1.5 text-center text-tiny leading-5 text-on-accent">
            {numberWords(unread)}
          </span>
        )}
      </button>
    </Tooltip>
  );
}
