import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react';
import { GRID, boardHeight, movedPiece, resizedPiece } from '#core/board/place-piece.ts';
import { BOARD_WIDTH, type Board, type Piece, type PieceId } from '#core/model/board.ts';
import { BoardFonts, PieceFace, type PictureOf, pieceWords, placeOf } from '../../../boards/board-faces.tsx';
import { useWidth } from '../../../ui/use-width.ts';

/** A press becomes a drag after so many pixels of the screen. */
const STARTS_AFTER = 4;
const ARROWS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-GRID, 0],
  ArrowRight: [GRID, 0],
  ArrowUp: [0, -GRID],
  ArrowDown: [0, GRID],
};

/** What is done to a piece while the pointer or a key is held; it is saved when that is let go. */
interface Held {
  readonly piece: Piece;
  readonly from: { readonly x: number; readonly y: number } | null;
  readonly how: 'move' | 'resize';
}

/** A board on which pieces are dragged and resized, by the pointer or by keys. */
export function BoardCanvas({
  board,
  pictureOf,
  chosen,
  mayEdit,
  onChoose,
  onPut,
  onRemove,
}: {
  readonly board: Board;
  readonly pictureOf: PictureOf;
  readonly chosen: PieceId | null;
  readonly mayEdit: boolean;
  readonly onChoose: (piece: PieceId | null) => void;
  readonly onPut: (piece: Piece, above?: PieceId | null) => boolean;
  readonly onRemove: (piece: PieceId) => void;
}) {
  const [measure, room] = useWidth();
  const [held, setHeld] = useState<Held | null>(null);
  const start = useRef<Piece | null>(null);
  const scale = room / BOARD_WIDTH;
  const pieces = board.pieces.map((one) => (held?.piece.id === one.id ? held.piece : one));
  const height = boardHeight(pieces);
  const take = (event: PointerEvent, piece: Piece, how: Held['how']) => {
    onChoose(piece.id);
    if (!mayEdit || event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    event.stopPropagation();
    start.current = piece;
    setHeld({ piece, from: { x: event.clientX, y: event.clientY }, how });
  };
  const move = (event: PointerEvent) => {
    if (!held?.from || !start.current) return;
    const [x, y] = [event.clientX - held.from.x, event.clientY - held.from.y];
    if (held.piece === start.current && Math.hypot(x, y) < STARTS_AFTER) return;
    const make = held.how === 'move' ? movedPiece : resizedPiece;
    setHeld({ ...held, piece: make(start.current, x / scale, y / scale) });
  };
  const release = () => {
    if (held && held.piece !== start.current) onPut(held.piece);
    start.current = null;
    setHeld(null);
  };
  const press = (event: KeyboardEvent, piece: Piece, at: number) => {
    if (!mayEdit) return;
    const by = ARROWS[event.key];
    const isHeld = event.ctrlKey || event.metaKey;
    if (by && isHeld && by[0] === 0) raise(piece, at, event.key === 'ArrowUp' ? 1 : -1);
    else if (by && !isHeld) {
      const make = event.shiftKey ? resizedPiece : movedPiece;
      start.current ??= piece;
      setHeld({ piece: make(held?.piece.id === piece.id ? held.piece : piece, ...by), from: null, how: 'move' });
    } else if (event.key === 'Delete') onRemove(piece.id);
    else if (event.key === 'Escape' && held) {
      start.current = null;
      setHeld(null);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const raise = (piece: Piece, at: number, by: 1 | -1) => {
    const above = by === 1 ? board.pieces[at + 1]?.id : at === 0 ? undefined : (board.pieces[at - 2]?.id ?? null);
    if (above !== undefined) onPut(piece, above);
  };
  return (
    <div ref={measure}>
      <BoardFonts pieces={board.pieces} />
      <div
        role="group"
        aria-label={`The board ‘${board.name}’`}
        className="overflow-hidden rounded-md border border-edge bg-sunken"
        style={{ height: height * scale }}
      >
        <div className="relative origin-top-left" style={{ width: BOARD_WIDTH, height, transform: `scale(${scale})` }}>
          {pieces.map((piece, at) => (
            <div key={piece.id} style={placeOf(piece)}>
              <button
                type="button"
                aria-label={pieceWords(piece, pictureOf)}
                aria-pressed={piece.id === chosen}
                aria-keyshortcuts="ArrowLeft ArrowRight ArrowUp ArrowDown Delete"
                onPointerDown={(event) => take(event, piece, 'move')}
                onPointerMove={move}
                onPointerUp={release}
                onPointerCancel={() => setHeld(null)}
                onFocus={() => onChoose(piece.id)}
                onKeyDown={(event) => press(event, piece, at)}
                onKeyUp={(event) => event.key in ARROWS && release()}
                // A press on another piece takes the focus away before it is let go.
                onBlur={() => held?.from === null && release()}
                className={`block size-full touch-none text-left outline-offset-2 ${mayEdit ? 'cursor-grab' : ''} ${piece.id === chosen ? 'outline-4 outline-accent' : ''}`}
              >
                <PieceFace piece={piece} pictureOf={pictureOf} />
              </button>
              {mayEdit && piece.id === chosen && (
                <span
                  aria-hidden
                  title="Drag to resize"
                  onPointerDown={(event) => take(event, piece, 'resize')}
                  onPointerMove={move}
                  onPointerUp={release}
                  onPointerCancel={() => setHeld(null)}
                  className="absolute -right-4 -bottom-4 size-9 cursor-nwse-resize touch-none rounded-full border-4 border-raised bg-accent"
                />
              )}
            </div>
          ))}
          {pieces.length === 0 && (
            <p className="absolute inset-0 flex items-center justify-center text-[26px] text-quiet">
              Put pictures, colours, type and notes here.
            </p>
          )}
        </div>
      </div>
      {mayEdit && pieces.length > 0 && (
        <p className="mt-1 text-small text-quiet">
          Drag a piece, or move it with the arrow keys; with Shift they resize it, with Ctrl they bring it forward or
          back.
        </p>
      )}
    </div>
  );
}
