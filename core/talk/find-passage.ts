import { type AboutPassage, MAX_AROUND_LENGTH, MAX_PASSAGE_LENGTH } from './thread.ts';

/** Where something stands in a text, in characters from its beginning; `to` is the first one after it. */
export interface Range {
  readonly from: number;
  readonly to: number;
}

/** The passage that a selection is about: its words, without spaces at the ends, and what stands around them. Null where it holds none. */
export function passageAt(text: string, { from, to }: Range): AboutPassage | null {
  const chosen = text.slice(from, to).slice(0, MAX_PASSAGE_LENGTH);
  const exact = chosen.trim();
  if (exact === '') return null;
  const start = from + chosen.indexOf(exact);
  const end = start + exact.length;
  return {
    exact,
    prefix: text.slice(Math.max(0, start - MAX_AROUND_LENGTH), start),
    suffix: text.slice(end, end + MAX_AROUND_LENGTH),
  };
}

/**
 * Where a passage stands in a text now; null where its words are no longer there. Where they stand more than once, that one is meant
 * around which most is as it was, and of equal ones the first.
 */
export function findPassage(text: string, { exact, prefix, suffix }: AboutPassage): Range | null {
  let best: Range | null = null;
  let most = -1;
  for (let from = text.indexOf(exact); from !== -1; from = text.indexOf(exact, from + 1)) {
    const to = from + exact.length;
    const alike = sameBefore(text, from, prefix) + sameAfter(text, to, suffix);
    if (alike > most) [best, most] = [{ from, to }, alike];
  }
  return best;
}

function sameBefore(text: string, at: number, prefix: string): number {
  let same = 0;
  while (same < prefix.length && same < at && text[at - 1 - same] === prefix[prefix.length - 1 - same]) same++;
  return same;
}

function sameAfter(text: string, at: number, suffix: string): number {
  let same = 0;
  while (same < suffix.length && text[at + same] === suffix[same]) same++;
  return same;
}
