import {
  BOX_TYPES,
  type Box,
  type BoxId,
  type BoxType,
  MAX_BOX_PURPOSE_LENGTH,
  MAX_BOX_WORDS,
} from '../model/sketch.ts';
import { cutTo } from '../model/cut-text.ts';
import { BOXES } from './box-types.ts';

/** The types by their names in small letters. */
const NAMES = BOX_TYPES.map((type) => ({ type, name: BOXES[type].name.toLowerCase() }));

/** The type of that name, or, where `isBegun` is enough, the one whose name begins with these words. */
function boxTypeNamed(words: string, isBegun: boolean): BoxType | undefined {
  const asked = words.trim().toLowerCase();
  return NAMES.find(({ name }) => name === asked || (isBegun && asked !== '' && name.startsWith(`${asked} `)))?.type;
}

const LENGTH_AT_END = /[,;(] ?(?:about |ca\.? ?|~ ?)?(\d{1,5}) words?\)?$/i;
const LINE_START = /^(?:[-*•–]|\d{1,3}[.)])\s+/;

/** What a line says of a box: what stands before a colon is its type where it names one, and its length stands at the end. */
export interface BoxLine {
  /** Undefined where the line names none. */
  readonly type: BoxType | undefined;
  readonly purpose: string;
  /** Undefined where the line does not say. */
  readonly words: number | undefined;
}

/** Reads a line such as `Picture: the slipway` or `What it costs, 80 words`. */
export function readBoxLine(line: string): BoxLine {
  let rest = line
    .trim()
    .replace(LINE_START, '')
    .slice(0, 2 * MAX_BOX_PURPOSE_LENGTH);
  const length = LENGTH_AT_END.exec(rest);
  const words = length ? Number(length[1]) : 0;
  const isLength = length !== null && words >= 1 && words <= MAX_BOX_WORDS;
  if (isLength) rest = rest.slice(0, length.index).trimEnd();
  const colon = rest.indexOf(':');
  const named = colon === -1 ? boxTypeNamed(rest, false) : boxTypeNamed(rest.slice(0, colon), true);
  const purpose = named === undefined ? rest : colon === -1 ? '' : rest.slice(colon + 1).trim();
  return { type: named, purpose: cutTo(purpose, MAX_BOX_PURPOSE_LENGTH), words: isLength ? words : undefined };
}

/** The boxes of a list, a line each; empty lines are passed over. `newId` makes ids. */
export const readBoxes = (text: string, newId: () => BoxId): Box[] =>
  text
    .split(/\r?\n/)
    .filter((line) => line.trim() !== '')
    .map((line) => {
      const { type = 'text', purpose, words } = readBoxLine(line);
      return {
        id: newId(),
        type,
        purpose,
        words: words !== undefined && BOXES[type].hasWords ? words : null,
        width: 'whole',
      };
    });

/** A box as a line that `readBoxLine` reads again. */
export const lineOfBox = ({ type, purpose, words }: Pick<Box, 'type' | 'purpose' | 'words'>): string =>
  `${BOXES[type].name}: ${purpose}${words === null ? '' : `, ${words} words`}`;
