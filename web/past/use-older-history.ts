import { useState } from 'react';
import type { HistoryEntry } from '#contract/api.ts';
import type { SiteKey } from '#core/model/ids.ts';
import { olderHistory } from '../api/sites.ts';

/** So many entries come at once; fewer mean that there are no older ones. */
const AT_ONCE = 100;

/** The newest entries of the log with the older ones that were asked for so far. */
export function useOlderHistory(
  key: SiteKey,
  by: string,
  newest: readonly HistoryEntry[] | undefined,
): { entries: readonly HistoryEntry[]; hasMore: boolean; fetch: () => void } {
  const [older, setOlder] = useState<{ by: string; entries: readonly HistoryEntry[]; more: boolean } | null>(null);
  const kept = older?.by === by ? older : null;
  const oldest = newest?.at(-1)?.revision ?? 0;
  const entries = newest ? [...newest, ...(kept?.entries ?? []).filter((one) => one.revision < oldest)] : [];
  const fetch = async () => {
    const next = await olderHistory(key, entries.at(-1)?.revision ?? 0, by);
    setOlder({ by, entries: [...(kept?.entries ?? []), ...next.entries], more: next.more });
  };
  return { entries, hasMore: kept?.more ?? (newest?.length ?? 0) >= AT_ONCE, fetch: () => void fetch() };
}
