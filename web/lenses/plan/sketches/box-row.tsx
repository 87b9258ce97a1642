import { useDraggable, useDroppable } from '@dnd-kit/core';
import { GripVertical, X } from 'lucide-react';
import type { KeyboardEvent } from 'react';
import {
  BOX_TYPES,
  BOX_WIDTHS,
  type Box,
  type BoxId,
  type BoxType,
  type BoxWidth,
  MAX_BOX_PURPOSE_LENGTH,
  MAX_BOX_WORDS,
} from '#core/model/sketch.ts';
import { withBoxSet, withBoxTyped } from '#core/sketch/arrange-boxes.ts';
import { BOXES } from '#core/sketch/box-types.ts';
import { useDraft } from '../../../fields/use-draft.ts';
import { IconButton } from '../../../ui/button.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { type EditBoxes, isList } from './edit-boxes.ts';

const WIDTH_WORDS: Readonly<Record<BoxWidth, string>> = { whole: 'Whole', half: 'Half', third: 'Third' };
const CELL = 'rounded-md border border-transparent bg-transparent px-1.5 hover:border-edge focus:border-edge';
/** Where there is little room the purpose has a line of its own, above what else is said. */
const BELOW = 'h-8 @max-lg:order-3';

/** Brings the writing to a box, once its line is there. */
export const focusBox = (id: BoxId): unknown =>
  window.setTimeout(() => {
    const line = document.querySelector<HTMLElement>(`[data-box-row="${id}"] textarea`);
    line?.focus({ preventScroll: true });
    // The drawings stay above the list: their height is left free.
    line?.scrollIntoView({ block: 'nearest' });
  }, 0);

/** One box as a line: its type, what it is for, how long it will be and how wide. */
export function BoxRow({
  box,
  number,
  landing,
  isDragged,
  onEdit,
  onFocus,
  onMove,
  onNext,
  onGone,
  onPaste,
}: {
  readonly box: Box;
  readonly number: number;
  /** Where something that is dragged would land beside it. */
  readonly landing: 'before' | 'after' | null;
  readonly isDragged: boolean;
  readonly onEdit: EditBoxes;
  readonly onFocus: () => void;
  readonly onMove: (by: -1 | 1) => void;
  /** Adds a box after this one, with what was typed here; null for nothing. */
  readonly onNext: (typed: string | null) => boolean;
  readonly onGone: () => void;
  readonly onPaste: (text: string) => void;
}) {
  const { mayEdit } = useWorkbench();
  const { setNodeRef: setDrop } = useDroppable({ id: box.id });
  const { setNodeRef: setDrag, listeners } = useDraggable({ id: box.id, disabled: !mayEdit });
  const purpose = useDraft(box.purpose, (text) => void onEdit((now) => withBoxTyped(now, box.id, text)));
  const words = useDraft(box.words === null ? '' : String(box.words), (text) => {
    const digits = text.replace(/\D/g, '');
    const count = digits === '' ? null : Math.min(Number(digits), MAX_BOX_WORDS) || null;
    onEdit((now) => withBoxSet(now, box.id, { words: count }));
  });
  const { name, hasWords } = BOXES[box.type];
  const said = purpose.value.trim() || name;
  const press = (event: KeyboardEvent) => {
    if (event.nativeEvent.isComposing) return;
    const isHeld = event.ctrlKey || event.metaKey;
    if (event.key === 'Enter') {
      if (onNext(purpose.isTyping ? purpose.value : null)) purpose.cancel();
    } else if (isHeld && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
      purpose.commit();
      onMove(event.key === 'ArrowUp' ? -1 : 1);
    } else if (event.key === 'Backspace' && purpose.value === '') {
      purpose.cancel();
      onGone();
    } else return;
    event.preventDefault();
  };
  return (
    <li
      ref={setDrop}
      data-box-row={box.id}
      onFocus={onFocus}
      className={`relative scroll-mt-84 short:scroll-mt-0 ${isDragged ? 'opacity-40' : ''}`}
    >
      {landing !== null && (
        <span
          aria-hidden
          className={`pointer-events-none absolute inset-x-0 h-0.5 bg-accent ${landing === 'before' ? '-top-px' : '-bottom-px'}`}
        />
      )}
      <div className="flex items-start gap-x-1 border-b border-rule py-0.5 @max-lg:flex-wrap">
        <span
          ref={setDrag}
          {...listeners}
          title="Drag to move the box"
          className="flex h-8 w-4 shrink-0 cursor-grab touch-none items-center justify-center text-quiet hover:text-ink"
        >
          <GripVertical size={15} aria-hidden />
        </span>
        <select
          aria-label={`Type of box ${number}: ${said}`}
          value={box.type}
          onChange={(event) => onEdit((now) => withBoxSet(now, box.id, { type: event.target.value as BoxType }))}
          className={`${CELL} ${BELOW} w-28 shrink-0 text-small text-quiet @max-lg:ml-5 @max-lg:w-48`}
        >
          {BOX_TYPES.map((type) => (
            <option key={type} value={type}>
              {BOXES[type].name}
            </option>
          ))}
        </select>
        <textarea
          aria-label={`Purpose of box ${number}`}
          aria-keyshortcuts="Control+ArrowUp Control+ArrowDown"
          placeholder="What it is for"
          rows={1}
          maxLength={MAX_BOX_PURPOSE_LENGTH}
          value={purpose.value}
          onChange={(event) => purpose.type(event.target.value.replaceAll('\n', ' '))}
          onBlur={purpose.commit}
          onKeyDown={press}
          onPaste={(event) => {
            const text = event.clipboardData.getData('text/plain');
            if (!isList(text)) return;
            event.preventDefault();
            onPaste(text);
          }}
          className={`${CELL} field-sizing-content @max-lg:order-1 @max-lg:basis-[calc(100%-4rem)] min-h-8 scroll-mt-84 min-w-0 short:scroll-mt-0 flex-1 resize-none py-1 font-medium`}
        />
        <input
          aria-label={`Words of box ${number}: ${said}`}
          title={hasWords ? 'About how many words it will have' : undefined}
          inputMode="numeric"
          placeholder={hasWords ? 'words' : ''}
          disabled={!hasWords}
          maxLength={4}
          value={words.value}
          onChange={(event) => words.type(event.target.value)}
          onBlur={words.commit}
          onKeyDown={(event) => event.key === 'Enter' && words.commit()}
          className={`${CELL} ${BELOW} w-14 shrink-0 px-1! text-right text-small disabled:border-transparent`}
        />
        <select
          aria-label={`Width of box ${number}: ${said}`}
          title="How much of the width of the text it takes; those of one width stand beside each other"
          value={box.width}
          onChange={(event) => onEdit((now) => withBoxSet(now, box.id, { width: event.target.value as BoxWidth }))}
          className={`${CELL} ${BELOW} w-[4.4rem] shrink-0 px-0.5! text-small text-quiet`}
        >
          {BOX_WIDTHS.map((width) => (
            <option key={width} value={width}>
              {WIDTH_WORDS[width]}
            </option>
          ))}
        </select>
        <IconButton
          name={`Remove box ${number}: ${said}`}
          onClick={onGone}
          className="h-8 w-6! text-quiet @max-lg:order-2"
        >
          <X size={14} aria-hidden />
        </IconButton>
      </div>
    </li>
  );
}
