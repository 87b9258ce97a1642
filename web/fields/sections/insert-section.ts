import type { Editor } from '@tiptap/core';
import { NodeSelection, TextSelection, type Transaction } from '@tiptap/pm/state';
import { AUDIENCE_SECTION, type TextPart } from '#core/model/content.ts';

/** Puts a section where the writing is: in place of an empty line, else after the block that the writing is in; writing goes on inside. */
export function insertSection(editor: Editor, part: TextPart): void {
  editor
    .chain()
    .focus()
    .command(({ state, tr }) => {
      const node = state.schema.nodeFromJSON(part);
      const { $from } = state.selection;
      for (let depth = Math.max(1, $from.depth); depth >= 1; depth--) {
        const parent = $from.node(depth - 1);
        // What is put in while a list is written stands behind it.
        if (parent.type.name === 'listItem') continue;
        const index = $from.index(depth - 1);
        const here = parent.maybeChild(index);
        const isEmptyLine = here?.type.name === 'paragraph' && here.content.size === 0;
        if (isEmptyLine && parent.canReplaceWith(index, index + 1, node.type)) {
          const at = $from.depth >= depth ? $from.before(depth) : $from.pos;
          tr.replaceWith(at, at + here.nodeSize, node);
          writeOnIn(tr, at);
          return true;
        }
        if (parent.canReplaceWith(index + 1, index + 1, node.type)) {
          const at = $from.depth >= depth ? $from.after(depth) : state.selection.to;
          tr.insert(at, node);
          writeOnIn(tr, at);
          return true;
        }
      }
      return false;
    })
    .scrollIntoView()
    .run();
}

/** The keyboard goes to the text; where a section stands there that has to be told first what it shows, to that choice. */
export function writeOn(editor: Editor): void {
  editor.commands.focus();
  window.requestAnimationFrame(() => {
    const { selection } = editor.state;
    const at = 'node' in selection || selection.$from.depth === 0 ? selection.from : selection.$from.before();
    const section = editor.view.nodeDOM(at);
    if (section instanceof HTMLElement) section.querySelector<HTMLElement>('[data-first-choice]')?.focus();
  });
}

/** The writing goes on in the first line of what begins there, in place of the words that it has at first; it is selected as a whole where it has none. */
function writeOnIn(tr: Transaction, at: number): void {
  if (tr.doc.nodeAt(at)?.isAtom) {
    tr.setSelection(NodeSelection.create(tr.doc, at));
    return;
  }
  const start = TextSelection.near(tr.doc.resolve(at + 1));
  const { $from } = start;
  tr.setSelection(TextSelection.between($from, tr.doc.resolve($from.end())));
}

/** The place of the block at the top of the text (or of a section for some audiences) that the selection is in. */
function placeIn(
  editor: Editor,
): { readonly depth: number; readonly from: number; readonly to: number; readonly index: number } | null {
  const { selection } = editor.state;
  const { $from } = selection;
  const isInSome = $from.depth >= 1 && $from.node(1).type.name === AUDIENCE_SECTION;
  const depth = isInSome && $from.depth >= 2 ? 2 : 1;
  const parent = $from.node(depth - 1);
  const index = $from.index(depth - 1);
  const block = parent.maybeChild(index);
  if (!block) return null;
  // What holds no writing is selected as a whole: the selection is beside it, not in it.
  const from = $from.depth >= depth ? $from.before(depth) : $from.pos;
  return { depth, from, to: from + block.nodeSize, index };
}

/** Moves the block that the selection is in by one, up or down; false where it can go no further. */
export function moveSection(editor: Editor, by: -1 | 1): boolean {
  const place = placeIn(editor);
  if (!place) return false;
  const { state, view } = editor;
  const parent = state.selection.$from.node(place.depth - 1);
  const other = parent.maybeChild(place.index + by);
  const block = parent.maybeChild(place.index);
  if (!other || !block) return false;
  const { tr } = state;
  const offset = state.selection.from - place.from;
  tr.delete(place.from, place.to);
  const to = by === -1 ? place.from - other.nodeSize : place.from + other.nodeSize;
  tr.insert(to, block);
  tr.setSelection(TextSelection.near(tr.doc.resolve(Math.min(to + offset, tr.doc.content.size))));
  view.dispatch(tr.scrollIntoView());
  return true;
}

/** Takes the section away that the selection is in. */
export function removeSection(editor: Editor, type: string): void {
  editor.chain().focus().deleteNode(type).run();
}
