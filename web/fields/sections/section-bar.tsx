import type { Editor } from '@tiptap/core';
import { useEditorState } from '@tiptap/react';
import { ArrowDown, ArrowUp, ChevronDown, GripVertical, MessageSquarePlus, Trash2 } from 'lucide-react';
import { nameOfSection } from '#core/sections/all-sections.ts';
import { TURNS, type Turn } from '#core/sections/turn.ts';
import { ActionMenu } from '../../ui/action-menu.tsx';
import { Button, IconButton } from '../../ui/button.tsx';
import { carrySection, turnSection, turnsAt } from './whole-section.ts';
import type { Attributes } from './editor-part.ts';
import { EDITOR_PARTS } from './editor-parts.ts';
import { canShare, useShareSection } from './share-section.ts';
import { moveSection, removeSection } from './insert-section.ts';

/** Below the tools: the section that the writing is in, what is set of it, and what can be done with it as a whole. */
export function SectionBar({
  editor,
  hasShared,
  onComment,
}: {
  readonly editor: Editor;
  /** Whether shared sections can stand in the text. */
  readonly hasShared: boolean;
  /** Begins a comment on the section; null where none can be made. */
  readonly onComment: ((type: string) => void) | null;
}) {
  const share = useShareSection(editor);
  const at = useEditorState({
    editor,
    selector: ({ editor: now }) => {
      const type = sectionAt(now);
      return type === null
        ? null
        : {
            type,
            attributes: JSON.stringify(now.getAttributes(type)),
            turns: turnsAt(now, type).join('|'),
            isShareable: hasShared && canShare(now, type),
          };
    },
    equalityFn: (a, b) =>
      a?.type === b?.type &&
      a?.attributes === b?.attributes &&
      a?.turns === b?.turns &&
      a?.isShareable === b?.isShareable,
  });
  if (at === null) return null;
  const { type, isShareable } = at;
  const turns = at.turns.split('|').filter(Boolean) as Turn[];
  const attributes = JSON.parse(at.attributes) as Attributes;
  const Settings = EDITOR_PARTS.find((one) => one.type === type)?.Settings;
  const name = nameOfSection(type)!;
  return (
    <div
      role="group"
      aria-label={`This section: ${name}`}
      className="@container flex flex-wrap items-end gap-2 border-b border-rule bg-sunken/60 px-2 py-1.5"
    >
      <span className="flex w-full items-center gap-1">
        <span className="flex-1 text-small font-medium">{name}</span>
        {(turns.length > 0 || isShareable) && (
          <ActionMenu
            label="Turn it into"
            focusAfter={() => editor.commands.focus()}
            trigger={
              <Button look="quiet" isTight>
                Turn into <ChevronDown size={14} aria-hidden />
              </Button>
            }
            actions={[
              ...turns.map((into) => ({ words: TURNS[into]!, run: () => turnSection(editor, type, into) })),
              ...(isShareable ? [{ words: 'Shared section', run: () => share(type) }] : []),
            ]}
          />
        )}
        <button
          type="button"
          draggable
          aria-label="Drag the section to another place"
          title="Drag it to another place in the text"
          onDragStart={(event) => carrySection(editor, type, event.nativeEvent)}
          className="inline-flex size-8 cursor-grab items-center justify-center rounded-md hover:bg-sunken max-md:hidden"
        >
          <GripVertical size={15} aria-hidden />
        </button>
        <IconButton name="Move it up" keys="Alt+Up" onClick={() => moveSection(editor, -1)}>
          <ArrowUp size={15} aria-hidden />
        </IconButton>
        <IconButton name="Move it down" keys="Alt+Down" onClick={() => moveSection(editor, 1)}>
          <ArrowDown size={15} aria-hidden />
        </IconButton>
        {onComment && (
          <IconButton name="Comment on the section" onClick={() => onComment(type)}>
            <MessageSquarePlus size={15} aria-hidden />
          </IconButton>
        )}
        <IconButton name="Remove the section" onClick={() => removeSection(editor, type)}>
          <Trash2 size={15} aria-hidden />
        </IconButton>
      </span>
      {Settings && (
        <Settings
          editor={editor}
          attributes={attributes}
          set={(change) => void editor.chain().updateAttributes(type, change).run()}
        />
      )}
    </div>
  );
}

/** The type of the innermost section that the selection is in, or that is selected as a whole; null where it is in none. */
function sectionAt(editor: Editor): string | null {
  const { selection } = editor.state;
  const chosen = 'node' in selection ? (selection.node as { type: { name: string } }).type.name : null;
  if (chosen !== null && nameOfSection(chosen) !== undefined) return chosen;
  const { $from } = selection;
  for (let depth = $from.depth; depth > 0; depth--) {
    const { name } = $from.node(depth).type;
    if (nameOfSection(name) !== undefined) return name;
  }
  return null;
}
