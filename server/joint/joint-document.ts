import {
  initProseMirrorDoc,
  prosemirrorToYXmlFragment,
  updateYFragment,
  yXmlFragmentToProsemirrorJSON,
} from '@tiptap/y-tiptap';
import type { Node } from '@tiptap/pm/model';
import * as Y from 'yjs';
import type { TextDocument } from '#core/model/content.ts';
import { isBlank } from '#core/sections/blank.ts';
import { withoutEmptyBoxes } from '#core/sketch/planned-boxes.ts';
import { putTextIntoLines } from '#contract/joint-lines.ts';
import { JOINT_FRAGMENT } from '#contract/joint-text.ts';
import { textSchema } from '#contract/rich-text.ts';

/**
 * Who is said to have written what a shared document begins with: the same in each process, so that all begin with the same document.
 * Another number wherever it is made in another way.
 */
const SEED_CLIENT = 2;
const EMPTY: TextDocument = { type: 'doc', content: [{ type: 'paragraph' }] };

/** The shared document that several write a text in, as it begins: the text, with a line to write on behind it. */
export function seedOf(document: TextDocument | null): Uint8Array {
  const shared = new Y.Doc();
  shared.clientID = SEED_CLIENT;
  prosemirrorToYXmlFragment(withLineBehind(document), shared.getXmlFragment(JOINT_FRAGMENT));
  putTextIntoLines(shared.getXmlFragment(JOINT_FRAGMENT));
  const state = Y.encodeStateAsUpdate(shared);
  shared.destroy();
  return state;
}

/** A shared document from its updates, in any order. @throws what Yjs throws for bytes that are none */
export function sharedOf(...updates: readonly Uint8Array[]): Y.Doc {
  const shared = new Y.Doc();
  for (const update of updates) Y.applyUpdate(shared, update);
  return shared;
}

/**
 * Whether editors can show a document: nothing that its updates build on is missing, and it is made of parts of texts, of whatever
 * names; text stands within them.
 */
export const isSound = (shared: Y.Doc): boolean =>
  shared.store.pendingStructs === null &&
  shared.store.pendingDs === null &&
  shared
    .getXmlFragment(JOINT_FRAGMENT)
    .toArray()
    .every((part) => part instanceof Y.XmlElement && isPart(part));

const isPart = (part: Y.XmlElement): boolean =>
  part
    .toArray()
    .every((inner: unknown) => inner instanceof Y.XmlText || (inner instanceof Y.XmlElement && isPart(inner)));

/**
 * The text in a shared document, as it is saved; null where nothing is written. Parts that no text has, which come of what two people
 * did to one part at once, are left out, as the editor leaves them out.
 * @throws where what is left is no text, as in a document that is not sound
 */
export function documentIn(shared: Y.Doc): TextDocument | null {
  const text = withoutEmptyEnd(rootOf(shared));
  const document = withoutEmptyBoxes(text.toJSON() as TextDocument);
  return isBlank(document) ? null : document;
}

function rootOf(shared: Y.Doc): Node {
  try {
    const root = textSchema.nodeFromJSON(yXmlFragmentToProsemirrorJSON(shared.getXmlFragment(JOINT_FRAGMENT)));
    root.check();
    return root;
  } catch {
    // What is left out is left out of a copy: each browser does the same to its own.
    const copy = sharedOf(Y.encodeStateAsUpdate(shared));
    const { doc } = initProseMirrorDoc(copy.getXmlFragment(JOINT_FRAGMENT), textSchema);
    doc.check();
    return doc;
  }
}

/**
 * What makes of a shared document a text that was saved past it, as an update. What was written in the document since `saved` stays.
 * @param saved the shared document as it was when the page last had all of it
 */
export function updateTo(saved: Uint8Array, document: TextDocument | null): Uint8Array {
  const shared = sharedOf(saved);
  const before = Y.encodeStateVector(shared);
  updateYFragment(shared, shared.getXmlFragment(JOINT_FRAGMENT), withLineBehind(document), {
    mapping: new Map(),
    isOMark: new Map(),
  });
  putTextIntoLines(shared.getXmlFragment(JOINT_FRAGMENT));
  const update = Y.encodeStateAsUpdate(shared, before);
  shared.destroy();
  return update;
}

/** Whether two texts are one: as the editor writes them out, without empty lines at the end. Where nothing is written, nothing else counts. */
export const isSameText = (one: TextDocument | null, other: TextDocument | null): boolean =>
  JSON.stringify(written(one)) === JSON.stringify(written(other));

const written = (document: TextDocument | null): unknown =>
  withoutEmptyEnd(textSchema.nodeFromJSON(document && !isBlank(document) ? document : EMPTY)).toJSON();

/** The editor keeps an empty line at the end to write on: with it in the document no editor has to add one of its own. */
function withLineBehind(document: TextDocument | null): Node {
  const text = textSchema.nodeFromJSON(document ?? EMPTY);
  const line = textSchema.nodes.paragraph!;
  return text.lastChild?.type === line ? text : text.copy(text.content.addToEnd(line.create()));
}

function withoutEmptyEnd(text: Node): Node {
  const end = text.lastChild;
  const isEmpty = end?.type.name === 'paragraph' && end.content.size === 0 && text.childCount > 1;
  return isEmpty ? withoutEmptyEnd(text.cut(0, text.content.size - end.nodeSize)) : text;
}
