/**
 * Draws from a seed: the same seed gives the same draws. An *odd* draw now and then picks what a rule forbids, so that
 * refusals are met too.
 */
export class Draw {
  readonly isOdd: boolean;
  #state: number;
  /** How many places go by before the odd one. */
  #beforeOdd: number;

  constructor(seed: number, isOdd = false) {
    this.#state = seed | 0;
    this.isOdd = isOdd;
    this.#beforeOdd = isOdd ? this.int(0, this.of([0, 1, 3, 8])) : -1;
  }

  /** From 0 up to 1 (mulberry32). */
  #next(): number {
    this.#state = (this.#state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(this.#state ^ (this.#state >>> 15), 1 | this.#state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  }

  /** A whole number, both ends included. */
  int(min: number, max: number): number {
    return min + Math.floor(this.#next() * (max - min + 1));
  }

  chance(share: number): boolean {
    return this.#next() < share;
  }

  /** One of a list. @throws RangeError where the list is empty: ask `maybeOf` then. */
  of<One>(list: readonly One[]): One {
    if (list.length === 0)
      throw new RangeError('There is nothing to draw from; use maybeOf where a list may be empty.');
    return list[this.int(0, list.length - 1)] as One;
  }

  maybeOf<One>(list: readonly One[]): One | undefined {
    return list.length === 0 ? undefined : this.of(list);
  }

  /** Some of a list, each once, in any order. */
  some<One>(list: readonly One[], min: number, max: number): One[] {
    const left = [...list];
    const count = Math.min(left.length, this.int(min, max));
    return Array.from({ length: count }, () => left.splice(this.int(0, left.length - 1), 1)[0] as One);
  }

  /** A value that is given with the chance, else undefined. */
  maybe<One>(share: number, make: () => One): One | undefined {
    return this.chance(share) ? make() : undefined;
  }

  /** Whether an odd draw is odd here: at one of the places where it could be, so that one rule is broken at a time. */
  odd(): boolean {
    return this.isOdd && this.#beforeOdd-- === 0;
  }
}
