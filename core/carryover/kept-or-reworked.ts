/** Planned and old words differ by no more than this where a text is kept, and by more than that where it is written anew. */
const KEPT_WITHIN = 1.2;
const REWORKED_BEYOND = 1.4;

/**
 * Whether a page keeps the text of its old one or gets a new one, by how many words the plan expects and the old page has.
 * Null where one of them is unknown and where they are between: what a page is called says nothing about its text, so nobody
 * guesses.
 */
export function keptOrReworked(oldWords: number | null, plannedWords: number | null): 'keep' | 'rework' | null {
  if (oldWords === null || plannedWords === null) return null;
  const [fewer, more] = oldWords < plannedWords ? [oldWords, plannedWords] : [plannedWords, oldWords];
  if (more <= KEPT_WITHIN * fewer) return 'keep';
  return more > REWORKED_BEYOND * fewer ? 'rework' : null;
}
