import type { Node } from '@tiptap/pm/model';

/**
 * Whether two documents are one text, each perhaps of an editor of its own; the empty line that an editor keeps at the end to type in
 * does not count.
 */
export const saysTheSame = (one: Node, other: Node): boolean => one === other || written(one) === written(other);

// Documents of two editors are of two schemas, and never equal as nodes.
const written = (text: Node): string => JSON.stringify(withoutEmptyEnd(text).toJSON());

function withoutEmptyEnd(text: Node): Node {
  const end = text.lastChild;
  const isEmpty = end?.type.name === 'paragraph' && end.content.size === 0;
  return isEmpty ? text.cut(0, text.content.size - end.nodeSize) : text;
}
