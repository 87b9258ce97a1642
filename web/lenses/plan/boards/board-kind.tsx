import { Pin } from 'lucide-react';
import { useMemo, useState, useSyncExternalStore } from 'react';
import { type BoardId, MAX_BOARD_NAME_LENGTH, type Piece, type PieceId } from '#core/model/board.ts';
import { fileAddress } from '#contract/files.ts';
import { useLibrary } from '../../../api/files.ts';
import { type Edit, newBoardId } from '../../../api/site-store.ts';
import type { PictureOf } from '../../../boards/board-faces.tsx';
import type { ListKind } from '../../../settings/settings-kind.ts';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { GuestComment } from '../../../talk/guest-comment.tsx';
import { AddPieces } from './add-pieces.tsx';
import { BoardCanvas } from './board-canvas.tsx';
import { OnePiece } from './one-piece.tsx';

/** What is collected for the look of the site, before it is decided. */
export const BOARDS: ListKind = {
  edits: 'plan',
  title: 'Boards',
  one: 'board',
  Sign: Pin,
  description:
    'Pictures, colours, type and notes, to agree on how the site will appear. Whoever sees the plan by a link sees them too. The colours of a board become looks to try.',
  placeholder: 'Timber and tar',
  longest: MAX_BOARD_NAME_LENGTH,
  items: ({ boards }) => boards,
  says:
    ({ boards }) =>
    (id) => {
      const pieces = boards.find((one) => one.id === id)?.pieces ?? [];
      return {
        says:
          COUNTED.map((kind) => countWords(pieces, kind))
            .filter(Boolean)
            .join(' · ') || 'nothing on it yet',
      };
    },
  touched: () => null,
  add: (title) => {
    const board = newBoardId();
    return { id: board, edit: { name: 'board.add', board, title } };
  },
  rename: (id, title) => ({ name: 'board.set', board: id as BoardId, fields: { title } }),
  remove: (id) => ({ name: 'board.remove', board: id as BoardId }),
  Fields: BoardFields,
};

const COUNTED = ['picture', 'colour', 'type', 'note'] as const;
function countWords(pieces: readonly Piece[], kind: Piece['kind']): string {
  const count = pieces.filter((one) => one.kind === kind).length;
  if (count === 0) return '';
  return `${count} ${kind}${count === 1 || kind === 'type' ? '' : 's'}`;
}

function BoardFields({ id }: { readonly id: string }) {
  const { site, store, past, mayEdit } = useWorkbench();
  // What is moved stays where it was let go: the sheet sees the site a moment later.
  const now = useSyncExternalStore(store.subscribe, () => store.getShown().site.boards);
  const board = (past ? site.boards : now).find((one) => one.id === id);
  const library = useLibrary(site.key);
  const pictureOf = useMemo((): PictureOf => {
    const files = new Map(library?.map((file) => [file.id as string, file]));
    return (file) => {
      const found = files.get(file);
      return found ? { address: fileAddress(site.key, found, 640), words: found.alternative || found.name } : null;
    };
  }, [library, site.key]);
  const [chosen, setChosen] = useState<PieceId | null>(null);
  // A colour that is being picked shows on the board before it is set.
  const [tried, setTried] = useState<Piece | null>(null);
  if (!board) return null;
  const piece = board.pieces.find((one) => one.id === chosen) ?? null;
  const shown = tried ? { ...board, pieces: board.pieces.map((one) => (one.id === tried.id ? tried : one)) } : board;
  const put = (next: Piece, above?: PieceId | null): boolean => {
    setTried(null);
    const edit = { name: 'piece.put', board: board.id, piece: next, ...(above !== undefined && { above }) } as Edit;
    return store.apply([edit]) === null;
  };
  const remove = (gone: PieceId) => {
    setChosen(null);
    store.apply([{ name: 'piece.remove', board: board.id, piece: gone }]);
  };
  return (
    <div className="flex flex-col gap-3">
      {mayEdit && (
        <AddPieces
          board={board}
          onAdd={(made) => {
            if (put(made)) setChosen(made.id);
          }}
        />
      )}
      <BoardCanvas
        board={shown}
        pictureOf={pictureOf}
        chosen={chosen}
        mayEdit={mayEdit}
        onChoose={(next) => {
          if (next !== chosen) setTried(null);
          setChosen(next);
        }}
        onPut={put}
        onRemove={remove}
      />
      {piece && mayEdit && (
        <OnePiece
          key={piece.id}
          board={board}
          piece={piece}
          onTry={setTried}
          onPut={put}
          onRemove={() => remove(piece.id)}
        />
      )}
      <BoardComments board={board.id} />
    </div>
  );
}

/** What those say of the board whom the plan is shared with; nothing while nobody has said anything. */
function BoardComments({ board }: { readonly board: BoardId }) {
  const { feedback } = useWorkbench();
  const comments = (feedback?.said.comments ?? []).filter(
    ({ about }) => about !== null && 'board' in about && about.board === board,
  );
  if (comments.length === 0) return null;
  return (
    <section aria-labelledby="board-comments" className="flex flex-col gap-2 border-t border-rule pt-3">
      <h3 id="board-comments" className="font-display text-large font-semibold">
        What others say
      </h3>
      {comments.map((one) => (
        <GuestComment key={one.id} comment={one} />
      ))}
    </section>
  );
}
