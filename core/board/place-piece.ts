import type { Rectangle } from '../drawing/rectangle.ts';
import { BOARD_WIDTH, MAX_BOARD_HEIGHT, MIN_PIECE, type Piece } from '../model/board.ts';

/** Pieces lie on a grid of so many pixels. */
export const GRID = 10;
const GAP = 20;
/** A board is drawn so high at least, and so much higher than what lies on it. */
const LEAST_HEIGHT = 560;
const ROOM_BELOW = 160;

const onGrid = (length: number): number => Math.round(length / GRID) * GRID;
const within = (length: number, least: number, most: number): number => Math.max(least, Math.min(most, length));

/** A piece moved, on the grid and on the board. */
export function movedPiece<One extends Piece>(piece: One, byX: number, byY: number): One {
  return {
    ...piece,
    x: within(onGrid(piece.x + byX), 0, Math.max(0, BOARD_WIDTH - piece.width)),
    y: within(onGrid(piece.y + byY), 0, MAX_BOARD_HEIGHT - piece.height),
  };
}

/** A piece made wider and higher, or narrower and lower, at its lower right corner. */
export function resizedPiece<One extends Piece>(piece: One, byX: number, byY: number): One {
  return {
    ...piece,
    width: within(onGrid(piece.width + byX), MIN_PIECE, BOARD_WIDTH - piece.x),
    height: within(onGrid(piece.height + byY), MIN_PIECE, MAX_BOARD_HEIGHT - piece.y),
  };
}

/** Where a new piece of that size lies on no other one: as high as there is room, and there as far to the left. */
export function freePlace(pieces: readonly Rectangle[], width: number, height: number): { x: number; y: number } {
  const tops = [GAP, ...pieces.map((one) => onGrid(one.y + one.height) + GAP)].sort((a, b) => a - b);
  for (const y of tops)
    for (let x = GAP; x + width <= BOARD_WIDTH - GAP; x += GAP) {
      const here = { x, y, width, height };
      if (y + height <= MAX_BOARD_HEIGHT && pieces.every((one) => !overlaps(one, here))) return { x, y };
    }
  return { x: GAP, y: GAP };
}

/** Whether two lie closer than the gap between pieces. */
const overlaps = (one: Rectangle, other: Rectangle): boolean =>
  one.x < other.x + other.width + GAP &&
  other.x < one.x + one.width + GAP &&
  one.y < other.y + other.height + GAP &&
  other.y < one.y + one.height + GAP;

/** How high a board is drawn. */
export const boardHeight = (pieces: readonly Rectangle[]): number =>
  Math.max(LEAST_HEIGHT, ...pieces.map(({ y, height }) => y + height + ROOM_BELOW));
