/**
 * Where rows of one tree stand in another: pieces of rows that follow each other in both, in the order in which they stand in the first.
 * Rows that are in no piece are not in the second tree.
 */
export interface RowRuns {
  /** The first row of each piece in the first tree, and the one after its last. */
  readonly from: readonly number[];
  readonly to: readonly number[];
  /** How many rows further down a piece stands in the second tree. */
  readonly by: readonly number[];
}

/** A piece on its way into `RowRuns`. */
export interface RowRun {
  readonly from: number;
  readonly to: number;
  readonly by: number;
}

/** Runs from pieces in any order that have no row in common; pieces that go on from each other become one. */
export function makeRuns(pieces: readonly RowRun[]): RowRuns {
  const [from, to, by]: [number[], number[], number[]] = [[], [], []];
  for (const piece of [...pieces].sort((a, b) => a.from - b.from)) {
    const last = from.length - 1;
    if (last >= 0 && to[last] === piece.from && by[last] === piece.by) to[last] = piece.to;
    else {
      from.push(piece.from);
      to.push(piece.to);
      by.push(piece.by);
    }
  }
  return { from, to, by };
}

/** The row of the second tree for one of the first, or undefined. */
export function rowThrough({ from, to, by }: RowRuns, row: number): number | undefined {
  let [low, high] = [0, from.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (from[middle]! <= row) low = middle + 1;
    else high = middle;
  }
  const piece = low - 1;
  return piece >= 0 && row < to[piece]! ? row + by[piece]! : undefined;
}

/** From the first tree of one to the second of the other, where the one leads to the first of the other. */
export function joinedRuns(one: RowRuns, other: RowRuns): RowRuns {
  const pieces: RowRun[] = [];
  one.from.forEach((from, at) => {
    const by = one.by[at]!;
    const [first, end] = [from + by, one.to[at]! + by];
    for (let next = 0; next < other.from.length; next++) {
      const start = Math.max(first, other.from[next]!);
      const stop = Math.min(end, other.to[next]!);
      if (start < stop) pieces.push({ from: start - by, to: stop - by, by: by + other.by[next]! });
    }
  });
  return makeRuns(pieces);
}

/** A column of the second tree with the values of the first; what the runs do not lead to stays as `made` has it. */
export function carriedColumn<Column extends Uint8Array | Int32Array>(
  column: Column,
  { from, to, by }: RowRuns,
  made: Column,
): Column {
  from.forEach((first, at) => made.set(column.subarray(first, to[at]), first + by[at]!));
  return made;
}

/** The same for values of any kind: so many rows, of which those that the runs do not lead to are left for the caller to set. */
export function carriedValues<Value>(values: readonly Value[], { from, to, by }: RowRuns, count: number): Value[] {
  const made = values.slice(0, count);
  // A row that stands where it stood is there already.
  from.forEach((first, at) => {
    const shift = by[at]!;
    if (shift === 0) return;
    const end = to[at]!;
    for (let row = first; row < end; row++) made[row + shift] = values[row]!;
  });
  return made;
}
