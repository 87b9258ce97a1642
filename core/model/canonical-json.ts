/** JSON with the keys of every object sorted and undefined ones left out: what says the same is the same text. */
export function canonicalJson(value: unknown): string {
  if (Array.isArray(value)) return `[${value.map(canonicalJson).join(',')}]`;
  if (typeof value === 'object' && value !== null) {
    const entries = Object.entries(value).filter(([, part]) => part !== undefined);
    entries.sort(([a], [b]) => (a < b ? -1 : 1));
    return `{${entries.map(([key, part]) => `${JSON.stringify(key)}:${canonicalJson(part)}`).join(',')}}`;
  }
  return JSON.stringify(value);
}

/** Whether two values say the same as JSON, in whatever order their keys stand: what comes from a database or a file has them in another. */
export const isSameJson = (a: unknown, b: unknown): boolean =>
  a === b || (typeof a === 'object' && typeof b === 'object' && canonicalJson(a) === canonicalJson(b));
