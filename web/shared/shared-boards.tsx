import { X } from 'lucide-react';
import { useMemo, useState } from 'react';
import type { BoardId, PieceId } from '#core/model/board.ts';
import type { SharedPlanAnswer } from '#contract/sharing.ts';
import { useBoardPictures } from '../api/shared-plan.ts';
import { BoardPicture, type PictureOf } from '../boards/board-faces.tsx';
import { Button, IconButton } from '../ui/button.tsx';
import { useWidth } from '../ui/use-width.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { Comments } from './comments.tsx';
import { type CommentDraft, NO_DRAFT } from './new-comment.tsx';

/** The boards of a shared plan: the guest looks at one, and says something of it or of a piece of it. */
export function SharedBoards({
  token,
  plan,
  named,
  onClose,
}: {
  readonly token: string;
  readonly plan: SharedPlanAnswer;
  readonly named: (work: () => void) => void;
  readonly onClose: () => void;
}) {
  const { site } = useWorkbench();
  const [asked, setAsked] = useState<BoardId | null>(null);
  // What is typed about a board stays while others are looked at.
  const [drafts, setDrafts] = useState<Readonly<Record<string, CommentDraft>>>({});
  const [measure, room] = useWidth();
  const pictures = useBoardPictures(token, plan.revision);
  const pictureOf = useMemo((): PictureOf => {
    const known = new Map(pictures?.map((one) => [one.file as string, one]));
    return (file) => {
      const found = known.get(file);
      const of = found?.content.slice(0, 8);
      return found ? { address: `/api/shared/${token}/pictures/${file}?width=640&of=${of}`, words: found.words } : null;
    };
  }, [pictures, token]);
  const board = site.boards.find(({ id }) => id === asked) ?? site.boards[0];
  if (!board) return null;
  const whole: CommentDraft = { ...NO_DRAFT, about: { board: board.id, piece: null } };
  const draft = drafts[board.id] ?? whole;
  const onDraft = (next: CommentDraft) =>
    setDrafts((before) => ({ ...before, [board.id]: next.about === null ? { ...next, about: whole.about } : next }));
  const piece = draft.about !== null && 'board' in draft.about ? draft.about.piece : null;
  const choose = (chosen: PieceId) =>
    onDraft({ ...draft, about: { board: board.id, piece: chosen === piece ? null : chosen } });
  return (
    <aside
      aria-label="Boards"
      className="min-h-0 overflow-y-auto border-l border-rule bg-paper p-4 max-md:border-t max-md:border-l-0"
    >
      <div className="flex items-center gap-2">
        <h2 className="flex-1 font-display text-title leading-tight font-semibold">Boards</h2>
        <IconButton name="Back to the page" onClick={onClose}>
          <X size={16} aria-hidden />
        </IconButton>
      </div>
      <p className="mt-1 mb-3 text-quiet">What the makers of the plan collect for the look of the site.</p>
      <div role="group" aria-label="Which board" className="mb-3 flex flex-wrap gap-1">
        {site.boards.map(({ id, name }) => (
          <Button
            key={id}
            isTight
            look={id === board.id ? 'chosen' : 'plain'}
            aria-pressed={id === board.id}
            onClick={() => setAsked(id)}
          >
            {name}
          </Button>
        ))}
      </div>
      <div ref={measure}>
        <BoardPicture pieces={board.pieces} pictureOf={pictureOf} room={room} chosen={piece} onChoose={choose} />
      </div>
      <p className="mt-1 mb-3 text-small text-quiet">Press something on the board to say something about it.</p>
      <Comments
        key={board.id}
        page={null}
        board={board.id}
        token={token}
        plan={plan}
        named={named}
        draft={draft}
        onDraft={onDraft}
      />
    </aside>
  );
}
