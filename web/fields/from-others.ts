import type { Transaction } from '@tiptap/pm/state';
import { ySyncPluginKey } from '@tiptap/y-tiptap';

/** Whether a change of an editor is what others have written, or what was undone: then all of its document is put in place anew. */
export const isFromOthers = (change: Transaction): boolean =>
  (change.getMeta(ySyncPluginKey) as { readonly isChangeOrigin?: boolean } | undefined)?.isChangeOrigin === true;
