import type { Editor } from '@tiptap/react';
import { TextSelection } from '@tiptap/pm/state';

/**
 * Takes what is selected on the screen into the editor at once. Browsers tell of a selection a moment after it was made, and on a slow machine
 * the next key is quicker.
 */
export function takeSelection({ view, state }: Editor): void {
  const { anchorNode, anchorOffset = 0, focusNode, focusOffset = 0 } = document.getSelection() ?? {};
  if (!view.hasFocus() || !(state.selection instanceof TextSelection) || !anchorNode || !focusNode) return;
  if (!view.dom.contains(anchorNode) || !view.dom.contains(focusNode)) return;
  const at = (node: Node, offset: number) => state.doc.resolve(view.posAtDOM(node, offset));
  const selection = TextSelection.between(at(anchorNode, anchorOffset), at(focusNode, focusOffset));
  if (!selection.eq(state.selection)) view.dispatch(state.tr.setSelection(selection));
}
