import type { Editor } from '@tiptap/core';
import { type TextDocument, type TextPart, contentIdOf, plainTextOf } from '#core/model/content.ts';
import { withoutBoxes } from '#core/sketch/planned-boxes.ts';
import { SHARED } from '#core/sections/shared.ts';
import { nameOfSection } from '#core/sections/all-sections.ts';
import { rememberContent } from '../../api/content.ts';
import { newSharedId } from '../../api/site-store.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { wholeAt } from './whole-section.ts';
import { toast } from '../../ui/toast.ts';

/** So many letters of what it says are its name at first. */
const NAME_LENGTH = 40;

/** Whether a shared section can stand in the place of the section that the selection is in: some stand within others, where none can. */
export function canShare(editor: Editor, type: string): boolean {
  const whole = wholeAt(editor, type);
  if (!whole || type === SHARED.type) return false;
  const place = editor.state.doc.resolve(whole.at);
  return place.parent.canReplaceWith(place.index(), place.index() + 1, editor.schema.nodes[SHARED.type]!);
}

/** Gives what keeps the section that the selection is in as a shared one, which stands in its place then. */
export function useShareSection(editor: Editor): (type: string) => void {
  const { store } = useWorkbench();
  return (type) => {
    const whole = wholeAt(editor, type);
    if (!whole) return;
    // It stands on several pages then, each with a sketch of its own.
    const part = withoutBoxes(whole.node.toJSON() as TextPart);
    const document: TextDocument = { type: 'doc', content: [part] };
    const content = contentIdOf(document);
    const title = nameFrom(plainTextOf(part)) || nameOfSection(type)!;
    const shared = newSharedId();
    rememberContent(content, document);
    if (store.apply([{ name: 'shared.add', shared, title, content }], [{ id: content, document }]) !== null) return;
    editor
      .chain()
      .focus()
      .command(({ state, tr }) => {
        const { node, at } = whole;
        tr.replaceWith(at, at + node.nodeSize, state.schema.nodeFromJSON({ type: SHARED.type, attrs: { of: shared } }));
        return true;
      })
      .setNodeSelection(whole.at)
      .run();
    toast.success(`It is kept as the shared section ‘${title}’. Other pages can show it too.`);
  };
}

/** The first words of a text, as many as make a name. */
function nameFrom(words: string): string {
  if (words.length <= NAME_LENGTH) return words;
  const end = words.lastIndexOf(' ', NAME_LENGTH);
  return `${words.slice(0, end > 0 ? end : NAME_LENGTH)} …`;
}
