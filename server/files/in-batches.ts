/** What comes one by one, in lists of so many; the last one is shorter. */
export async function* inBatches<One>(all: Iterable<One> | AsyncIterable<One>, count: number): AsyncGenerator<One[]> {
  let some: One[] = [];
  for await (const one of all) {
    some.push(one);
    if (some.length < count) continue;
    yield some;
    some = [];
  }
  if (some.length > 0) yield some;
}
