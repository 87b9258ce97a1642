import type { AboutBoard, AboutSketch } from '../model/feedback.ts';
import type { Piece } from '../model/board.ts';
import { cutTo } from '../model/cut-text.ts';
import type { Site } from '../model/site.ts';
import { BOXES } from '../sketch/box-types.ts';

/** What somebody speaks of: "the box ‘What it costs’ of variant B", "a colour on the board ‘Timber and tar’". */
export function aboutWords({ sketches, boards }: Site, about: AboutSketch | AboutBoard): string {
  if ('board' in about) {
    const board = boards.find(({ id }) => id === about.board);
    if (!board) return 'a board that was removed';
    const piece = board.pieces.find(({ id }) => id === about.piece);
    const of = `the board ‘${board.name}’`;
    return about.piece === null
      ? of
      : piece
        ? `the ${piece.kind} ${ofPiece(piece)}on ${of}`
        : `something that was on ${of}`;
  }
  const { sketch, variant, box } = about;
  const found = sketches.find(({ id }) => id === sketch)?.variants.find(({ id }) => id === variant);
  if (!found) return 'a variant that was removed';
  if (box === null) return `variant ${found.name}`;
  const known = found.boxes.find(({ id }) => id === box);
  if (!known) return `a box of variant ${found.name} that was removed`;
  return `the box ‘${known.purpose || BOXES[known.type].name}’ of variant ${found.name}`;
}

/** What tells a piece of a board from others of its kind, where that is said in words. */
function ofPiece(piece: Piece): string {
  if (piece.kind === 'colour') return `‘${piece.name || piece.colour}’ `;
  return piece.kind === 'note' && piece.text !== '' ? `‘${cutTo(piece.text, 40)}’ ` : '';
}
