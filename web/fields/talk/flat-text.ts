import type { Node } from '@tiptap/pm/model';

/** What stands in a text for something without words, such as a picture within a line. */
const WORDLESS = '\uFFFC';

/** The words of a text in one line each block, and where each character stands in the text. */
export interface FlatText {
  readonly text: string;
  /** The place of a character in the editor's document. */
  readonly placeOf: (at: number) => number;
  /** The first character at a place of the document or after it. */
  readonly characterAt: (place: number) => number;
}

export function flatText(doc: Node): FlatText {
  let text = '';
  // Each piece: its first character, and the place of that.
  const from: number[] = [];
  const places: number[] = [];
  const add = (piece: string, place: number) => {
    from.push(text.length);
    places.push(place);
    text += piece;
  };
  doc.descendants((node, place) => {
    if (node.isTextblock && text !== '') add('\n', place);
    else if (node.isText) add(node.text!, place);
    else if (node.isInline && node.isLeaf) add(WORDLESS, place);
    return true;
  });
  const pieceOf = (list: readonly number[], wanted: number): number => {
    let [low, high] = [0, list.length - 1];
    while (low < high) {
      const middle = (low + high + 1) >> 1;
      if (list[middle]! <= wanted) low = middle;
      else high = middle - 1;
    }
    return low;
  };
  return {
    text,
    placeOf: (at) => {
      const piece = pieceOf(from, at);
      return places.length === 0 ? 0 : places[piece]! + at - from[piece]!;
    },
    characterAt: (place) => {
      if (places.length === 0 || place < places[0]!) return 0;
      const piece = pieceOf(places, place);
      const end = from[piece + 1] ?? text.length;
      return Math.min(end, from[piece]! + place - places[piece]!);
    },
  };
}
