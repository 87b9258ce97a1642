import { Extension } from '@tiptap/core';
import { type EditorState, NodeSelection, Plugin, PluginKey, TextSelection } from '@tiptap/pm/state';
import { Decoration, DecorationSet, type EditorView } from '@tiptap/pm/view';
import {
  type ProsemirrorBinding,
  absolutePositionToRelativePosition,
  relativePositionToAbsolutePosition,
  ySyncPluginKey,
} from '@tiptap/y-tiptap';
import * as Y from 'yjs';
import { isFromOthers } from '../fields/from-others.ts';
import type { JointText, OtherCaret } from './joint-text.ts';

const key = new PluginKey<DecorationSet>('otherCarets');

/** The shared document behind an editor. */
interface Behind {
  readonly doc: Y.Doc;
  readonly type: Y.XmlFragment;
  readonly binding: ProsemirrorBinding | null;
}
const behind = (state: EditorState): Behind | undefined => ySyncPluginKey.getState(state) as Behind | undefined;

/** Shows in a text where others are: a line where their cursor is, and their names beside the part that it stands in. */
export const OtherCarets = Extension.create<{ readonly text: JointText }>({
  name: 'otherCarets',
  addProseMirrorPlugins() {
    const { text } = this.options;
    return [
      new Plugin<DecorationSet>({
        key,
        state: {
          init: () => DecorationSet.empty,
          apply(change, before, _old, state) {
            if (change.getMeta(key) || isFromOthers(change)) return shownIn(state, text.carets);
            return change.docChanged ? before.map(change.mapping, change.doc) : before;
          },
        },
        props: { decorations: (state) => key.getState(state) },
        appendTransaction(changes, before, state) {
          // What somebody had selected is gone: what stands in its place now is another's, and is not replaced by the next letter.
          const [was, now] = [before.selection, state.selection];
          if (!changes.some(isFromOthers) || !(was instanceof NodeSelection) || !(now instanceof NodeSelection))
            return null;
          if (now.node.type === was.node.type) return null;
          return state.tr.setSelection(TextSelection.near(now.$to)).setMeta('addToHistory', false);
        },
        view(view) {
          const show = () => view.dispatch(view.state.tr.setMeta(key, true).setMeta('addToHistory', false));
          const tell = () => text.tellCaret(view.hasFocus() ? ownCaret(view) : null);
          const stop = text.onCarets(show);
          view.dom.addEventListener('focus', tell);
          view.dom.addEventListener('blur', tell);
          return {
            update: tell,
            destroy: () => {
              stop();
              view.dom.removeEventListener('focus', tell);
              view.dom.removeEventListener('blur', tell);
            },
          };
        },
      }),
    ];
  },
});

function ownCaret(view: EditorView) {
  const shared = behind(view.state);
  if (!shared?.binding) return null;
  const { anchor, head } = view.state.selection;
  const at = (place: number) =>
    JSON.stringify(absolutePositionToRelativePosition(place, shared.type, shared.binding!.mapping));
  return { anchor: at(anchor), head: at(head) };
}

function shownIn(state: EditorState, carets: JointText['carets']): DecorationSet {
  const shared = behind(state);
  if (!shared?.binding || carets.length === 0) return DecorationSet.empty;
  const names = new Map<number, Set<string>>();
  const found: Decoration[] = [];
  for (const [tab, caret] of carets) {
    const at = placeOf(state, shared, caret);
    if (at === null) continue;
    const line = () => {
      const element = document.createElement('span');
      element.className = 'other-caret';
      return element;
    };
    found.push(Decoration.widget(at, line, { key: `caret ${tab}`, side: 10, ignoreSelection: true }));
    const place = state.doc.resolve(at);
    if (place.depth === 0) continue;
    const part = place.before(1);
    names.set(part, (names.get(part) ?? new Set()).add(caret.by));
  }
  for (const [part, of] of names) {
    const node = state.doc.nodeAt(part)!;
    const words = [...of].sort().join(', ');
    found.push(Decoration.node(part, part + node.nodeSize, { class: 'written-by', 'data-writers': words }));
  }
  return DecorationSet.create(state.doc, found);
}

/** Where somebody is in the document as it is here; null for nowhere, as in what they have just made. */
function placeOf(state: EditorState, { doc, type, binding }: Behind, { head }: OtherCaret): number | null {
  try {
    const relative = Y.createRelativePositionFromJSON(JSON.parse(head));
    const at = relativePositionToAbsolutePosition(doc, type, relative, binding!.mapping);
    return at === null ? null : Math.min(at, state.doc.content.size);
  } catch {
    return null;
  }
}
