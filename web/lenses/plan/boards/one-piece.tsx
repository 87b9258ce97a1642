import { Pipette, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { freePlace } from '#core/board/place-piece.ts';
import { type Board, MAX_COLOUR_NAME_LENGTH, MAX_NOTE_LENGTH, MAX_PIECES, type Piece } from '#core/model/board.ts';
import type { TypePair } from '#core/look/type-pairs.ts';
import { fileAddress } from '#contract/files.ts';
import { useLibrary } from '../../../api/files.ts';
import { type Edit, newPieceId } from '../../../api/site-store.ts';
import { ColourField } from '../../../fields/colour-field.tsx';
import { DraftField } from '../../../fields/draft-field.tsx';
import { PairChoice } from '../../../fields/pair-choice.tsx';
import { ChooseFile } from '../../../files/choose-file.tsx';
import { coloursIn } from '../../../files/colours-in.ts';
import { Button } from '../../../ui/button.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { toast } from '../../../ui/toast.ts';

const HEADINGS = { picture: 'The picture', colour: 'The colour', type: 'The type', note: 'The note' } as const;
const SWATCH = 120;

/** What is set of the piece that is chosen on a board. */
export function OnePiece({
  board,
  piece,
  onTry,
  onPut,
  onRemove,
}: {
  readonly board: Board;
  readonly piece: Piece;
  /** Shows what it would be; null for what it is. */
  readonly onTry: (piece: Piece | null) => void;
  readonly onPut: (piece: Piece) => boolean;
  readonly onRemove: () => void;
}) {
  return (
    <section aria-label={HEADINGS[piece.kind]} className="flex flex-col gap-3 rounded-md bg-raised p-3">
      {piece.kind === 'picture' && <PictureFields board={board} piece={piece} onPut={onPut} />}
      {piece.kind === 'colour' && (
        <div className="grid grid-cols-2 gap-3">
          <ColourField
            label="Colour"
            value={piece.colour}
            onTry={(colour) => onTry({ ...piece, colour })}
            onSet={(colour) => onPut({ ...piece, colour })}
          />
          <DraftField
            label="Name (optional)"
            saved={piece.name}
            longest={MAX_COLOUR_NAME_LENGTH}
            placeholder="Tar"
            onSave={(name) => onPut({ ...piece, name })}
          />
        </div>
      )}
      {piece.kind === 'type' && (
        <PairChoice value={piece.pair as TypePair['id']} onSet={(pair) => onPut({ ...piece, pair })} />
      )}
      {piece.kind === 'note' && (
        <DraftField
          label="Note"
          isLong
          saved={piece.text}
          longest={MAX_NOTE_LENGTH}
          onSave={(text) => onPut({ ...piece, text })}
        />
      )}
      <div>
        <Button look="quiet" className="-ml-2" onClick={onRemove}>
          <Trash2 size={15} aria-hidden /> Remove it from the board
        </Button>
      </div>
    </section>
  );
}

function PictureFields({
  board,
  piece,
  onPut,
}: {
  readonly board: Board;
  readonly piece: Piece & { readonly kind: 'picture' };
  readonly onPut: (piece: Piece) => boolean;
}) {
  const { site, store } = useWorkbench();
  const [isChoosing, setChoosing] = useState(piece.file === null);
  const library = useLibrary(site.key);
  const file = library?.find(({ id }) => id === piece.file);
  /** Lays the colours of the picture on the board, in one edit. */
  const pick = async () => {
    const found = file ? await coloursIn(fileAddress(site.key, file, 320)).catch(() => []) : [];
    if (found.length === 0) return void toast.error('No colours could be found in this picture. Choose another one.');
    const laid: Piece[] = [];
    for (const colour of found.slice(0, MAX_PIECES - board.pieces.length)) {
      const at = freePlace([...board.pieces, ...laid], SWATCH, SWATCH);
      laid.push({ kind: 'colour', id: newPieceId(), ...at, width: SWATCH, height: SWATCH, colour, name: '' });
    }
    if (laid.length === 0) return void toast.error('The board is full. Remove something first.');
    const edits = laid.map((one) => ({ name: 'piece.put', board: board.id, piece: one }) as Edit);
    if (store.apply(edits) === null)
      toast.success(laid.length === 1 ? 'One colour lies on the board.' : `${laid.length} colours lie on the board.`);
  };
  return (
    <>
      {file && (
        <p className="truncate">
          <span className="font-medium">{file.name}</span>
          <span className="text-quiet"> {file.alternative}</span>
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        {file && (
          <Button onClick={() => void pick()}>
            <Pipette size={15} aria-hidden /> Pick its colours
          </Button>
        )}
        {piece.file !== null && (
          <Button aria-expanded={isChoosing} onClick={() => setChoosing(!isChoosing)}>
            Another picture…
          </Button>
        )}
      </div>
      {isChoosing && (
        <ChooseFile
          site={site.key}
          kind="picture"
          onChosen={([chosen]) => {
            if (chosen && onPut({ ...piece, file: chosen.id, ...fitting(piece, chosen) })) setChoosing(false);
          }}
        />
      )}
    </>
  );
}

/** As high as the picture is, at the width that it has on the board. */
function fitting(
  { width, height }: Piece,
  picture: { readonly width: number | null; readonly height: number | null },
): { height: number } {
  if (!picture.width || !picture.height) return { height };
  return { height: Math.max(60, Math.min(900, Math.round((width * picture.height) / picture.width / 10) * 10)) };
}
