import type { Outline } from './outline.ts';

const known = new WeakMap<Outline['parent'], readonly string[]>();

/** Each row's number in reading order: 1, 1.1, 1.2, 2 … The same list again while no node has moved. */
export function numbersOf(outline: Outline): readonly string[] {
  let numbers = known.get(outline.parent);
  if (!numbers) {
    const made: string[] = [];
    const used = new Int32Array(outline.nodes.length + 1);
    for (let row = 0; row < outline.nodes.length; row++) {
      const above = outline.parent[row]!;
      const place = ++used[above + 1]!;
      made.push(above === -1 ? `${place}` : `${made[above]}.${place}`);
    }
    known.set(outline.parent, (numbers = made));
  }
  return numbers;
}
