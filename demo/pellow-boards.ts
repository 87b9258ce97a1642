import type { BoardId, Piece, PieceId } from '#core/model/board.ts';
import type { Operation } from '#core/operations/operation.ts';
import { demoFileId } from './demo-files.ts';

type Place = readonly [x: number, y: number, width: number, height: number];
const at = (id: string, [x, y, width, height]: Place) => ({ id: id as PieceId, x, y, width, height });
const picture = (id: string, file: string, place: Place): Piece => ({
  kind: 'picture',
  ...at(id, place),
  file: demoFileId(file),
});
const colour = (id: string, name: string, hex: string, place: Place): Piece => ({
  kind: 'colour',
  ...at(id, place),
  colour: hex,
  name,
});
const type = (id: string, pair: string, place: Place): Piece => ({ kind: 'type', ...at(id, place), pair });
const note = (id: string, text: string, place: Place): Piece => ({ kind: 'note', ...at(id, place), text });

const BOARDS = [
  {
    id: 'tar',
    title: 'Timber and tar',
    pieces: [
      picture('p1', 'frames', [20, 20, 460, 310]),
      picture('p2', 'bench', [20, 350, 300, 220]),
      colour('c1', 'Stockholm tar', '#3a2418', [500, 20, 160, 200]),
      colour('c2', 'Oak', '#b07f3f', [680, 20, 160, 200]),
      colour('c3', 'Linseed', '#d9b45b', [860, 20, 160, 200]),
      colour('c4', 'Shed door', '#7a2e22', [1040, 20, 140, 200]),
      type('t1', 'hearth', [500, 240, 520, 150]),
      note('n1', 'Warm, a little worn. Nothing that shines.', [340, 410, 330, 160]),
      note('n2', 'Ines: dark footer, please. It is where the quay is.', [690, 410, 330, 160]),
    ],
  },
  {
    id: 'tide',
    title: 'Low tide',
    pieces: [
      picture('p1', 'slipway', [20, 20, 560, 360]),
      colour('c1', 'Slack water', '#2f6f73', [600, 20, 180, 180]),
      colour('c2', 'Wet sand', '#9a8f7d', [600, 210, 180, 170]),
      colour('c3', 'Buoy', '#d9541e', [800, 20, 120, 360]),
      type('t1', 'service', [940, 20, 240, 170]),
      note('n1', 'Calm, with one loud thing in it.', [940, 210, 240, 170]),
    ],
  },
] as const;

/** The boards on which the school collects what its site could look like. */
export const pellowBoards = (): Operation[] =>
  BOARDS.map(({ id, title, pieces }) => ({ name: 'board.add', board: id as BoardId, title, pieces: [...pieces] }));
