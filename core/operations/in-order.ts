import { isSameJson } from '../model/canonical-json.ts';

interface Put<One> {
  readonly list: One[];
  /** What stood under its id; undefined where it is new. */
  readonly was: One | undefined;
  /** What it came after before, or null; undefined where it is new. */
  readonly before: string | null | undefined;
  readonly isSame: boolean;
}

/**
 * A list with one more, or with it in place of the one that has its id. @param after the one that it follows; null puts it first; left out, a
 * new one comes last, and one that is there stays where it is. Null where there is no such one to follow.
 */
export function putInOrder<One extends { readonly id: string }>(
  list: readonly One[],
  one: One,
  after: string | null | undefined,
): Put<One> | null {
  const at = list.findIndex(({ id }) => id === one.id);
  const rest = list.filter(({ id }) => id !== one.id);
  const follows = after == null ? -1 : rest.findIndex(({ id }) => id === after);
  if (after != null && follows === -1) return null;
  const place = after === undefined ? (at === -1 ? rest.length : at) : follows + 1;
  return {
    list: rest.toSpliced(place, 0, one),
    was: list[at],
    before: at === -1 ? undefined : (list[at - 1]?.id ?? null),
    isSame: at === place && isSameJson(list[at], one),
  };
}
