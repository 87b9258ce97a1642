import { suggestLooks } from '../look/suggest.ts';
import type { Hex } from '../look/colours.ts';
import type { Board } from '../model/board.ts';
import type { Look } from '../model/look.ts';
import type { Site } from '../model/site.ts';

/** The colours that lie on a board, each once, from the top down. */
export const coloursOn = ({ pieces }: Pick<Board, 'pieces'>): Hex[] => [
  ...new Set(
    pieces
      .flatMap((one) => (one.kind === 'colour' ? [one] : []))
      .toSorted((a, b) => a.y - b.y || a.x - b.x)
      .map(({ colour }) => colour),
  ),
];

/** Looks made of what lies on a board: its colours, and its type where it has any. None where it has no colours. */
export function looksOfBoard(board: Pick<Board, 'pieces'>): Look[] {
  const colours = coloursOn(board);
  const pairs = board.pieces.flatMap((one) => (one.kind === 'type' ? [one.pair as Look['pair']] : []));
  if (colours.length === 0) return [];
  return suggestLooks(colours, 0).map((look, at) =>
    pairs.length > 0 ? { ...look, pair: pairs[at % pairs.length]! } : look,
  );
}

/** The boards on which a file of the library lies. */
export const boardsWith = ({ boards }: Pick<Site, 'boards'>, file: string): Board[] =>
  boards.filter(({ pieces }) => pieces.some((one) => one.kind === 'picture' && one.file === file));
