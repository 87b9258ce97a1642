import { format, isToday, isYesterday } from 'date-fns';
import { useState } from 'react';
import type { HistoryEntry } from '#contract/api.ts';
import { olderHistory, useHistory } from '../../api/sites.ts';
import { Button } from '../../ui/button.tsx';
import { Dialog } from '../../ui/dialog.tsx';
import { useWorkbench } from '../workbench-context.tsx';

/** So many entries come at once; fewer mean that there are no older ones. */
const PAGE = 100;

/** The log in words: who did what, by day, newest first. */
export function HistoryDialog({ onClose }: { readonly onClose: () => void }) {
  const { site, shown } = useWorkbench();
  const newest = useHistory(site.key, shown.revision);
  const [older, setOlder] = useState<{ entries: HistoryEntry[]; more: boolean } | null>(null);
  const entries = newest
    ? [...newest, ...(older?.entries ?? []).filter((one) => one.revision < (newest.at(-1)?.revision ?? 0))]
    : [];
  const hasMore = older?.more ?? (newest?.length ?? 0) >= PAGE;
  const fetchOlder = async () => {
    const next = await olderHistory(site.key, entries.at(-1)?.revision ?? 0);
    setOlder((before) => ({ entries: [...(before?.entries ?? []), ...next.entries], more: next.more }));
  };
  const days = Map.groupBy(entries, (entry) => format(new Date(entry.at), 'yyyy-MM-dd'));
  return (
    <Dialog
      title="History"
      description="Everything that was done in this site, newest first."
      isOpen
      isWide
      onClose={onClose}
    >
      {newest?.length === 0 && (
        <p className="pb-4 text-quiet">
          Nothing has been changed yet. Each change will stand here, with who made it and when.
        </p>
      )}
      {[...days].map(([day, list]) => (
        <section key={day} className="pb-4">
          <h3 className="sticky top-0 bg-raised py-1 text-small font-medium text-quiet">
            {dayWords(new Date(list[0]!.at))}
          </h3>
          <ol>
            {list.map((entry) => (
              <li
                key={entry.revision}
                className="grid grid-cols-[3.25rem_minmax(0,1fr)] gap-2 border-b border-rule py-1.5 last:border-0"
              >
                <time dateTime={entry.at} className="font-mono text-small text-quiet">
                  {format(new Date(entry.at), 'HH:mm')}
                </time>
                <p>
                  <span className="font-medium">{entry.by}</span> {entry.words}
                </p>
              </li>
            ))}
          </ol>
        </section>
      ))}
      {hasMore && (
        <Button className="mb-4" onClick={() => void fetchOlder()}>
          Show older changes
        </Button>
      )}
    </Dialog>
  );
}

const dayWords = (day: Date): string =>
  isToday(day) ? 'Today' : isYesterday(day) ? 'Yesterday' : format(day, 'EEEE, d MMMM yyyy');
