import { Extension } from '@tiptap/core';
import { type EditorState, Plugin, TextSelection, type Transaction } from '@tiptap/pm/state';

/**
 * Deletes what lies between two places of a text and joins nothing: the sections at both ends stay, with what is outside. The cursor stands
 * where the deleted began.
 */
export function deleteAcross(tr: Transaction, from: number, to: number): Transaction {
  const pieces: (readonly [from: number, to: number])[] = [];
  tr.doc.nodesBetween(from, to, (node, start) => {
    const end = start + node.nodeSize;
    if (from <= start && end <= to) pieces.push([start, end]);
    else if (node.isTextblock) pieces.push([Math.max(from, start + 1), Math.min(to, end - 1)]);
    else return true;
    return false;
  });
  // From the end, so that what stands before keeps its place. What a section cannot be without, as a fold its question, is left empty.
  for (const piece of pieces.reverse()) tr.delete(...piece);
  return tr.setSelection(TextSelection.near(tr.doc.resolve(Math.min(from, tr.doc.content.size)), 1));
}

/** Whether the editor cannot do something by itself: it would join sections that do not go together, and fails. */
function fails(change: () => unknown): boolean {
  try {
    change();
    return false;
  } catch {
    return true;
  }
}

const isStuck = ({ selection, tr }: EditorState): boolean => !selection.empty && fails(() => tr.deleteSelection());
const deleted = ({ selection, tr }: EditorState): Transaction =>
  deleteAcross(tr, selection.from, selection.to).scrollIntoView();

const DELETING: readonly string[] = ['Backspace', 'Delete'];

/**
 * What is selected from one section into another, and typed over, deleted, cut or pasted over, goes also where the sections are of kinds that the
 * editor cannot join.
 */
export const DeletesAcross = Extension.create({
  name: 'deletesAcross',
  priority: 1000,
  addProseMirrorPlugins: () => [
    new Plugin({
      props: {
        handleTextInput: (view, from, to, text) => {
          if (from === to || !fails(() => view.state.tr.insertText(text, from, to))) return false;
          const tr = deleteAcross(view.state.tr, from, to);
          view.dispatch(tr.insertText(text).scrollIntoView());
          return true;
        },
        handleKeyDown: (view, { key }) => {
          const isDeleting = DELETING.includes(key);
          if ((!isDeleting && key !== 'Enter') || !isStuck(view.state)) return false;
          view.dispatch(deleted(view.state));
          return isDeleting;
        },
        handlePaste: (view) => {
          if (isStuck(view.state)) view.dispatch(deleted(view.state));
          return false;
        },
        handleDOMEvents: {
          cut: (view, event) => {
            if (!view.editable || event.clipboardData === null || !isStuck(view.state)) return false;
            const { dom, text } = view.serializeForClipboard(view.state.selection.content());
            event.preventDefault();
            event.clipboardData.clearData();
            event.clipboardData.setData('text/html', dom.innerHTML);
            event.clipboardData.setData('text/plain', text);
            view.dispatch(deleted(view.state));
            return true;
          },
        },
      },
    }),
  ],
});
