import { Parser } from 'htmlparser2';

/** An element of a text, and where it stands: `from` and `to` around its tags, `innerFrom` and `innerTo` around what is in it. */
export interface HtmlElement {
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  /** What it says, without tags and with its signs read. */
  words: string;
  readonly from: number;
  readonly innerFrom: number;
  innerTo: number;
  to: number;
}

/** The elements of a text that are looked for, in their order; one within another is passed over. The parser reads in linear time. */
export function elementsOf(
  html: string,
  isLookedFor: (name: string, attributes: Readonly<Record<string, string>>) => boolean,
): HtmlElement[] {
  const found: HtmlElement[] = [];
  let open: HtmlElement | null = null;
  let depth = 0;
  const parser = new Parser({
    onopentag: (name, attributes) => {
      if (open) depth++;
      else if (isLookedFor(name, attributes)) {
        const innerFrom = parser.endIndex + 1;
        open = { name, attributes, words: '', from: parser.startIndex, innerFrom, innerTo: innerFrom, to: innerFrom };
        depth = 0;
      }
    },
    ontext: (words) => {
      if (open) open.words += words;
    },
    onclosetag: () => {
      if (!open || depth-- > 0) return;
      open.innerTo = parser.startIndex;
      open.to = parser.endIndex + 1;
      found.push(open);
      open = null;
    },
  });
  parser.end(html);
  return found;
}

/** A text with something else in the place of some of its elements; all that stands around them stays letter by letter. */
export function withElements(
  html: string,
  elements: readonly HtmlElement[],
  write: (element: HtmlElement, inner: string) => string,
): string {
  let made = '';
  let done = 0;
  for (const element of elements) {
    made += html.slice(done, element.from) + write(element, html.slice(element.innerFrom, element.innerTo));
    done = element.to;
  }
  return made + html.slice(done);
}

/** What a text says, its blocks parted by spaces. */
export function wordsOf(html: string): string {
  let words = '';
  const parser = new Parser({
    ontext: (text) => void (words += text),
    onopentag: (name) => void (words += WITHIN_WORDS.has(name) ? '' : ' '),
    onclosetag: (name) => void (words += WITHIN_WORDS.has(name) ? '' : ' '),
  });
  parser.end(html);
  return words.replace(/\s+/g, ' ').trim();
}

/** Elements that may begin in the midst of a word. */
const WITHIN_WORDS: ReadonlySet<string> = new Set(['a', 'strong', 'em', 'u', 's', 'code', 'span']);
