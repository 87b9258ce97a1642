import type { CSSProperties } from 'react';
import { TYPE_PAIRS, type TypePair, pairName, stackOf } from '#core/look/type-pairs.ts';
import { BOARD_WIDTH, type Piece, type PieceId } from '#core/model/board.ts';
import { boardHeight } from '#core/board/place-piece.ts';
import { LookFaces } from '../fields/look-faces.tsx';

/** What a picture of the library shows, and where its bytes are; null where the library has it no more. */
export type PictureOf = (file: string) => { readonly address: string; readonly words: string } | null;

const pairOf = (id: string): TypePair => TYPE_PAIRS.find((one) => one.id === id)!;

/** A piece in words, for those who do not see it. */
export function pieceWords(piece: Piece, pictureOf: PictureOf): string {
  switch (piece.kind) {
    case 'picture':
      return `Picture: ${(piece.file !== null && pictureOf(piece.file)?.words) || 'none chosen'}`;
    case 'colour':
      return `Colour: ${[piece.name, piece.colour].filter(Boolean).join(', ')}`;
    case 'type':
      return `Type: ${pairName(pairOf(piece.pair))}, ${pairOf(piece.pair).goodFor}`;
    case 'note':
      return `Note: ${piece.text || 'nothing yet'}`;
  }
}

/** Where a piece lies on a board that is drawn at full size. */
export const placeOf = ({ x, y, width, height }: Piece): CSSProperties => ({
  position: 'absolute',
  left: x,
  top: y,
  width,
  height,
});

/** Lets the type on a board be seen in itself. */
export const BoardFonts = ({ pieces }: { readonly pieces: readonly Piece[] }) =>
  [...new Set(pieces.flatMap((one) => (one.kind === 'type' ? [pairOf(one.pair).id] : [])))].map((pair) => (
    <LookFaces key={pair} pair={pair} />
  ));

/** What a piece looks like; it fills the place that it is given. */
export function PieceFace({ piece, pictureOf }: { readonly piece: Piece; readonly pictureOf: PictureOf }) {
  switch (piece.kind) {
    case 'picture': {
      const picture = piece.file === null ? null : pictureOf(piece.file);
      return picture ? (
        <img src={picture.address} alt="" draggable={false} className="size-full rounded-sm object-cover" />
      ) : (
        <span className="flex size-full items-center justify-center rounded-sm border-2 border-dashed border-edge bg-raised text-[22px] text-quiet">
          {piece.file === null ? 'A picture' : 'No longer in the library'}
        </span>
      );
    }
    case 'colour':
      return (
        <span
          className="flex size-full flex-col justify-end overflow-hidden rounded-sm border border-rule"
          style={{ background: piece.colour }}
        >
          {piece.height >= 90 && (
            <span className="on-a-board bg-raised/95 px-2.5 py-1 text-[20px] leading-tight text-ink">
              {piece.name !== '' && <span className="block truncate font-medium">{piece.name}</span>}
              <span className="block truncate font-mono text-[18px] text-quiet">{piece.colour}</span>
            </span>
          )}
        </span>
      );
    case 'type': {
      const pair = pairOf(piece.pair);
      return (
        <span className="flex size-full flex-col justify-center on-a-board overflow-hidden rounded-sm bg-raised px-4 text-ink shadow-sheet">
          <span
            className="truncate text-[44px] leading-tight font-semibold"
            style={{ fontFamily: stackOf(pair.headings) }}
          >
            {pairName(pair)}
          </span>{' '}
          <span className="text-[21px] leading-snug" style={{ fontFamily: stackOf(pair.text) }}>
            {pair.goodFor}
          </span>
        </span>
      );
    }
    case 'note':
      return (
        <span className="block size-full on-a-board overflow-hidden rounded-sm bg-attention-soft px-3 py-2 text-left text-[24px] leading-snug whitespace-pre-wrap text-ink">
          {piece.text || <span className="text-quiet">A note</span>}
        </span>
      );
  }
}

/** A board to look at: each piece can be pressed where `onChoose` says what comes of that. */
export function BoardPicture({
  pieces,
  pictureOf,
  room,
  chosen,
  onChoose,
}: {
  readonly pieces: readonly Piece[];
  readonly pictureOf: PictureOf;
  /** How wide it is shown, in pixels. */
  readonly room: number;
  readonly chosen: PieceId | null;
  readonly onChoose: (piece: PieceId) => void;
}) {
  const scale = room / BOARD_WIDTH;
  const height = boardHeight(pieces);
  return (
    <div
      className="overflow-hidden rounded-md border border-edge bg-sunken"
      style={{ width: room, height: height * scale }}
    >
      <BoardFonts pieces={pieces} />
      <div className="relative origin-top-left" style={{ width: BOARD_WIDTH, height, transform: `scale(${scale})` }}>
        {pieces.map((piece) => (
          <button
            key={piece.id}
            type="button"
            aria-label={pieceWords(piece, pictureOf)}
            aria-pressed={piece.id === chosen}
            onClick={() => onChoose(piece.id)}
            style={placeOf(piece)}
            className={`text-left ${piece.id === chosen ? 'outline-4 outline-accent' : ''}`}
          >
            <PieceFace piece={piece} pictureOf={pictureOf} />
          </button>
        ))}
      </div>
    </div>
  );
}
