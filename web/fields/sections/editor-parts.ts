import type { AnyExtension, Editor } from '@tiptap/core';
import { ReactNodeViewRenderer } from '@tiptap/react';
import { BUTTON_PART } from './button-part.tsx';
import { COLUMNS_PART } from './columns-part.tsx';
import type { EditorPart } from './editor-part.ts';
import { NOTE_PART } from './note-part.tsx';
import { PAGE_LIST_PART, PageListView } from './page-list-part.tsx';
import { QUOTATION_PART } from './quotation-part.tsx';
import { TABLE_PART } from './table-part.tsx';

/** The parts of the editor for types of sections; one that has nothing to set needs none. */
export const EDITOR_PARTS: readonly EditorPart[] = [
  NOTE_PART,
  QUOTATION_PART,
  BUTTON_PART,
  COLUMNS_PART,
  TABLE_PART,
  PAGE_LIST_PART,
];

/** A fold stands open where it is written: browsers keep the space key of a question for opening it. */
const asElement = (tag: string, type: string) => () => () => {
  const dom = document.createElement(tag);
  dom.dataset.section = type;
  return { dom, contentDOM: dom };
};

/** Enter in a question goes to its answer. */
function goToAnswer(editor: Editor): boolean {
  const { $from } = editor.state.selection;
  return $from.parent.type.name === 'foldQuestion' && editor.commands.setTextSelection($from.after() + 1);
}

/** What some sections look like in the editor, where that is not as visitors have it. */
export const inEditor = (extension: AnyExtension): AnyExtension => {
  if (extension.name === 'fold') return extension.extend({ addNodeView: asElement('div', 'fold') });
  if (extension.name === 'foldQuestion')
    return extension.extend({
      addNodeView: asElement('p', 'foldQuestion'),
      addKeyboardShortcuts: () => ({ Enter: ({ editor }: { editor: Editor }) => goToAnswer(editor) }),
    });
  if (extension.name === 'pageList')
    return extension.extend({ addNodeView: () => ReactNodeViewRenderer(PageListView) });
  return extension;
};
