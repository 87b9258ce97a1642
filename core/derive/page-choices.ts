import type { PageId } from '../model/ids.ts';
import type { Site } from '../model/site.ts';
import { folded } from './folded.ts';
import { foldedTitlesOf } from './folded-titles.ts';
import type { Outline } from './outline.ts';
import { type Found, findRows } from './visible-rows.ts';

/** Pages to choose from. */
export interface PageChoices extends Found {
  /** The row that answers best to what is typed; null where nothing is typed, and where nothing matches. */
  readonly best: number | null;
}

/**
 * The rows to choose from as a title is typed, with those above them as context, and the best of them.
 * @param isOffered leaves out what cannot be chosen; it may still show as context.
 */
export function pageChoices(
  site: Site,
  outline: Outline,
  query: string,
  isOffered: (row: number, page: PageId) => boolean,
): PageChoices {
  const found = findRows(site, outline, query, isOffered);
  const typed = folded(query).trim();
  if (typed === '') return { ...found, best: null };
  const titles = foldedTitlesOf(site);
  let best: number | null = null;
  let bestScore = -1;
  for (const row of [...found.matches].sort((one, other) => one - other)) {
    const score = scoreOf(titles.at(row), typed);
    if (score <= bestScore) continue;
    bestScore = score;
    best = row;
  }
  return { ...found, best };
}

/** The title itself before its beginning, that before the beginning of a word, that before anything else. */
const scoreOf = (title: string, typed: string): number =>
  title === typed ? 3 : title.startsWith(typed) ? 2 : ` ${title}`.includes(` ${typed}`) ? 1 : 0;
