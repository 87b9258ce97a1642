import { type Editor, Extension } from '@tiptap/core';
import type { Node } from '@tiptap/pm/model';
import { Plugin, PluginKey, type Transaction } from '@tiptap/pm/state';
import { Decoration, DecorationSet } from '@tiptap/pm/view';
import type { BoxId } from '#core/model/sketch.ts';
import type { TextPart } from '#core/model/content.ts';
import { PLANNED_BOX } from '#core/sections/planned-box.ts';
import { plannedBoxesOf } from '#core/sketch/planned-boxes.ts';
import { OF_THE_DESK } from '../page-look.ts';

/** What is to be said in the place of each box of a sketch. */
export type BoxHints = ReadonlyMap<BoxId, string>;
export const NO_HINTS: BoxHints = new Map();

interface Shown {
  readonly hints: BoxHints;
  readonly decorations: DecorationSet;
}
const key = new PluginKey<Shown>('boxHints');

/** Shows in the empty places of a text what they are for. Nothing of it is part of the text. */
export const BoxHintsExtension = Extension.create({
  name: 'boxHints',
  addProseMirrorPlugins: () => [
    new Plugin<Shown>({
      key,
      state: {
        init: () => ({ hints: NO_HINTS, decorations: DecorationSet.empty }),
        apply(change: Transaction, before: Shown): Shown {
          const hints = (change.getMeta(key) as BoxHints | undefined) ?? before.hints;
          if (hints.size === 0) return before.hints.size === 0 ? before : { hints, decorations: DecorationSet.empty };
          if (hints === before.hints && !change.docChanged) return before;
          return { hints, decorations: decorationsOf(change.doc, hints) };
        },
      },
      props: { decorations: (state) => key.getState(state)!.decorations },
    }),
  ],
});

/** Tells an editor what the boxes in its text are for. */
export function showHints(editor: Editor, hints: BoxHints): void {
  if (key.getState(editor.state)?.hints !== hints)
    editor.view.dispatch(editor.state.tr.setMeta(key, hints).setMeta('addToHistory', false));
}

function decorationsOf(doc: Node, hints: BoxHints): DecorationSet {
  const found: Decoration[] = [];
  doc.descendants((node, at) => {
    const box = (node.attrs[PLANNED_BOX] ?? null) as BoxId | null;
    const hint = box === null ? undefined : hints.get(box);
    if (hint === undefined) return !node.isTextblock;
    const [own] = plannedBoxesOf({ type: 'doc', content: [node.toJSON() as TextPart] });
    // A button says in its own words what it is for.
    if (own!.isWritten || node.type.name === 'button') return false;
    if (node.type.name === 'paragraph' || node.type.name === 'heading')
      found.push(Decoration.node(at, at + node.nodeSize, { 'data-hint': hint, class: 'has-hint' }));
    else
      found.push(Decoration.widget(at, () => lineOf(hint), { side: -1, key: `${box} ${hint}`, ignoreSelection: true }));
    return false;
  });
  return DecorationSet.create(doc, found);
}

/** A line above a section that has no line of its own to show it in. */
function lineOf(hint: string): HTMLElement {
  const line = document.createElement('p');
  line.className = `box-hint ${OF_THE_DESK}`;
  line.contentEditable = 'false';
  line.textContent = hint;
  return line;
}
