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
