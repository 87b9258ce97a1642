import { TYPE_PAIRS } from '../look/type-pairs.ts';
import {
  BOARD_WIDTH,
  type Board,
  type BoardId,
  MIN_PIECE,
  PIECE_KINDS,
  type Piece,
  type PieceId,
  type PieceKind,
} from '../model/board.ts';
import type { FileId } from '../files/file.ts';
import type { Site } from '../model/site.ts';
import type { Draw } from './draw.ts';
import type { OperationDraws } from './draw-edit.ts';
import { NOBODY, drawAfter, drawId, drawName, drawNewId } from './draw-values.ts';

/** A piece of that kind anywhere on a board. */
export function drawPiece(id: PieceId, kind: PieceKind, draw: Draw): Piece {
  const place = {
    id,
    x: draw.int(0, BOARD_WIDTH - 400),
    y: draw.int(0, 900),
    width: draw.int(MIN_PIECE, 400),
    height: draw.int(MIN_PIECE, 400),
  };
  switch (kind) {
    case 'picture':
      return { kind, ...place, file: draw.chance(0.3) ? null : ('aaaaaaaaaaaaaaaa' as FileId) };
    case 'colour':
      return { kind, ...place, colour: draw.of(['#0e6470', '#c8a24b', '#7d3c98']), name: draw.of(['', 'Tar']) };
    case 'type':
      return { kind, ...place, pair: draw.of(TYPE_PAIRS).id };
    case 'note':
      return { kind, ...place, text: draw.of(['Calm', 'No stock pictures', '']) };
  }
}

const nobody = (): PieceId => NOBODY as string as PieceId;
const drawBoard = (site: Site, draw: Draw): Board | undefined =>
  draw.odd() ? undefined : (draw.maybeOf(site.boards.filter(({ pieces }) => pieces.length > 0)) ?? site.boards[0]);
const idOf = (board: Board | undefined): BoardId => board?.id ?? (NOBODY as string as BoardId);

export const drawBoardAdd: OperationDraws['board.add'] = (site, draw) => {
  const pieces = draw
    .some(['p0', 'p1', 'p2', 'p3'], 1, 4)
    .map((id) => drawPiece(id as PieceId, draw.of(PIECE_KINDS), draw));
  return {
    name: 'board.add',
    board: drawNewId(site.boards, ['b1', 'b2', 'b3'], draw),
    ...drawAfter(site.boards, draw),
    title: drawName(draw, ['Warm', 'Cold']),
    pieces: draw.odd() ? [pieces[0]!, pieces[0]!] : pieces,
  };
};
export const drawBoardSet: OperationDraws['board.set'] = (site, draw) => ({
  name: 'board.set',
  board: drawId(site.boards, draw),
  fields: { title: drawName(draw, ['Timber', 'Tar']) },
});
export const drawBoardRemove: OperationDraws['board.remove'] = (site, draw) => ({
  name: 'board.remove',
  board: drawId(site.boards, draw),
});

export const drawPiecePut: OperationDraws['piece.put'] = (site, draw) => {
  const board = drawBoard(site, draw);
  const pieces = board?.pieces ?? [];
  const was = draw.chance(0.5) ? draw.maybeOf(pieces) : undefined;
  const others = PIECE_KINDS.filter((kind) => kind !== was?.kind);
  const kind = was && !draw.odd() ? was.kind : draw.of(others);
  const id = was?.id ?? drawNewId<PieceId>(pieces, ['p0', 'p1', 'p2', 'p3', 'p4'], draw);
  const above = draw.maybeOf(pieces.filter((one) => one.id !== id))?.id ?? null;
  return {
    name: 'piece.put',
    board: idOf(board),
    piece: drawPiece(id, kind, draw),
    ...(draw.chance(0.4) && { above: draw.odd() ? nobody() : above }),
  };
};
export const drawPieceRemove: OperationDraws['piece.remove'] = (site, draw) => {
  const board = drawBoard(site, draw);
  return {
    name: 'piece.remove',
    board: idOf(board),
    piece: draw.odd() ? nobody() : (draw.maybeOf(board?.pieces ?? [])?.id ?? nobody()),
  };
};
