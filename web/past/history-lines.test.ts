import { describe, expect, it } from 'vitest';
import type { HistoryEntry } from '#contract/api.ts';
import { historyLines } from './history-lines.ts';

const entry = (revision: number, minute: number, words: string, more: Partial<HistoryEntry> = {}): HistoryEntry => ({
  revision,
  at: `2026-11-29T10:${String(minute).padStart(2, '0')}:00Z`,
  by: 'Ines',
  words,
  kind: 'edit',
  ...more,
});
const revisions = (entries: HistoryEntry[]) => historyLines(entries).map((line) => line.revision);

describe('the lines of the history', () => {
  it('have what was done again and again once, as it ended', () =>
    expect(
      revisions([entry(4, 9, 'changed the text'), entry(3, 5, 'changed the text'), entry(2, 1, 'changed the text')]),
    ).toEqual([4]));
  it('part what others did, what was done in between, and what was done after a break', () => {
    expect(revisions([entry(3, 3, 'a'), entry(2, 2, 'a', { by: 'Marek' }), entry(1, 1, 'a')])).toEqual([3, 2, 1]);
    expect(revisions([entry(3, 3, 'a'), entry(2, 2, 'b'), entry(1, 1, 'a')])).toEqual([3, 2, 1]);
    expect(revisions([entry(2, 40, 'a'), entry(1, 1, 'a')])).toEqual([2, 1]);
  });
  it('have each undo, so that steps can be counted', () =>
    expect(revisions([entry(2, 2, 'undid: a', { kind: 'undo' }), entry(1, 1, 'undid: a', { kind: 'undo' })])).toEqual([
      2, 1,
    ]));
});
