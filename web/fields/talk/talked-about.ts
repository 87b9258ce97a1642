import { type Editor, Extension } from '@tiptap/core';
import type { Node } from '@tiptap/pm/model';
import { Plugin, PluginKey, type Transaction } from '@tiptap/pm/state';
import { Decoration, DecorationSet } from '@tiptap/pm/view';
import type { About } from '#core/talk/thread.ts';
import { isFromOthers } from '../from-others.ts';
import { placeOfAbout } from './about-in-text.ts';
import { flatText } from './flat-text.ts';

/** Something that is said about a part of a text. */
export interface TalkedAbout {
  readonly thread: string;
  readonly about: About;
  /** What it says, for whoever points at it. */
  readonly words: string;
}
export const NOTHING_SAID: readonly TalkedAbout[] = [];

interface Shown {
  readonly talk: readonly TalkedAbout[];
  readonly decorations: DecorationSet;
}
const key = new PluginKey<Shown>('talkedAbout');

/** Marks in a text what somebody talks about. Nothing of it is part of the text. */
export const TalkedAboutExtension = Extension.create({
  name: 'talkedAbout',
  addProseMirrorPlugins: () => [
    new Plugin<Shown>({
      key,
      state: {
        init: () => ({ talk: NOTHING_SAID, decorations: DecorationSet.empty }),
        apply(change: Transaction, before: Shown): Shown {
          const told = change.getMeta(key) as readonly TalkedAbout[] | undefined;
          if (told) return { talk: told, decorations: decorationsOf(change.doc, told) };
          if (!change.docChanged || before.talk.length === 0) return before;
          // While somebody writes the marks move along; they are looked for again when a text comes from elsewhere.
          if (isFromOthers(change)) return { ...before, decorations: decorationsOf(change.doc, before.talk) };
          return { ...before, decorations: before.decorations.map(change.mapping, change.doc) };
        },
      },
      props: { decorations: (state) => key.getState(state)!.decorations },
    }),
  ],
});

/** Tells an editor what is talked about in its text; what stands where is looked for anew. */
export const showTalk = (editor: Editor, talk: readonly TalkedAbout[]): void => {
  const now = key.getState(editor.state);
  if (talk.length > 0 || (now && now.talk.length > 0))
    editor.view.dispatch(editor.state.tr.setMeta(key, talk).setMeta('addToHistory', false));
};

/** The thread about the innermost part of a text that an element of it stands in; null for none. */
export const threadAt = (element: Element): string | null =>
  element.closest('[data-thread]')?.getAttribute('data-thread') ?? null;

function decorationsOf(doc: Node, talk: readonly TalkedAbout[]): DecorationSet {
  if (talk.length === 0) return DecorationSet.empty;
  const flat = flatText(doc);
  return DecorationSet.create(
    doc,
    talk.flatMap(({ thread, about, words }) => {
      const place = placeOfAbout(doc, flat, about);
      if (place === null) return [];
      const attributes = { class: 'talked-about', 'data-thread': thread, title: words };
      return [
        place.isSection
          ? Decoration.node(place.from, place.to, attributes)
          : Decoration.inline(place.from, place.to, attributes),
      ];
    }),
  );
}
