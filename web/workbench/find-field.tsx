import { Search, X } from 'lucide-react';
import { useState, useTransition } from 'react';
import { useWorkbench } from './workbench-context.tsx';

/** Finds in the tree as one types; Escape shows the whole tree again. */
export function FindField({ label }: { readonly label: string }) {
  const { query, setQuery, found, clearFind, focusTree } = useWorkbench();
  // Letters show at once; the tree follows as soon as there is time, and leaves off where another letter comes.
  const [isFollowing, follow] = useTransition();
  const [typed, setTyped] = useState(query);
  const shown = isFollowing ? typed : query;
  const type = (words: string) => {
    setTyped(words);
    follow(() => setQuery(words));
  };
  const clear = () => {
    setTyped('');
    clearFind();
  };
  return (
    <search className="relative min-w-20 shrink basis-28 sm:basis-36 lg:basis-48 compact:w-8 compact:min-w-8 compact:shrink-0 compact:basis-8 compact:focus-within:absolute compact:focus-within:inset-x-1.5 compact:focus-within:z-10 compact:focus-within:w-auto">
      <Search size={15} aria-hidden className="pointer-events-none absolute top-2 left-2 text-quiet" />
      <input
        id="find-field"
        aria-label={label}
        placeholder="Find"
        title={`${label} (/)`}
        value={shown}
        maxLength={200}
        onChange={(event) => type(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Escape') {
            clear();
            focusTree();
          } else if (event.key === 'Enter' || event.key === 'ArrowDown') {
            event.preventDefault();
            focusTree();
          }
        }}
        className="h-8 w-full rounded-md border border-edge bg-paper pr-7 pl-7 compact:not-focus:cursor-pointer compact:not-focus:p-0 compact:not-focus:text-transparent compact:not-focus:placeholder:text-transparent"
      />
      {(shown !== '' || found !== null) && (
        <button
          type="button"
          aria-label="Show the whole tree again"
          onClick={clear}
          className="absolute top-1 right-1 inline-flex compact:[input:not(:focus)+&]:hidden size-6 items-center justify-center rounded hover:bg-sunken"
        >
          <X size={14} aria-hidden />
        </button>
      )}
    </search>
  );
}
