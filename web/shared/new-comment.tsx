import { type FormEvent, useCallback, useState } from 'react';
import {
  type AboutBoard,
  type AboutSketch,
  type CommentKind,
  MAX_COMMENT_LENGTH,
  type Proposes,
} from '#core/model/feedback.ts';
import type { PageId } from '#core/model/ids.ts';
import { MAX_TITLE_LENGTH } from '#core/model/page-fields.ts';
import type { Side } from '#core/model/place.ts';
import { isWithin, nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { wordsOfFault } from '../api/client.ts';
import { addComment } from '../api/shared-plan.ts';
import { aboutWords } from '#core/board/about-words.ts';
import { PlaceChoice } from '../fields/place-choice.tsx';
import { Button } from '../ui/button.tsx';
import { Radios, TextArea, TextField } from '../ui/field.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { toast } from '../ui/toast.ts';

/** What a guest is about to say of a page. */
export interface CommentDraft {
  readonly kind: CommentKind;
  readonly text: string;
  /** The title that is proposed; empty for the one that it has. */
  readonly title: string;
  /** The page that the proposed place is seen from; null for the end of the top level, undefined for where it stands. */
  readonly near: PageId | null | undefined;
  readonly side: Side;
  /** What of the page's sketch it is about, or the board; null for the page as a whole. */
  readonly about: AboutSketch | AboutBoard | null;
}
export const NO_DRAFT: CommentDraft = {
  kind: 'comment',
  text: '',
  title: '',
  near: undefined,
  side: 'inside',
  about: null,
};

const KINDS: readonly { readonly value: CommentKind; readonly words: string }[] = [
  { value: 'comment', words: 'A comment' },
  { value: 'question', words: 'A question' },
  { value: 'proposal', words: 'Another title or place' },
];
const TEXT_LABELS: Readonly<Record<CommentKind, string>> = {
  comment: 'What should be different, or what do you want to know?',
  question: 'What should be different, or what do you want to know?',
  proposal: 'Why? (optional)',
};
const SEND: Readonly<Record<CommentKind, string>> = {
  comment: 'Send the comment',
  question: 'Ask',
  proposal: 'Propose it',
};

/** The form in which a guest comments on a page, asks something about it, or proposes what it should be called and where it should stand. */
export function NewComment({
  page,
  token,
  named,
  draft,
  onDraft,
}: {
  /** Null for a board, which `draft.about` names. */
  readonly page: PageId | null;
  readonly token: string;
  readonly named: (work: () => void) => void;
  readonly draft: CommentDraft;
  readonly onDraft: (draft: CommentDraft) => void;
}) {
  const { site } = useWorkbench();
  const [isSending, setSending] = useState(false);
  const { kind } = draft;
  const text = draft.text.trim();
  const proposes = proposalIn(draft);
  const isReady = kind === 'proposal' ? proposes !== null : text !== '';
  const send = () => {
    setSending(true);
    void addComment(
      token,
      kind === 'proposal' ? { page: page!, kind, text, proposes: proposes! } : { page, kind, text, about: draft.about },
    )
      .then(
        () => onDraft(NO_DRAFT),
        (fault: unknown) => toast.error(wordsOfFault(fault)),
      )
      .finally(() => setSending(false));
  };
  const submit = (event: FormEvent) => {
    event.preventDefault();
    if (isReady && !isSending) named(send);
  };
  return (
    <form onSubmit={submit} className="flex flex-col gap-2">
      <Radios
        legend="What do you want to say?"
        choices={page === null ? KINDS.filter(({ value }) => value !== 'proposal') : KINDS}
        value={kind}
        onChoose={(next) => onDraft({ ...draft, kind: next })}
      />
      {draft.about !== null && kind !== 'proposal' && (
        <p className="flex items-center gap-2 rounded-md bg-accent-soft px-2 py-1 text-small">
          <span className="min-w-0 flex-1">About {aboutWords(site, draft.about)}</span>
          {isOfPart(draft.about) && (
            <Button look="quiet" isTight onClick={() => onDraft({ ...draft, about: null })}>
              {page === null ? 'About the whole board' : 'About the whole page'}
            </Button>
          )}
        </p>
      )}
      {kind === 'proposal' && page !== null && <ProposalFields page={page} draft={draft} onDraft={onDraft} />}
      <TextArea
        label={TEXT_LABELS[kind]}
        rows={kind === 'proposal' ? 2 : 3}
        maxLength={MAX_COMMENT_LENGTH}
        value={draft.text}
        onChange={(event) => onDraft({ ...draft, text: event.target.value })}
      />
      <div>
        <Button type="submit" disabled={!isReady || isSending}>
          {SEND[kind]}
        </Button>
      </div>
    </form>
  );
}

function ProposalFields({
  page,
  draft,
  onDraft,
}: {
  readonly page: PageId;
  readonly draft: CommentDraft;
  readonly onDraft: (draft: CommentDraft) => void;
}) {
  const { site } = useWorkbench();
  const isOffered = useCallback((_: number, other: PageId) => !isWithin(site, other, page), [site, page]);
  return (
    <>
      <TextField
        label="Title"
        placeholder={textIn(nodeAt(site, page).title, site.settings.language)}
        maxLength={MAX_TITLE_LENGTH}
        value={draft.title}
        onChange={(event) => onDraft({ ...draft, title: event.target.value })}
      />
      <PlaceChoice<CommentDraft['near']>
        page={draft.near}
        side={draft.side}
        mayStay
        isOffered={isOffered}
        onPage={(near) => onDraft({ ...draft, near })}
        onSide={(side) => onDraft({ ...draft, side })}
      />
    </>
  );
}

/** Whether it is about less than a board as a whole. */
const isOfPart = (about: AboutSketch | AboutBoard): boolean => !('board' in about) || about.piece !== null;

/** What is proposed; null while nothing is. */
function proposalIn({ title, near, side }: CommentDraft): Proposes | null {
  const proposed = title.trim();
  if (proposed === '' && near === undefined) return null;
  return {
    ...(proposed === '' ? {} : { title: proposed }),
    ...(near === undefined ? {} : { place: { near, side } }),
  };
}
