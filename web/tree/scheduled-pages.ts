import { shortDayWords } from '#core/model/moment-words.ts';
import type { State } from '#core/derive/state.ts';
import type { PageId } from '#core/model/ids.ts';
import type { ScheduledRelease } from '#contract/releases.ts';

/** What waits for its moment, page by page. */
export interface ScheduledPages {
  /** When each page goes live next (ISO 8601), and when it is taken down. */
  readonly live: ReadonlyMap<PageId, string>;
  readonly down: ReadonlyMap<PageId, string>;
  /** When all that differs goes live; null where no such release waits. */
  readonly all: string | null;
}

export const NOTHING_SCHEDULED: ScheduledPages = { live: new Map(), down: new Map(), all: null };

/** Of all scheduled releases those that wait, page by page; of several the first. */
export function scheduledPages(releases: readonly ScheduledRelease[]): ScheduledPages {
  const live = new Map<PageId, string>();
  const down = new Map<PageId, string>();
  let all: string | null = null;
  const waiting = releases.filter(({ state }) => state === 'waiting');
  for (const { at, pages, retire } of waiting.sort((one, other) => (one.at < other.at ? -1 : 1))) {
    if (pages === 'all') all ??= at;
    else for (const page of pages) if (!live.has(page)) live.set(page, at);
    for (const page of retire) if (!down.has(page)) down.set(page, at);
  }
  return { live, down, all };
}

/** "Live on 3 Dec": what is set for a page, whatever its state says of it now; null where nothing is. */
export function scheduledWords(
  { live, down, all }: ScheduledPages,
  page: PageId,
  state: State,
  timeZone: string,
): string | null {
  const taken = down.get(page);
  if (taken !== undefined && (state === 'live' || state === 'edited'))
    return `Down on ${shortDayWords(taken, timeZone)}`;
  const [first] = [live.get(page), all].filter((at) => typeof at === 'string').sort();
  return first === undefined || state === 'live' ? null : `Live on ${shortDayWords(first, timeZone)}`;
}
