import { X } from 'lucide-react';
import { ALL_FILTERS } from '../lenses/lens-filters.ts';
import { settingsNamed } from '../settings/settings-named.ts';
import { useSettings } from '../settings/use-settings.ts';
import { Button } from '../ui/button.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { numberWords } from '../ui/number-words.ts';

/** What is looked for, how much was found, and the ways out. It shows only while something is looked for. */
export function FoundBar() {
  const { found, isFinding, site, derived, query, filter, setFilter, isFlat, setFlat, clearFind, setBeside } =
    useWorkbench();
  const { isOnlyMarked, setOnlyMarked, marks } = useWorkbench();
  const kinds = useSettings();
  if (!found) return null;
  const chips = ALL_FILTERS.flatMap((field) =>
    (filter[field.key] ?? []).map((value) => ({
      key: field.key,
      value,
      words: `${field.name}: ${(field.values ?? field.valuesOf?.({ site, derived }))?.find((one) => one.value === value)?.words ?? value}`,
    })),
  );
  const without = (key: string, value: string) => {
    const { [key]: values = [], ...others } = filter;
    const left = values.filter((one) => one !== value);
    setFilter(left.length === 0 ? others : { ...others, [key]: left });
  };
  const total = derived.outline.nodes.length;
  const settings = settingsNamed(kinds, site, query);
  return (
    <div className="flex min-h-9 flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule bg-accent-soft/60 px-4 py-1 text-small">
      <p role="status" className="font-medium">
        {isFinding
          ? 'Looking …'
          : found.isNear
            ? `No exact match. Similar: ${numberWords(found.matches.size)} of ${numberWords(total)}`
            : `${numberWords(found.matches.size)} of ${numberWords(total)} ${total === 1 ? 'page' : 'pages'}`}
      </p>
      {query.trim() !== '' && <Chip words={`‘${query.trim()}’`} />}
      {isOnlyMarked && marks && <Chip words={`Marked: ${marks.name}`} onRemove={() => setOnlyMarked(false)} />}
      {chips.map(({ key, value, words }) => (
        <Chip key={words} words={words} onRemove={() => without(key, value)} />
      ))}
      {settings.length > 0 && (
        <p role="group" aria-label="Settings of this name" className="flex flex-wrap items-center gap-x-3 gap-y-1">
          {settings.map(({ beside, words }) => (
            <button
              key={words}
              type="button"
              className="text-accent underline underline-offset-2"
              onClick={() => setBeside(beside)}
            >
              {words}
            </button>
          ))}
        </p>
      )}
      <label className="ml-auto inline-flex items-center gap-1.5">
        <input
          type="checkbox"
          className="size-4 accent-accent"
          checked={!isFlat}
          onChange={(event) => setFlat(!event.target.checked)}
        />
        With the pages above
      </label>
      <Button look="quiet" isTight onClick={clearFind} title="Show the whole tree again (Escape)">
        <X size={15} aria-hidden /> Clear
      </Button>
    </div>
  );
}

function Chip({ words, onRemove }: { readonly words: string; readonly onRemove?: () => void }) {
  return (
    <span className="inline-flex h-6 max-w-64 items-center gap-1 rounded-full border border-edge bg-raised px-2">
      <span className="truncate">{words}</span>
      {onRemove && (
        <button
          type="button"
          aria-label={`Remove the filter ${words}`}
          onClick={onRemove}
          className="-mr-1 inline-flex size-5 items-center justify-center rounded-full hover:bg-sunken"
        >
          <X size={12} aria-hidden />
        </button>
      )}
    </span>
  );
}
