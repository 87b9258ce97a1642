import type { TextDocument, TextPart } from '../model/content.ts';
import { type SharedId, sharedIdSchema } from '../model/shared-section.ts';
import { SHARED } from './shared.ts';

/** The shared sections that a text shows, each once, in the order in which they come. */
export function sharedIn(document: TextDocument): SharedId[] {
  const found = new Set<SharedId>();
  const walk = (part: TextDocument | TextPart): void => {
    const id = part.type === SHARED.type ? sharedIdSchema.safeParse((part as TextPart).attrs?.of).data : undefined;
    if (id !== undefined) found.add(id);
    part.content?.forEach(walk);
  };
  walk(document);
  return [...found];
}

/** A text with what shared sections say in place of each of them that is known; a copy of them then, that follows them no longer. */
export function withoutShared(document: TextDocument, textOf: ReadonlyMap<SharedId, TextDocument>): TextDocument {
  const partsOf = (part: TextPart): readonly TextPart[] => {
    const known = part.type === SHARED.type ? textOf.get(part.attrs?.of as SharedId) : undefined;
    if (known) return known.content ?? [];
    return [part.content ? { ...part, content: part.content.flatMap(partsOf) } : part];
  };
  return { ...document, ...(document.content && { content: document.content.flatMap(partsOf) }) };
}
