import type { TextDocument, TextPart } from '../model/content.ts';

/** What is to be found in texts, and what goes in its place. */
export interface Replacing {
  readonly find: string;
  readonly by: string;
  /** Whether it is found only where no letter or digit stands next to it. */
  readonly isWhole: boolean;
  /** Whether capital and small letters differ. */
  readonly isExact: boolean;
}

/** One place in which words were found: what stands around them, in the line that they are in. */
export interface FoundWords {
  readonly before: string;
  readonly found: string;
  readonly after: string;
}

export interface Replaced {
  /** The same object where nothing was found. */
  readonly document: TextDocument;
  readonly count: number;
  /** The first places. */
  readonly places: readonly FoundWords[];
}

/** So many places are told. */
const TOLD = 5;
/** So many signs are told before and after what was found. */
const AROUND = 36;

/**
 * Replaces words in a text. What stands in one line is found though parts of it are set in bold or lead elsewhere; what goes in takes the
 * look of the first sign that it replaces. Facts, files and addresses of links stay.
 */
export function replaceWords(document: TextDocument, replacing: Replacing): Replaced {
  const found: Found = { count: 0, places: [] };
  if (replacing.find === '') return { document, ...found };
  const walk = <Part extends TextDocument | TextPart>(part: Part): Part => {
    if (!part.content) return part;
    const content = replacedIn(part.content, replacing, found).map(walk);
    const isSame = content.length === part.content.length && content.every((one, at) => one === part.content![at]);
    return isSame ? part : { ...part, content };
  };
  return { document: walk(document), ...found };
}

/** What was found until now. */
interface Found {
  count: number;
  readonly places: FoundWords[];
}

/** The parts of a block, with its words replaced; other parts within it end a line. */
function replacedIn(parts: readonly TextPart[], replacing: Replacing, told: Found): readonly TextPart[] {
  const made: TextPart[] = [];
  let line: TextPart[] = [];
  const end = () => {
    for (const one of replacedLine(line, replacing, told)) made.push(one);
    line = [];
  };
  for (const part of parts)
    if (part.text !== undefined) line.push(part);
    else {
      end();
      made.push(part);
    }
  end();
  return made;
}

function replacedLine(line: readonly TextPart[], replacing: Replacing, told: Found): readonly TextPart[] {
  const text = line.map((part) => part.text).join('');
  const found = placesIn(text, replacing);
  if (found.length === 0) return line;
  told.count += found.length;
  for (const at of found.slice(0, TOLD - told.places.length)) {
    const to = at + replacing.find.length;
    told.places.push({
      before: text.slice(Math.max(0, at - AROUND), at),
      found: text.slice(at, to),
      after: text.slice(to, to + AROUND),
    });
  }
  let from = 0;
  let next = 0;
  return line.flatMap((part) => {
    const own = part.text!;
    const [begins, ends] = [from, from + own.length];
    from = ends;
    let made = '';
    let done = begins;
    for (; next < found.length && found[next]! < ends; next++) {
      const at = found[next]!;
      const to = at + replacing.find.length;
      made += text.slice(done, Math.max(done, at));
      // What goes in stands where the first sign stood.
      if (at >= begins) made += replacing.by;
      done = Math.max(done, Math.min(to, ends));
      // What goes on in the next part is taken out there too.
      if (to > ends) break;
    }
    made += text.slice(done, ends);
    return made === own ? [part] : made === '' ? [] : [{ ...part, text: made }];
  });
}

/** Where a text has it, from left to right; none of them overlap. Grows with the length of the text alone. */
function placesIn(text: string, { find, isWhole, isExact }: Replacing): number[] {
  const folded = isExact ? text : foldedCase(text);
  const wanted = isExact ? find : foldedCase(find);
  const found: number[] = [];
  for (let at = folded.indexOf(wanted); at !== -1; at = folded.indexOf(wanted, at)) {
    const to = at + wanted.length;
    if (isWhole && (isInWord(text, at) || isInWord(text, to))) {
      at += 1;
      continue;
    }
    found.push(at);
    at = to;
  }
  return found;
}

/** In small letters, sign by sign, so that each stays where it was: some letters are two in the other case. */
const foldedCase = (text: string): string =>
  text.replace(/\p{Lu}/gu, (letter) => {
    const small = letter.toLowerCase();
    return small.length === letter.length ? small : letter;
  });

const IN_WORDS = /[\p{L}\p{N}]/u;

/** Whether a letter or digit stands on both sides of a place. */
const isInWord = (text: string, at: number): boolean =>
  at > 0 && at < text.length && IN_WORDS.test(text[at - 1]!) && IN_WORDS.test(text[at]!);
