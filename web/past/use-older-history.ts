import { useState } from 'react';
import type { HistoryEntry } from '#contract/api.ts';
import type { SiteKey } from '#core/model/ids.ts';
import { type HistoryOf, olderHistory } from '../api/sites.ts';

/** So many entries come at once; fewer mean that there are no older ones. */
const AT_ONCE = 100;

/** The newest entries of the log with the older ones that were asked for so far. @param asked the same object while the same is asked for */
export function useOlderHistory(
  key: SiteKey,
  asked: HistoryOf,
  newest: readonly HistoryEntry[] | undefined,
): { entries: readonly HistoryEntry[]; hasMore: boolean; fetch: () => void } {
  const [older, setOlder] = useState<{ asked: HistoryOf; entries: readonly HistoryEntry[]; more: boolean } | null>(
    null,
  );
  const kept = older?.asked === asked ? older : null;
  const oldest = newest?.at(-1)?.revision ?? 0;
  const entries = newest ? [...newest, ...(kept?.entries ?? []).filter((one) => one.revision < oldest)] : [];
  const fetch = async () => {
    const next = await olderHistory(key, entries.at(-1)?.revision ?? 0, asked);
    setOlder({ asked, entries: [...(kept?.entries ?? []), ...next.entries], more: next.more });
  };
  return { entries, hasMore: kept?.more ?? (newest?.length ?? 0) >= AT_ONCE, fetch: () => void fetch() };
}
