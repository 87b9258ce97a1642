/** Marks in the upper layers what the base has and the map has not. */
const GONE = Symbol('gone');
type Layer<Key, Value> = ReadonlyMap<Key, Value | typeof GONE>;
/** With more entries than these a layer is merged into the one below. */
const TOP_SIZE = 64;
const MIDDLE_SIZE = 4096;

/**
 * A map that is never changed in place: `set` and `delete` give a new one. Versions share a native map, the base, so that a map of 100,000 entries is
 * made and read as quickly as that; what differs from it lies in two layers above, a small one that is copied for each change and a larger one
 * that is copied for every 64th. What it iterates over comes in the order of the base, then in that of the changes.
 */
export class LayeredMap<Key, Value extends NonNullable<unknown>> implements Iterable<[Key, Value]> {
  readonly #base: ReadonlyMap<Key, Value>;
  readonly #middle: Layer<Key, Value>;
  readonly #top: Layer<Key, Value>;
  /** How many entries the map has. */
  readonly size: number;

  /** @param base is the map's from now on: it is not to be changed any more. */
  constructor(
    base: ReadonlyMap<Key, Value> = new Map(),
    middle: Layer<Key, Value> = new Map(),
    top: Layer<Key, Value> = new Map(),
    size = base.size,
  ) {
    this.#base = base;
    this.#middle = middle;
    this.#top = top;
    this.size = size;
  }

  get(key: Key): Value | undefined {
    const changed = this.#changed(key);
    return changed === undefined ? this.#base.get(key) : changed === GONE ? undefined : changed;
  }

  has(key: Key): boolean {
    return this.get(key) !== undefined;
  }

  /** The map with the value under the key; the same map where it is there already. */
  set(key: Key, value: Value): LayeredMap<Key, Value> {
    const before = this.get(key);
    return before === value ? this : this.#with(key, value, before === undefined ? this.size + 1 : this.size);
  }

  /** The map without the key; the same map where it is not there. */
  delete(key: Key): LayeredMap<Key, Value> {
    return this.has(key) ? this.#with(key, GONE, this.size - 1) : this;
  }

  /** The map with each value under its key, and without the keys that come with null; at once, which takes a fraction of the time. */
  setAll(changes: Iterable<readonly [key: Key, value: Value | null]>): LayeredMap<Key, Value> {
    const changed = new Map<Key, Value | typeof GONE>();
    let { size } = this;
    for (const [key, value] of changes) {
      const before = changed.get(key) ?? this.get(key) ?? GONE;
      const now = value ?? GONE;
      if (now === before) continue;
      if (before === GONE) size++;
      if (now === GONE) size--;
      changed.set(key, now);
    }
    return changed.size === 0 ? this : this.#layered(new Map([...this.#top, ...changed]), size);
  }

  deleteAll(keys: Iterable<Key>): LayeredMap<Key, Value> {
    return this.setAll([...keys].map((key) => [key, null]));
  }

  *entries(): Generator<[Key, Value]> {
    const isChanged = this.#middle.size > 0 || this.#top.size > 0;
    for (const [key, value] of this.#base) {
      const now = isChanged ? (this.#changed(key) ?? value) : value;
      if (now !== GONE) yield [key, now];
    }
    for (const [key, value] of this.#middle) {
      const now = this.#top.get(key) ?? value;
      if (now !== GONE && !this.#base.has(key)) yield [key, now];
    }
    for (const [key, value] of this.#top)
      if (value !== GONE && !this.#middle.has(key) && !this.#base.has(key)) yield [key, value];
  }

  [Symbol.iterator](): Generator<[Key, Value]> {
    return this.entries();
  }

  *keys(): Generator<Key> {
    for (const [key] of this) yield key;
  }

  *values(): Generator<Value> {
    for (const [, value] of this) yield value;
  }

  forEach(look: (value: Value, key: Key) => void): void {
    for (const [key, value] of this) look(value, key);
  }

  some(test: (value: Value, key: Key) => boolean): boolean {
    for (const [key, value] of this) if (test(value, key)) return true;
    return false;
  }

  every(test: (value: Value, key: Key) => boolean): boolean {
    return !this.some((value, key) => !test(value, key));
  }

  find(test: (value: Value, key: Key) => boolean): Value | undefined {
    for (const [key, value] of this) if (test(value, key)) return value;
    return undefined;
  }

  count(test: (value: Value, key: Key) => boolean): number {
    let count = 0;
    for (const [key, value] of this) if (test(value, key)) count++;
    return count;
  }

  /** What the upper layers say of a key; undefined where they say nothing. */
  #changed(key: Key): Value | typeof GONE | undefined {
    const changed = this.#top.size === 0 ? undefined : this.#top.get(key);
    return changed !== undefined || this.#middle.size === 0 ? changed : this.#middle.get(key);
  }

  #with(key: Key, value: Value | typeof GONE, size: number): LayeredMap<Key, Value> {
    return this.#layered(new Map(this.#top).set(key, value), size);
  }

  /** The map with another top layer, which is merged into the layers below where it has grown. */
  #layered(top: Layer<Key, Value>, size: number): LayeredMap<Key, Value> {
    if (top.size <= TOP_SIZE) return new LayeredMap(this.#base, this.#middle, top, size);
    const middle = new Map([...this.#middle, ...top]);
    if (middle.size <= MIDDLE_SIZE) return new LayeredMap(this.#base, middle, new Map(), size);
    const base = new Map(this.#base);
    for (const [changed, now] of middle) {
      if (now === GONE) base.delete(changed);
      else base.set(changed, now);
    }
    return new LayeredMap(base);
  }
}
