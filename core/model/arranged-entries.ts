import { type ArrangedEntry, type EntryId, allEntries } from './menu.ts';

/** The entry of that id, at whatever level; undefined where there is none. */
export function entryIn(entries: readonly ArrangedEntry[], id: EntryId): ArrangedEntry | undefined {
  for (const entry of allEntries(entries)) if (entry.id === id) return entry;
  return undefined;
}

/** The entries without one, and without those below it. */
export const withoutEntry = (entries: readonly ArrangedEntry[], id: EntryId): readonly ArrangedEntry[] =>
  entryIn(entries, id) === undefined
    ? entries
    : entries.filter((entry) => entry.id !== id).map((entry) => ({ ...entry, below: withoutEntry(entry.below, id) }));

/** The entries with one more, below another one and after a third; where that is not among them, last; `null` puts it first. */
export function putEntry(
  entries: readonly ArrangedEntry[],
  entry: ArrangedEntry,
  under: EntryId | null,
  after: EntryId | null | undefined,
): readonly ArrangedEntry[] {
  if (under !== null)
    return changedEntry(entries, under, (above) => ({ ...above, below: putEntry(above.below, entry, null, after) }));
  const before = after == null ? -1 : entries.findIndex(({ id }) => id === after);
  const at = after === undefined || (after !== null && before === -1) ? entries.length : before + 1;
  return entries.toSpliced(at, 0, entry);
}

/** The entries with one of them changed. */
export function changedEntry(
  entries: readonly ArrangedEntry[],
  id: EntryId,
  change: (entry: ArrangedEntry) => ArrangedEntry,
): readonly ArrangedEntry[] {
  return entries.map((entry) =>
    entry.id === id
      ? change(entry)
      : entryIn(entry.below, id)
        ? { ...entry, below: changedEntry(entry.below, id, change) }
        : entry,
  );
}
