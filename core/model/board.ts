import { z } from 'zod';
import { fileIdSchema } from '../files/file.ts';
import { TYPE_PAIRS } from '../look/type-pairs.ts';

const idSchema = (of: string) =>
  z.string().regex(/^[0-9A-Za-z]{1,24}$/, `the id of a ${of} is 1 to 24 letters and digits`);
export const boardIdSchema = idSchema('board').brand<'BoardId'>();
export type BoardId = z.infer<typeof boardIdSchema>;
export const pieceIdSchema = idSchema('piece').brand<'PieceId'>();
export type PieceId = z.infer<typeof pieceIdSchema>;

export const MAX_BOARDS = 40;
export const MAX_BOARD_NAME_LENGTH = 80;
export const MAX_PIECES = 120;
export const MAX_NOTE_LENGTH = 600;
export const MAX_COLOUR_NAME_LENGTH = 40;

/** A board is so wide, in its own pixels, and so high at most. */
export const BOARD_WIDTH = 1200;
export const MAX_BOARD_HEIGHT = 6000;
export const MIN_PIECE = 40;

const place = {
  id: pieceIdSchema,
  /** The upper left corner, in pixels of the board. */
  x: z
    .int()
    .min(0)
    .max(BOARD_WIDTH - MIN_PIECE),
  y: z
    .int()
    .min(0)
    .max(MAX_BOARD_HEIGHT - MIN_PIECE),
  width: z.int().min(MIN_PIECE).max(BOARD_WIDTH),
  height: z.int().min(MIN_PIECE).max(MAX_BOARD_HEIGHT),
};

export const PIECE_KINDS = ['picture', 'colour', 'type', 'note'] as const;
export type PieceKind = (typeof PIECE_KINDS)[number];
export const pieceSchema = z.discriminatedUnion('kind', [
  /** A picture of the library; null until one is chosen. */
  z.strictObject({ kind: z.literal('picture'), ...place, file: fileIdSchema.nullable() }),
  z.strictObject({
    kind: z.literal('colour'),
    ...place,
    colour: z.string().regex(/^#[0-9a-f]{6}$/, 'a colour is six digits, such as #0e6470'),
    name: z.string().max(MAX_COLOUR_NAME_LENGTH),
  }),
  /** A pair of type families. */
  z.strictObject({
    kind: z.literal('type'),
    ...place,
    pair: z.string().refine((id) => TYPE_PAIRS.some((one) => one.id === id), 'there is no such pair of families'),
  }),
  z.strictObject({ kind: z.literal('note'), ...place, text: z.string().max(MAX_NOTE_LENGTH) }),
]);
/** Something that lies on a board. */
export type Piece = Readonly<z.infer<typeof pieceSchema>>;

export const boardSchema = z.strictObject({
  id: boardIdSchema,
  name: z.string().min(1).max(MAX_BOARD_NAME_LENGTH),
  /** The lowest first: later ones lie upon them. */
  pieces: z.array(pieceSchema).max(MAX_PIECES),
});
/** What is collected for the look of a site: pictures, colours, type and notes. It is a part of the plan and never goes live. */
export type Board = Readonly<z.infer<typeof boardSchema>>;
