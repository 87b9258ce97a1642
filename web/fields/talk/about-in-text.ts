import type { Editor } from '@tiptap/core';
import type { Node } from '@tiptap/pm/model';
import { findPassage, passageAt, type Range } from '#core/talk/find-passage.ts';
import { type About, type AboutPassage, type AboutSection, MAX_AROUND_LENGTH } from '#core/talk/thread.ts';
import { type FlatText, flatText } from './flat-text.ts';

/** What the selected words of a text are, to say something about them; null where none are selected. */
export function aboutSelection({ state }: Pick<Editor, 'state'>): AboutPassage | null {
  const { from, to, empty } = state.selection;
  if (empty) return null;
  const flat = flatText(state.doc);
  return passageAt(flat.text, { from: flat.characterAt(from), to: flat.characterAt(to) });
}

const beginningOf = (node: Node): string => node.textContent.slice(0, MAX_AROUND_LENGTH);

/** The section of a type that the selection is in, or that is selected as a whole. */
export function aboutSection({ state }: Pick<Editor, 'state'>, type: string): AboutSection | null {
  const { from } = state.selection;
  let nth = -1;
  let found: AboutSection | null = null;
  state.doc.descendants((node, place) => {
    if (node.type.name !== type) return true;
    nth += 1;
    if (place <= from && from < place + node.nodeSize) found = { section: type, nth, begins: beginningOf(node) };
    return true;
  });
  return found;
}

/** Where what somebody talks about stands in a text, in places of the document; null where it is no longer there. */
export function placeOfAbout(
  doc: Node,
  flat: FlatText,
  about: About,
): (Range & { readonly isSection: boolean }) | null {
  if (about === null || 'lens' in about) return null;
  if ('exact' in about) {
    const found = findPassage(flat.text, about);
    return found && { from: flat.placeOf(found.from), to: flat.placeOf(found.to - 1) + 1, isSection: false };
  }
  return placeOfSection(doc, about);
}

/** The section that begins as it did, the nearest to where it stood; one without words by where it stood alone. */
function placeOfSection(doc: Node, { section, nth, begins }: AboutSection): (Range & { isSection: true }) | null {
  const found: { readonly nth: number; readonly from: number; readonly to: number }[] = [];
  let count = 0;
  doc.descendants((node, place) => {
    if (node.type.name !== section) return true;
    if (beginningOf(node) === begins) found.push({ nth: count, from: place, to: place + node.nodeSize });
    count += 1;
    return true;
  });
  const [best] = found.sort((a, b) => Math.abs(a.nth - nth) - Math.abs(b.nth - nth));
  return best === undefined ? null : { from: best.from, to: best.to, isSection: true };
}
