import type { ArrangedEntry, EntryId } from '../model/menu.ts';

/** The entries of an arrangement as a tree that can be changed, while it is merged with the pages. */
export class ArrangedTree {
  readonly #entries = new Map<EntryId, ArrangedEntry>();
  readonly #parents = new Map<EntryId, EntryId | null>();
  readonly #below = new Map<EntryId | null, EntryId[]>();

  constructor(entries: readonly ArrangedEntry[]) {
    this.#read(entries, null);
  }

  #read(entries: readonly ArrangedEntry[], under: EntryId | null): void {
    this.#below.set(
      under,
      entries.map(({ id }) => id),
    );
    for (const entry of entries) {
      this.#entries.set(entry.id, entry);
      this.#parents.set(entry.id, under);
      this.#read(entry.below, entry.id);
    }
  }

  has(id: EntryId): boolean {
    return this.#entries.has(id);
  }

  maybe(id: EntryId): ArrangedEntry | undefined {
    return this.#entries.get(id);
  }

  /** @throws where there is no such entry: for callers that know that there is. */
  at(id: EntryId): ArrangedEntry {
    const entry = this.#entries.get(id);
    if (!entry) throw new Error(`No entry '${id}' is arranged; look it up with maybe.`);
    return { ...entry, below: this.below(id).map((one) => this.at(one)) };
  }

  parent(id: EntryId): EntryId | null {
    return this.#parents.get(id) ?? null;
  }

  below(under: EntryId | null): readonly EntryId[] {
    return this.#below.get(under) ?? [];
  }

  entries(): ArrangedEntry[] {
    return this.below(null).map((id) => this.at(id));
  }

  /** Whether an entry stands before another one as the menu is read. */
  comesBefore(a: EntryId, b: EntryId): boolean {
    const [wayA, wayB] = [this.#way(a), this.#way(b)];
    for (let level = 0; ; level++) {
      const [oneA, oneB] = [wayA[level], wayB[level]];
      if (oneA === undefined || oneB === undefined) return oneA === undefined && oneB !== undefined;
      if (oneA !== oneB) {
        const siblings = this.below(this.parent(oneA));
        return siblings.indexOf(oneA) < siblings.indexOf(oneB);
      }
    }
  }

  /** From the first level down to the entry. */
  #way(id: EntryId): EntryId[] {
    const way: EntryId[] = [];
    for (let at: EntryId | null = id; at !== null; at = this.parent(at)) way.unshift(at);
    return way;
  }

  add(entry: ArrangedEntry, under: EntryId | null, after: EntryId | null): void {
    this.#entries.set(entry.id, entry);
    if (!this.#below.has(entry.id)) this.#below.set(entry.id, []);
    this.#parents.set(entry.id, under);
    const siblings = [...this.below(under)];
    siblings.splice(after === null ? 0 : siblings.indexOf(after) + 1, 0, entry.id);
    this.#below.set(under, siblings);
  }

  /** Moves an entry with those below it. Where the place is below the entry itself, the entry on the way there takes its place first. */
  move(id: EntryId, under: EntryId | null, after: EntryId | null): void {
    const way = under === null ? [] : this.#way(under);
    if (way.includes(id)) this.#replace(way[way.indexOf(id) + 1]!, id);
    const entry = this.#entries.get(id)!;
    this.#takeOut(id);
    this.add(entry, under, after);
  }

  /** Takes an entry away; those below it take its place. */
  dissolve(id: EntryId): void {
    const above = this.parent(id);
    const below = this.below(id);
    for (const one of below) this.#parents.set(one, above);
    this.#below.set(
      above,
      this.below(above).flatMap((one) => (one === id ? below : [one])),
    );
    this.#entries.delete(id);
    this.#parents.delete(id);
    this.#below.delete(id);
  }

  change(id: EntryId, change: (entry: ArrangedEntry) => ArrangedEntry): void {
    this.#entries.set(id, change(this.#entries.get(id)!));
  }

  /** Puts an entry right before another one that it stood below. */
  #replace(id: EntryId, other: EntryId): void {
    const entry = this.#entries.get(id)!;
    this.#takeOut(id);
    const siblings = this.below(this.parent(other));
    this.add(entry, this.parent(other), siblings[siblings.indexOf(other) - 1] ?? null);
  }

  #takeOut(id: EntryId): void {
    const above = this.parent(id);
    this.#below.set(
      above,
      this.below(above).filter((one) => one !== id),
    );
  }
}
