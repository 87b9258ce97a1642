/** JSON from outside is nested at most so deep: a tree of pages of 40 levels, each with what hangs on it, is far from it. */
export const MAX_JSON_DEPTH = 200;

/** What of JSON from outside cannot be worked with, and where: a JSON pointer (RFC 6901). */
export interface JsonFault {
  readonly pointer: string;
  readonly detail: string;
}

const TOO_DEEP = `It is nested too deeply: at most ${MAX_JSON_DEPTH} levels.`;
const UNSOUND = 'It has a character that no text can have: U+0000, or half of a pair (U+D800 to U+DFFF).';

/** Whether a text can be kept: it has no U+0000, which databases do not take, and is well-formed UTF-16. */
export const isSoundText = (text: string): boolean => !text.includes('\0') && !/\p{Surrogate}/u.test(text);

/** The first thing in a value that cannot be worked with; null where all can. No depth of it overflows the stack. */
export function faultInJson(value: unknown): JsonFault | null {
  const waiting: Place[] = [{ value, above: null, key: '', depth: 0 }];
  for (let place = waiting.pop(); place !== undefined; place = waiting.pop()) {
    const { value: one, depth } = place;
    if (typeof one === 'string' && !isSoundText(one)) return { pointer: pointerTo(place), detail: UNSOUND };
    if (typeof one !== 'object' || one === null) continue;
    if (depth >= MAX_JSON_DEPTH) return { pointer: pointerTo(place), detail: TOO_DEEP };
    for (const [key, below] of Object.entries(one)) {
      if (!isSoundText(key)) return { pointer: pointerTo(place), detail: UNSOUND };
      if (typeof below === 'string' || typeof below === 'object')
        waiting.push({ value: below, above: place, key, depth: depth + 1 });
    }
  }
  return null;
}

interface Place {
  readonly value: unknown;
  readonly above: Place | null;
  readonly key: string;
  readonly depth: number;
}

function pointerTo(place: Place): string {
  const steps: string[] = [];
  for (let at: Place = place; at.above !== null; at = at.above)
    steps.unshift(at.key.replaceAll('~', '~0').replaceAll('/', '~1'));
  return steps.map((step) => `/${step}`).join('');
}
