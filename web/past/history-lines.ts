import type { HistoryEntry } from '#contract/api.ts';

/** Within this time what somebody does over and over is one thing: a text is saved at each pause. */
const TOGETHER_MS = 10 * 60_000;

/** The log as it is read, newest first: what one person did again and again without a break, such as writing a text, stands once. */
export function historyLines(entries: readonly HistoryEntry[]): HistoryEntry[] {
  const lines: HistoryEntry[] = [];
  let earliest: HistoryEntry | undefined;
  for (const entry of entries) {
    const isMore =
      earliest !== undefined &&
      entry.kind === 'edit' &&
      earliest.kind === 'edit' &&
      entry.by === earliest.by &&
      entry.words === earliest.words &&
      Date.parse(earliest.at) - Date.parse(entry.at) < TOGETHER_MS;
    if (!isMore) lines.push(entry);
    earliest = entry;
  }
  return lines;
}
