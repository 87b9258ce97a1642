import * as Y from 'yjs';
import { textSchema } from './rich-text.ts';

/**
 * Puts a text into each line of a shared document that has none: two who begin to write there write in that one then. Where each began
 * a text of their own, each of their editors would make one of the two, and letters came twice.
 */
export function putTextIntoLines(parts: Y.XmlFragment): void {
  for (const part of parts.toArray()) {
    if (!(part instanceof Y.XmlElement)) continue;
    if (part.length > 0) putTextIntoLines(part);
    else if (textSchema.nodes[part.nodeName]?.isTextblock) part.insert(0, [new Y.XmlText()]);
  }
}
