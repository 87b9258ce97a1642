import { z } from 'zod';
import {
  type Board,
  MAX_BOARDS,
  MAX_BOARD_NAME_LENGTH,
  MAX_PIECES,
  type Piece,
  boardIdSchema,
  pieceIdSchema,
  pieceSchema,
} from '../model/board.ts';
import { type Refusal, refuse } from '../model/refusal.ts';
import type { Site } from '../model/site.ts';
import { type Applied, defineOperation } from './definition.ts';
import { putInOrder } from './in-order.ts';
import type { Operation } from './operation.ts';
import { Things, fieldsBefore } from './things.ts';

const title = z.string().max(MAX_BOARD_NAME_LENGTH, `at most ${MAX_BOARD_NAME_LENGTH} characters`);

const boards = new Things<Board>({
  kind: 'board',
  listIn: (site) => site.boards,
  withList: (site, list) => ({ ...site, boards: list }),
  nameOf: ({ name }) => name,
  limit: { most: MAX_BOARDS, code: 'board-too-many' },
});

function checkBoard({ id, name, pieces }: Board): Refusal | null {
  if (name === '') return refuse('board-unnamed', { board: id });
  const ids = pieces.map((one) => one.id);
  const twice = ids.find((one, at) => ids.indexOf(one) !== at);
  return twice === undefined ? null : refuse('piece-twice', { piece: twice });
}

export const boardAddSchema = z.strictObject({
  name: z.literal('board.add'),
  board: boardIdSchema,
  /** The board that it follows; null puts it first, left out puts it last. */
  after: boardIdSchema.nullable().optional(),
  title,
  pieces: z.array(pieceSchema).max(MAX_PIECES, `at most ${MAX_PIECES} pieces`).optional(),
});

/** Adds a board. Whoever adds it makes the ids. */
export const boardAdd = defineOperation({
  schema: boardAddSchema,

  apply(site, { board, after, title: name, pieces = [] }) {
    const made: Board = { id: board, name: name.trim(), pieces };
    return boards.checkNew(site, board) ?? checkBoard(made) ?? boards.add(site, made, after);
  },

  cells: ({ board }) => boards.cellOfThere(board),

  words: ({ title: name }) => `added the board ‘${name}’`,
});

export const boardSetSchema = z.strictObject({
  name: z.literal('board.set'),
  board: boardIdSchema,
  fields: z.strictObject({ title }).partial(),
});

/** Renames a board. */
export const boardSet = defineOperation({
  schema: boardSetSchema,

  apply(site, { board, fields: { title: name } }) {
    const was = boards.find(site, board);
    if (!was) return boards.unknown(board);
    const next: Board = { ...was, name: name?.trim() ?? was.name };
    return checkBoard(next) ?? boards.set(site, was, next, fieldsBefore(was, next));
  },

  cells: ({ board, fields }) => boards.cellsOfFields(board, fields),

  words: ({ board, fields }, site) =>
    `renamed the board ${boards.named(site, board)} to ‘${fields.title ?? boards.find(site, board)?.name ?? ''}’`,
});

export const boardRemoveSchema = z.strictObject({ name: z.literal('board.remove'), board: boardIdSchema });

/** Takes a board away, with all that lies on it. Files stay in the library. */
export const boardRemove = defineOperation({
  schema: boardRemoveSchema,

  apply(site, { board }) {
    const was = boards.find(site, board);
    return was ? boards.remove(site, was, { title: was.name, pieces: was.pieces }) : boards.unknown(board);
  },

  cells: ({ board }) => boards.cellOfThere(board),

  words: ({ board }, site) => `removed the board ${boards.named(site, board)}`,
});

export const piecePutSchema = z.strictObject({
  name: z.literal('piece.put'),
  board: boardIdSchema,
  piece: pieceSchema,
  /** The piece right upon which it lies; null puts it lowest. Left out, a new one lies upon all, and one that is there stays where it lies. */
  above: pieceIdSchema.nullable().optional(),
});

/** Lays a piece on a board, or in place of the one with its id: moved, resized, or with something else said of it. */
export const piecePut = defineOperation({
  schema: piecePutSchema,

  apply(site, { board: id, piece, above }) {
    const board = boards.find(site, id);
    if (!board) return boards.unknown(id);
    const put = putInOrder<Piece>(board.pieces, piece, above);
    if (put === null) return refuse('piece-unknown', { piece: above! });
    if (put.was && put.was.kind !== piece.kind) return refuse('piece-kind', { piece: piece.id });
    if (put.isSame) return { ok: true, site, inverse: [], touched: [] };
    if (put.list.length > MAX_PIECES) return refuse('piece-too-many', { limit: MAX_PIECES });
    const inverse: Operation = put.was
      ? { name: 'piece.put', board: id, piece: put.was, above: put.before as Piece['id'] | null }
      : { name: 'piece.remove', board: id, piece: piece.id };
    return become(site, board, put.list, inverse);
  },

  cells: ({ board, piece }) => [`piece:${board}/${piece.id}.there`],

  words({ board: id, piece }, site) {
    const board = boards.find(site, id);
    const was = board?.pieces.find((one) => one.id === piece.id);
    const of = `${PIECE_WORDS[piece.kind]} ${was ? 'on' : 'to'} the board ${boards.named(site, id)}`;
    return `${was ? 'changed' : 'added'} ${of}`;
  },
});

export const pieceRemoveSchema = z.strictObject({
  name: z.literal('piece.remove'),
  board: boardIdSchema,
  piece: pieceIdSchema,
});

/** Takes a piece off a board. */
export const pieceRemove = defineOperation({
  schema: pieceRemoveSchema,

  apply(site, { board: id, piece }) {
    const board = boards.find(site, id);
    if (!board) return boards.unknown(id);
    const at = board.pieces.findIndex((one) => one.id === piece);
    const was = board.pieces[at];
    if (!was) return refuse('piece-unknown', { piece });
    return become(site, board, board.pieces.toSpliced(at, 1), {
      name: 'piece.put',
      board: id,
      piece: was,
      above: board.pieces[at - 1]?.id ?? null,
    });
  },

  cells: ({ board, piece }) => [`piece:${board}/${piece}.there`],

  words({ board: id, piece }, site) {
    const found = boards.find(site, id)?.pieces.find((one) => one.id === piece);
    return `removed ${found ? PIECE_WORDS[found.kind] : 'something'} from the board ${boards.named(site, id)}`;
  },
});

const PIECE_WORDS = { picture: 'a picture', colour: 'a colour', type: 'a typeface', note: 'a note' } as const;

const become = (site: Site, board: Board, pieces: readonly Piece[], inverse: Operation): Applied => ({
  ok: true,
  site: { ...site, boards: site.boards.map((one) => (one === board ? { ...board, pieces: [...pieces] } : one)) },
  inverse: [inverse],
  touched: [],
});
