import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { FileId } from '../files/file.ts';
import {
  BOARD_WIDTH,
  type BoardId,
  MAX_PIECES,
  PIECE_KINDS,
  type Piece,
  type PieceId,
  pieceSchema,
} from '../model/board.ts';
import { lookSchema } from '../model/look.ts';
import { applyOperation, applyOperations, wordsOf } from '../operations/apply.ts';
import type { Operation } from '../operations/operation.ts';
import { Draw } from '../testing/draw.ts';
import { drawPiece } from '../testing/draw-board-edits.ts';
import { emptySite, siteAfter } from '../testing/random-site.ts';
import { boardsWith, coloursOn, looksOfBoard } from './board-looks.ts';
import { boardHeight, freePlace, movedPiece, resizedPiece } from './place-piece.ts';

const id = (text: string) => text as PieceId;
const board = 'warm' as BoardId;
const colour = (name: string, hex: string, y = 0): Piece => ({
  kind: 'colour',
  id: id(name),
  x: 0,
  y,
  width: 100,
  height: 100,
  colour: hex,
  name: '',
});
const anyPiece = fc
  .tuple(fc.nat(), fc.constantFrom(...PIECE_KINDS))
  .map(([seed, kind]) => drawPiece(id('p'), kind, new Draw(seed)));

describe('pieces on a board', () => {
  it('stay on it wherever they are moved and however they are resized', () => {
    fc.assert(
      fc.property(
        anyPiece,
        fc.integer({ min: -9000, max: 9000 }),
        fc.integer({ min: -9000, max: 9000 }),
        (one, x, y) => {
          for (const after of [movedPiece(one, x, y), resizedPiece(one, x, y)]) {
            expect(pieceSchema.safeParse(after).success).toBe(true);
            expect(after.x + after.width).toBeLessThanOrEqual(BOARD_WIDTH);
          }
        },
      ),
    );
  });

  it('are laid where nothing lies, one after another', () => {
    const placed: { x: number; y: number; width: number; height: number }[] = [];
    const draw = new Draw(5);
    for (let n = 0; n < 40; n++) {
      const size = { width: draw.int(60, 500), height: draw.int(60, 400) };
      placed.push({ ...freePlace(placed, size.width, size.height), ...size });
    }
    placed.forEach((one, at) =>
      placed.slice(at + 1).forEach((other) => {
        const isApart =
          one.x >= other.x + other.width ||
          other.x >= one.x + one.width ||
          one.y >= other.y + other.height ||
          other.y >= one.y + one.height;
        expect(isApart).toBe(true);
      }),
    );
    expect(boardHeight(placed)).toBeGreaterThan(Math.max(...placed.map(({ y, height }) => y + height)));
    expect(boardHeight([])).toBeGreaterThan(0);
  });

  it('keep what lies upon what, and give it back when they are taken away and put back', () => {
    const add: Operation = {
      name: 'board.add',
      board,
      title: 'Warm',
      pieces: ['a', 'b', 'c'].map((name) => colour(name, '#0e6470')) as never,
    };
    const site = siteAfter([add], emptySite());
    const order = (of: typeof site) => of.boards[0]!.pieces.map((one) => one.id).join('');
    const after = (...operations: Operation[]) => {
      const outcome = applyOperations(site, operations);
      if (!outcome.ok) throw new Error(outcome.code);
      return outcome;
    };
    const removed = after({ name: 'piece.remove', board, piece: id('b') });
    expect(order(removed.site)).toBe('ac');
    const back = applyOperations(removed.site, removed.inverse);
    expect(back.ok && order(back.site)).toBe('abc');
    expect(
      order(after({ name: 'piece.put', board, piece: colour('a', '#0e6470') as never, above: id('c') }).site),
    ).toBe('bca');
    expect(order(after({ name: 'piece.put', board, piece: colour('b', '#111111') as never }).site)).toBe('abc');
    expect(applyOperation(site, { name: 'piece.put', board, piece: colour('a', '#0e6470') as never })).toMatchObject({
      ok: true,
      inverse: [],
    });
    const note = { ...colour('a', '#0e6470'), kind: 'note', text: 'x' };
    expect(applyOperation(site, { name: 'piece.put', board, piece: note as never })).toMatchObject({
      code: 'piece-kind',
    });
    expect(wordsOf({ name: 'piece.remove', board, piece: id('b') }, site)).toBe(
      'removed a colour from the board ‘Warm’',
    );
  });

  it('are no more than there is room for', () => {
    const full = siteAfter(
      [
        {
          name: 'board.add',
          board,
          title: 'Warm',
          pieces: Array.from({ length: MAX_PIECES }, (_, n) => colour(`c${n}`, '#0e6470')) as never,
        },
      ],
      emptySite(),
    );
    expect(applyOperation(full, { name: 'piece.put', board, piece: colour('x', '#0e6470') as never })).toMatchObject({
      code: 'piece-too-many',
    });
  });
});

describe('looks of a board', () => {
  it('have its colours from the top down, and its type', () => {
    const type: Piece = { kind: 'type', id: id('t'), x: 0, y: 0, width: 200, height: 100, pair: 'library' };
    const pieces = [colour('a', '#7d3c98', 300), colour('b', '#c8a24b'), colour('c', '#7d3c98'), type];
    expect(coloursOn({ pieces })).toEqual(['#c8a24b', '#7d3c98']);
    const looks = looksOfBoard({ pieces });
    expect(looks[0]).toMatchObject({ colour: '#c8a24b', pair: 'library' });
    expect(new Set(looks.map((look) => look.pair))).toEqual(new Set(['library']));
    expect(looks.every((look) => lookSchema.safeParse(look).success)).toBe(true);
    expect(looksOfBoard({ pieces: [type] })).toEqual([]);
    const shown: Piece = {
      kind: 'picture',
      id: id('p'),
      x: 0,
      y: 0,
      width: 90,
      height: 90,
      file: 'aaaaaaaaaaaaaaaa' as FileId,
    };
    const boards = [
      { id: board, name: 'Warm', pieces: [type] },
      { id: board, name: 'Cold', pieces: [shown] },
    ];
    expect(boardsWith({ boards }, 'aaaaaaaaaaaaaaaa').map(({ name }) => name)).toEqual(['Cold']);
  });
});
