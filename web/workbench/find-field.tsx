import { Search, X } from 'lucide-react';
import { useWorkbench } from './workbench-context.tsx';

/** Finds in the tree as one types; Escape shows the whole tree again. */
export function FindField({ label }: { readonly label: string }) {
  const { query, setQuery, found, clearFind, focusTree } = useWorkbench();
  return (
    <search className="relative">
      <Search size={15} aria-hidden className="pointer-events-none absolute top-2 left-2 text-quiet" />
      <input
        id="find-field"
        aria-label={label}
        placeholder="Find"
        title={`${label} (/)`}
        value={query}
        maxLength={200}
        onChange={(event) => setQuery(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Escape') {
            clearFind();
            focusTree();
          } else if (event.key === 'Enter' || event.key === 'ArrowDown') {
            event.preventDefault();
            focusTree();
          }
        }}
        className="h-8 w-28 rounded-md border border-edge bg-paper pr-7 pl-7 sm:w-36 lg:w-48"
      />
      {(query !== '' || found !== null) && (
        <button
          type="button"
          aria-label="Show the whole tree again"
          onClick={clearFind}
          className="absolute top-1 right-1 inline-flex size-6 items-center justify-center rounded hover:bg-sunken"
        >
          <X size={14} aria-hidden />
        </button>
      )}
    </search>
  );
}
