import { Image, Palette, StickyNote, Type } from 'lucide-react';
import { useNavigate } from 'react-router';
import { looksOfBoard } from '#core/board/board-looks.ts';
import { freePlace } from '#core/board/place-piece.ts';
import { type Board, MAX_PIECES, type Piece } from '#core/model/board.ts';
import { newPieceId } from '../../../api/site-store.ts';
import type { CarriedLooks } from '../../../looks/looks-to-compare.ts';
import { Button } from '../../../ui/button.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';

/** How large each kind is at first. */
const SIZES = { picture: [360, 260], colour: [160, 160], type: [460, 150], note: [300, 140] } as const;
const KINDS = [
  { kind: 'picture', words: 'Picture', Sign: Image },
  { kind: 'colour', words: 'Colour', Sign: Palette },
  { kind: 'type', words: 'Type', Sign: Type },
  { kind: 'note', words: 'Note', Sign: StickyNote },
] as const;

/** Lays something new on a board, and makes looks of what lies there. */
export function AddPieces({ board, onAdd }: { readonly board: Board; readonly onAdd: (piece: Piece) => void }) {
  const { site } = useWorkbench();
  const navigate = useNavigate();
  const looks = looksOfBoard(board);
  const isFull = board.pieces.length >= MAX_PIECES;
  const add = (kind: Piece['kind']) => {
    const [width, height] = SIZES[kind];
    onAdd(
      firstOf(kind, { id: newPieceId(), ...freePlace(board.pieces, width, height), width, height }, site.settings.look),
    );
  };
  return (
    <div role="toolbar" aria-label="Add to the board" className="flex flex-wrap items-center gap-1.5">
      {KINDS.map(({ kind, words, Sign }) => (
        <Button
          key={kind}
          isTight
          disabled={isFull}
          title={isFull ? `A board has at most ${MAX_PIECES} pieces.` : undefined}
          onClick={() => add(kind)}
        >
          <Sign size={15} aria-hidden /> {words}
        </Button>
      ))}
      <Button
        isTight
        className="ml-auto"
        disabled={looks.length === 0}
        title={
          looks.length === 0
            ? 'Put a colour on the board first'
            : 'Looks of these colours and this type, side by side on pages of the site. Nothing changes until you take one.'
        }
        onClick={() => void navigate(`/sites/${site.key}/looks`, { state: { looks } satisfies CarriedLooks })}
      >
        Try as looks
      </Button>
    </div>
  );
}

function firstOf(
  kind: Piece['kind'],
  place: Pick<Piece, 'id' | 'x' | 'y' | 'width' | 'height'>,
  look: { readonly colour: string; readonly pair: string },
): Piece {
  switch (kind) {
    case 'picture':
      return { kind, ...place, file: null };
    case 'colour':
      return { kind, ...place, colour: look.colour, name: '' };
    case 'type':
      return { kind, ...place, pair: look.pair };
    case 'note':
      return { kind, ...place, text: '' };
  }
}
