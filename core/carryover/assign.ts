import type { Pair } from './candidates.ts';

export interface Edge {
  readonly pair: Pair;
  /** More than 0. */
  readonly weight: number;
}

/**
 * The set of pairs with the greatest sum of weights in which each page stands at most once: the assignment problem on a
 * sparse graph, by shortest augmenting paths with prices (Jonker and Volgenant 1987; the search is Dijkstra's). A page
 * may stay alone, at weight 0. Gives the places of the chosen edges in the list.
 */
export function bestAssignment(edges: readonly Edge[], oldCount: number, plannedCount: number): number[] {
  const byOld: number[][] = Array.from({ length: oldCount }, () => []);
  edges.forEach(({ pair }, at) => byOld[pair[0]]!.push(at));
  // Staying alone is a column of each row's own, after the planned pages.
  const columns = plannedCount + oldCount;
  const price = new Float64Array(columns);
  const rowOfColumn = new Int32Array(columns).fill(-1);
  const edgeOfColumn = new Int32Array(columns).fill(-1);
  const distance = new Float64Array(columns).fill(Infinity);
  const cameFrom = new Int32Array(columns).fill(-1);
  const viaEdge = new Int32Array(columns).fill(-1);
  const isDone = new Uint8Array(columns);
  for (let start = 0; start < oldCount; start++) {
    const seen: number[] = [];
    const open = new Heap();
    const relax = (row: number, from: number, base: number) => {
      const reach = (column: number, cost: number, edge: number) => {
        const next = base + cost - price[column]!;
        if (isDone[column] || next >= distance[column]! - 1e-12) return;
        if (distance[column] === Infinity) seen.push(column);
        distance[column] = next;
        cameFrom[column] = from;
        viaEdge[column] = edge;
        open.push(next, column);
      };
      for (const edge of byOld[row]!) reach(edges[edge]!.pair[1], -edges[edge]!.weight, edge);
      reach(plannedCount + row, 0, -1);
    };
    relax(start, -1, 0);
    let end = -1;
    while (end === -1) {
      const [reached, column] = open.pop()!;
      if (isDone[column] || reached > distance[column]! + 1e-12) continue;
      isDone[column] = 1;
      const row = rowOfColumn[column]!;
      if (row === -1) end = column;
      else relax(row, column, reached - costOf(column, edgeOfColumn[column]!));
    }
    const shortest = distance[end]!;
    for (const column of seen) if (isDone[column]) price[column]! += distance[column]! - shortest;
    for (let column = end; column !== -1;) {
      const from = cameFrom[column]!;
      rowOfColumn[column] = from === -1 ? start : rowOfColumn[from]!;
      edgeOfColumn[column] = viaEdge[column]!;
      column = from;
    }
    for (const column of seen) {
      distance[column] = Infinity;
      isDone[column] = 0;
    }
  }
  return [...edgeOfColumn].filter((edge) => edge !== -1).sort((a, b) => a - b);

  /** What the row in a column pays there, with the column's price. */
  function costOf(column: number, edge: number): number {
    return (edge === -1 ? 0 : -edges[edge]!.weight) - price[column]!;
  }
}

/** A heap of the smallest first. */
class Heap {
  readonly #keys: number[] = [];
  readonly #values: number[] = [];

  push(key: number, value: number): void {
    let at = this.#keys.length;
    this.#keys.push(key);
    this.#values.push(value);
    while (at > 0) {
      const up = (at - 1) >> 1;
      if (this.#keys[up]! <= key) break;
      this.#swap(at, up);
      at = up;
    }
  }

  pop(): readonly [number, number] | undefined {
    if (this.#keys.length === 0) return undefined;
    const top = [this.#keys[0]!, this.#values[0]!] as const;
    const last = this.#keys.length - 1;
    this.#swap(0, last);
    this.#keys.pop();
    this.#values.pop();
    for (let at = 0; ;) {
      const left = 2 * at + 1;
      if (left >= last) break;
      const least = left + 1 < last && this.#keys[left + 1]! < this.#keys[left]! ? left + 1 : left;
      if (this.#keys[at]! <= this.#keys[least]!) break;
      this.#swap(at, least);
      at = least;
    }
    return top;
  }

  #swap(a: number, b: number): void {
    [this.#keys[a], this.#keys[b]] = [this.#keys[b]!, this.#keys[a]!];
    [this.#values[a], this.#values[b]] = [this.#values[b]!, this.#values[a]!];
  }
}
