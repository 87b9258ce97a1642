import type { z } from 'zod';
import type { TextDocument, TextPart } from '../model/content.ts';
import { type SharedId, sharedIdSchema } from '../model/shared-section.ts';
import { SHARED } from './shared.ts';

/** The ids in `of` of a text's sections of one type, each once, in the order in which they come. */
export function namedIn<Schema extends z.ZodType<string>>(
  document: TextDocument,
  type: string,
  schema: Schema,
): z.infer<Schema>[] {
  const found = new Set<z.infer<Schema>>();
  const walk = (part: TextDocument | TextPart): void => {
    const id = part.type === type ? schema.safeParse((part as TextPart).attrs?.of).data : undefined;
    if (id !== undefined) found.add(id);
    part.content?.forEach(walk);
  };
  walk(document);
  return [...found];
}

/** The shared sections that a text shows, each once, in the order in which they come. */
export const sharedIn = (document: TextDocument): SharedId[] => namedIn(document, SHARED.type, sharedIdSchema);
