/**
 * A number near 0 that belongs to two keys, whichever comes first: it decides where two pairs are as good as each other,
 * so that the order of lists, and of sides, does not.
 */
export function tieBreak(a: string, b: string): number {
  let hash = 2166136261;
  const both = a < b ? `${a}\n${b}` : `${b}\n${a}`;
  for (let at = 0; at < both.length; at++) hash = Math.imul(hash ^ both.charCodeAt(at), 16777619);
  hash = Math.imul(hash ^ (hash >>> 15), 2246822507);
  return ((hash >>> 0) / 2 ** 32) * 1e-6;
}
