import type { HistoryEntry } from '#contract/api.ts';

/** How an edit can be turned round by the person who made it. */
export type Turn = 'undo' | 'redo';

/** What was undone can be made again, and the reverse; a release has a way back of its own. */
export const TURN_AFTER: Readonly<Record<HistoryEntry['kind'], Turn | null>> = {
  edit: 'undo',
  redo: 'undo',
  undo: 'redo',
  release: null,
};

const BEFORE: Readonly<Partial<Record<HistoryEntry['kind'], string>>> = { undo: 'undid: ', redo: 'made again: ' };

/** The words of an edit that turns another one round; `first` are those of what was done at first. */
export const turnedWords = (turn: Turn, first: string): string => `${BEFORE[turn]}${first}`;

/** What was done at first, in words, by an edit that may have turned it round. */
export const firstWords = ({ kind, words }: Pick<HistoryEntry, 'kind' | 'words'>): string =>
  words.slice(BEFORE[kind]?.length ?? 0);
