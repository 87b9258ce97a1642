import { DndContext, type DragMoveEvent, pointerWithin } from '@dnd-kit/core';
import { type ClipboardEvent, useId, useState } from 'react';
import { type Box, type BoxId, MAX_BOXES, MAX_BOX_PURPOSE_LENGTH } from '#core/model/sketch.ts';
import {
  newBox,
  withBoxAfter,
  withBoxInGap,
  withBoxMoved,
  withBoxTyped,
  withBoxesPasted,
} from '#core/sketch/arrange-boxes.ts';
import { BOXES } from '#core/sketch/box-types.ts';
import { readBoxes } from '#core/sketch/read-boxes.ts';
import { newBoxId } from '../../../api/site-store.ts';
import { dragWords } from '../../../drag/drag-words.ts';
import { useDragSensors } from '../../../drag/use-drag-sensors.ts';
import { useDraft } from '../../../fields/use-draft.ts';
import { TextField } from '../../../ui/field.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { BoxRow, focusBox } from './box-row.tsx';
import { type EditBoxes, isList } from './edit-boxes.ts';

/** The boxes of a variant as lines: typed one after another, moved by keys or dragged. */
export function BoxList({
  boxes,
  onEdit,
  onBox,
}: {
  readonly boxes: readonly Box[];
  readonly onEdit: EditBoxes;
  /** Is told which box is being written; null for none. */
  readonly onBox: (box: BoxId | null) => void;
}) {
  const [dragged, setDragged] = useState<BoxId | null>(null);
  const [gap, setGap] = useState<number | null>(null);
  const sensors = useDragSensors();
  const heading = useId();
  const move = (id: BoxId, by: number) => {
    if (onEdit((now) => withBoxMoved(now, id, by))) focusBox(id);
  };
  const end = () => {
    setDragged(null);
    setGap(null);
  };
  const over = ({ over: row, delta, activatorEvent }: DragMoveEvent) => {
    const at = row ? boxes.findIndex(({ id }) => id === row.id) : -1;
    if (at === -1 || !('clientY' in activatorEvent)) return setGap(null);
    const y = (activatorEvent.clientY as number) + delta.y;
    setGap(at + (y > row!.rect.top + row!.rect.height / 2 ? 1 : 0));
  };
  return (
    <section aria-labelledby={heading} className="flex flex-col gap-1">
      <h3 id={heading} className="text-small font-medium">
        Boxes
      </h3>
      <DndContext
        sensors={sensors}
        collisionDetection={pointerWithin}
        accessibility={dragWords(
          (id) => `The box ‘${wordsOf(boxes.find((one) => one.id === id))}’`,
          'By keys, Ctrl and the arrow keys move the box.',
        )}
        onDragStart={({ active }) => setDragged(active.id as BoxId)}
        onDragMove={over}
        onDragEnd={() => {
          if (dragged !== null && gap !== null) onEdit((now) => withBoxInGap(now, dragged, gap));
          end();
        }}
        onDragCancel={end}
      >
        <ol onBlur={() => onBox(null)} aria-labelledby={heading} className="flex flex-col">
          {boxes.map((box, at) => (
            <BoxRow
              key={box.id}
              box={box}
              number={at + 1}
              landing={gap === at ? 'before' : gap === boxes.length && at === boxes.length - 1 ? 'after' : null}
              isDragged={dragged === box.id}
              onEdit={onEdit}
              onFocus={() => onBox(box.id)}
              onMove={(by) => move(box.id, by)}
              onNext={(typed) => {
                if (boxes.length >= MAX_BOXES) return false;
                const next = newBox(newBoxId());
                const isMade = onEdit((now) =>
                  withBoxAfter(typed === null ? now : withBoxTyped(now, box.id, typed), box.id, next),
                );
                if (isMade) focusBox(next.id);
                return isMade;
              }}
              onGone={() => {
                const neighbour = boxes[at - 1] ?? boxes[at + 1];
                if (onEdit((now) => now.filter(({ id }) => id !== box.id)) && neighbour) focusBox(neighbour.id);
              }}
              onPaste={(text) => {
                let last: BoxId | null = null;
                const isMade = onEdit((now) => {
                  const pasted = withBoxesPasted(now, box.id, text, newBoxId);
                  ({ last } = pasted);
                  return pasted.boxes;
                });
                if (isMade && last !== null) focusBox(last);
              }}
            />
          ))}
        </ol>
      </DndContext>
      <NextBox boxes={boxes} onEdit={onEdit} />
    </section>
  );
}

const wordsOf = (box: Box | undefined): string => (box ? box.purpose || BOXES[box.type].name : '');

/** Where the next box is typed, and a list of them pasted. */
function NextBox({ boxes, onEdit }: { readonly boxes: readonly Box[]; readonly onEdit: EditBoxes }) {
  const { mayEdit } = useWorkbench();
  const isFull = boxes.length >= MAX_BOXES;
  const add = (text: string) => text.trim() !== '' && onEdit((now) => [...now, ...readBoxes(text, newBoxId)]);
  // What was typed becomes a box when the field is left, however that comes about.
  const draft = useDraft('', add);
  if (!mayEdit) return null;
  const paste = (event: ClipboardEvent) => {
    const text = event.clipboardData.getData('text/plain');
    if (!isList(text)) return;
    event.preventDefault();
    add(text);
  };
  return (
    <TextField
      label="Next box"
      value={draft.value}
      disabled={isFull}
      maxLength={MAX_BOX_PURPOSE_LENGTH}
      placeholder={boxes.length === 0 ? 'What it costs, 80 words' : 'Picture: the slipway at low tide'}
      hint={
        isFull
          ? `A variant has at most ${MAX_BOXES} boxes.`
          : 'Type what it is for and press Enter. Begin with a type and a colon for another type; end with a number of words. Lines can be pasted.'
      }
      onChange={(event) => draft.type(event.target.value)}
      onPaste={paste}
      onBlur={draft.commit}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' || event.nativeEvent.isComposing) return;
        event.preventDefault();
        draft.commit();
      }}
    />
  );
}
