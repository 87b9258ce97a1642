import type { Extensions } from '@tiptap/core';
import Collaboration from '@tiptap/extension-collaboration';
import { editorExtensions } from '../fields/audience-section.tsx';
import type { JointText } from './joint-text.ts';
import { OtherCarets } from './other-carets.ts';

/** What the editor of a text is made of that several write: undo takes back what was written here alone. */
export const jointExtensions = (text: JointText): Extensions => [
  ...editorExtensions.map((one) => (one.name === 'starterKit' ? one.configure({ undoRedo: false }) : one)),
  Collaboration.configure({ fragment: text.fragment }),
  OtherCarets.configure({ text }),
];
