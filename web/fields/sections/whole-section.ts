import type { Editor } from '@tiptap/core';
import { Fragment, type Node, Slice } from '@tiptap/pm/model';
import { NodeSelection, TextSelection } from '@tiptap/pm/state';
import type { TextPart } from '#core/model/content.ts';
import { type Turn, turned, turnsOf } from '#core/sections/turn.ts';

/** A section in the editor, and where it begins. */
interface Whole {
  readonly node: Node;
  readonly at: number;
}

/** The section of a type that the selection is in, or that is selected as a whole; null where there is none. */
export function wholeAt(editor: Editor, type: string): Whole | null {
  const { selection } = editor.state;
  if (selection instanceof NodeSelection && selection.node.type.name === type)
    return { node: selection.node, at: selection.from };
  const { $from } = selection;
  for (let depth = $from.depth; depth > 0; depth--)
    if ($from.node(depth).type.name === type) return { node: $from.node(depth), at: $from.before(depth) };
  return null;
}

/** What the section can be turned into that the selection is in. */
export function turnsAt(editor: Editor, type: string): readonly Turn[] {
  const whole = wholeAt(editor, type);
  return whole ? turnsOf(whole.node.toJSON() as TextPart) : [];
}

/** Turns the section that the selection is in into another type, with all that it says. */
export function turnSection(editor: Editor, type: string, into: Turn): void {
  const whole = wholeAt(editor, type);
  const parts = whole && turned(whole.node.toJSON() as TextPart, into);
  if (!parts) return;
  editor
    .chain()
    .focus()
    .command(({ state, tr }) => {
      const { node, at } = whole;
      tr.replaceWith(at, at + node.nodeSize, Fragment.fromArray(parts.map((part) => state.schema.nodeFromJSON(part))));
      tr.setSelection(TextSelection.near(tr.doc.resolve(at + 1)));
      return true;
    })
    .run();
}

/** Takes the section up that the selection is in, to be dropped elsewhere in the text. */
export function carrySection(editor: Editor, type: string, event: DragEvent): void {
  const whole = wholeAt(editor, type);
  if (!whole || !event.dataTransfer) return;
  const { view } = editor;
  view.dispatch(view.state.tr.setSelection(NodeSelection.create(view.state.doc, whole.at)));
  const slice = new Slice(Fragment.from(whole.node), 0, 0);
  const { dom, text } = view.serializeForClipboard(slice);
  event.dataTransfer.clearData();
  event.dataTransfer.setData('text/html', dom.innerHTML);
  event.dataTransfer.setData('text/plain', text);
  event.dataTransfer.effectAllowed = 'copyMove';
  const shown = view.nodeDOM(whole.at);
  if (shown instanceof HTMLElement) event.dataTransfer.setDragImage(shown, 0, 0);
  // The editor moves what it knows to be carried from itself.
  view.dragging = { slice, move: true };
}
