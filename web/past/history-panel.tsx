import { X } from 'lucide-react';
import { memo, useMemo, useState } from 'react';
import type { HistoryEntry } from '#contract/api.ts';
import { dayIn, longDayWords, momentWords, timeWords } from '#core/model/moment-words.ts';
import { textIn } from '#core/model/texts.ts';
import { EDIT_KINDS, EDIT_KIND_WORDS } from '#core/people/edit-kinds.ts';
import { ALL_EDITS, type HistoryOf, useHistory } from '../api/sites.ts';
import { Button, IconButton } from '../ui/button.tsx';
import { Tick } from '../ui/field.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { historyLines } from './history-lines.ts';
import { useOlderHistory } from './use-older-history.ts';

const CHOICE = 'h-8 min-w-0 rounded-md border border-edge bg-raised px-2';

/** The log in words, by day and person, and the tree as it was at any point of it. */
export const HistoryPanel = memo(function HistoryPanel() {
  const { site, shown, past, selection, lookAt, setHistoryOpen, setBeside } = useWorkbench();
  const [asked, setAsked] = useState(ALL_EDITS);
  const { by, of, page } = asked;
  const set = (change: Partial<HistoryOf>) => setAsked({ ...asked, ...change });
  const newest = useHistory(site.key, shown.revision, asked);
  const older = useOlderHistory(site.key, asked, newest);
  const names = useNames(newest, by);
  const { active } = selection;
  const branch = page === '' ? active : page;
  const close = () => {
    lookAt(null);
    setHistoryOpen(false);
  };
  return (
    <aside
      aria-label="History"
      className="flex min-h-0 flex-1 flex-col border-l border-rule bg-paper max-md:border-l-0"
    >
      <header className="border-b border-rule px-4 pt-3 pb-3">
        <div className="flex items-center">
          <h2 className="flex-1 font-display text-title leading-tight font-semibold">History</h2>
          <IconButton name="Close the history" onClick={close} className="-mr-2">
            <X size={17} aria-hidden />
          </IconButton>
        </div>
        <Slider entries={older.entries} />
        <button
          type="button"
          className="mt-1 text-small text-accent hover:underline"
          onClick={() => {
            close();
            setBeside({ kind: 'since', id: null });
          }}
        >
          What has changed since you were last here
        </button>
        <div className="mt-2 grid grid-cols-2 gap-2 text-small">
          <select
            aria-label="By whom"
            value={by}
            onChange={(event) => set({ by: event.target.value })}
            className={CHOICE}
          >
            <option value="">By everybody</option>
            {names.map((name) => (
              <option key={name} value={name}>
                By {name}
              </option>
            ))}
          </select>
          <select
            aria-label="What kind of edit"
            value={of}
            onChange={(event) => set({ of: event.target.value as HistoryOf['of'] })}
            className={CHOICE}
          >
            <option value="">All edits</option>
            {EDIT_KINDS.map((kind) => (
              <option key={kind} value={kind}>
                {EDIT_KIND_WORDS[kind]}
              </option>
            ))}
            <option value="release">Releases</option>
          </select>
        </div>
        {branch !== null && (
          <div className="mt-2 text-small">
            <Tick
              label={`Only ‘${textIn(site.nodes.get(branch)?.title ?? {}, site.settings.language)}’ and below`}
              checked={page !== ''}
              onChange={() => set({ page: page === '' ? branch : '' })}
            />
          </div>
        )}
      </header>
      {/* It may scroll, so the keyboard must be able to reach it. */}
      {/* eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex */}
      <div tabIndex={0} className="min-h-0 flex-1 overflow-y-auto px-4 pb-4">
        {newest?.length === 0 && (
          <p className="pt-3 text-quiet">
            {by === '' && of === '' && page === ''
              ? 'Nothing has been changed yet. Each change appears here, with who made it and when.'
              : 'No edit is like that.'}
          </p>
        )}
        <Days entries={older.entries} lookedAt={past?.revision ?? null} onLook={lookAt} />
        {older.hasMore && <Button onClick={older.fetch}>Show older changes</Button>}
      </div>
    </aside>
  );
});

/** Every name that has been seen in the list; choosing one must not take the others away. */
function useNames(entries: readonly HistoryEntry[] | undefined, by: string): readonly string[] {
  const [all, setAll] = useState<ReadonlySet<string>>(new Set());
  const seen = entries?.map((entry) => entry.by).filter((name) => !all.has(name)) ?? [];
  if (seen.length > 0) setAll(new Set([...all, ...seen]));
  return useMemo(() => [...new Set([...all, ...(by ? [by] : [])])].sort(), [all, by]);
}

/** Goes through time: left is the beginning, right is now. */
function Slider({ entries }: { readonly entries: readonly HistoryEntry[] }) {
  const { shown, past, lookAt } = useWorkbench();
  const { timeZone } = shown.site.settings;
  const at = past?.revision ?? shown.revision;
  const entry = entries.find((one) => one.revision === at);
  const words =
    past === null
      ? 'Now'
      : at === 0
        ? 'The site at the beginning'
        : entry
          ? `After change ${at}: ${momentWords(entry.at, timeZone)}`
          : `After change ${at}`;
  return (
    <div className="mt-2">
      <input
        type="range"
        aria-label="The tree as it was"
        aria-valuetext={words}
        min={0}
        max={shown.revision}
        value={at}
        onChange={(event) => {
          const revision = Number(event.target.value);
          lookAt(revision >= shown.revision ? null : revision);
        }}
        className="w-full accent-accent"
      />
      <p className="flex justify-between text-small">
        <span className="text-quiet">Beginning</span>
        <span role="status" className={past ? 'font-medium text-attention' : 'text-quiet'}>
          {words}
        </span>
      </p>
    </div>
  );
}

function Days({
  entries,
  lookedAt,
  onLook,
}: {
  readonly entries: readonly HistoryEntry[];
  readonly lookedAt: number | null;
  readonly onLook: (revision: number | null) => void;
}) {
  const { timeZone } = useWorkbench().shown.site.settings;
  const days = Map.groupBy(historyLines(entries), (line) => dayIn(timeZone, line.at));
  return [...days].map(([day, list]) => (
    <section key={day} className="pb-3">
      <h3 className="sticky top-0 bg-paper pt-3 pb-1 text-small font-medium text-quiet">
        {dayWords(day, list[0]!.at, timeZone)}
      </h3>
      <ol>
        {list.map((entry) => (
          <li key={entry.revision} className="border-b border-rule/60 last:border-0">
            <button
              type="button"
              aria-pressed={entry.revision === lookedAt}
              title="Look at the tree as it was after this"
              onClick={() => onLook(entry.revision === lookedAt ? null : entry.revision)}
              className={`grid w-full grid-cols-[3rem_minmax(0,1fr)] gap-1 rounded px-1.5 py-1.5 text-left ${entry.revision === lookedAt ? 'bg-attention-soft' : 'hover:bg-accent-soft'}`}
            >
              <time dateTime={entry.at} className="font-mono text-small text-quiet">
                {timeWords(entry.at, timeZone)}
              </time>
              <span className="break-words">
                <span className="font-medium">{entry.by}</span> {entry.words}
              </span>
            </button>
          </li>
        ))}
      </ol>
    </section>
  ));
}

const DAY_MS = 86_400_000;

const dayWords = (day: string, moment: string, timeZone: string): string =>
  day === dayIn(timeZone, Date.now())
    ? 'Today'
    : day === dayIn(timeZone, Date.now() - DAY_MS)
      ? 'Yesterday'
      : longDayWords(moment, timeZone);
