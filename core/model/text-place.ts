import { z } from 'zod';
import { labelIdSchema } from './access.ts';
import { type ContentId, type PageId, pageIdSchema } from './ids.ts';
import { sharedIdSchema } from './shared-section.ts';
import { type Site, maybeNodeAt } from './site.ts';

/** A text that people write in: of a page, the planners' notes on it, what a shared section says, or what the pages of a kind begin with. */
export const textPlaceSchema = z.discriminatedUnion('of', [
  z.strictObject({ of: z.literal('page'), id: pageIdSchema }),
  z.strictObject({ of: z.literal('notes'), id: pageIdSchema }),
  z.strictObject({ of: z.literal('shared'), id: sharedIdSchema }),
  z.strictObject({ of: z.literal('outline'), id: labelIdSchema }),
]);
export type TextPlace = Readonly<z.infer<typeof textPlaceSchema>>;

/** A place as one text, by which it is known where it has no fields. */
export const placeText = ({ of, id }: TextPlace): string => `${of} ${id}`;

/** The inverse of `placeText`. @throws for what it does not give */
export function textPlaceIn(text: string): TextPlace {
  const [of, id] = text.split(' ');
  return textPlaceSchema.parse({ of, id });
}

export const isSamePlace = (one: TextPlace, other: TextPlace): boolean => one.of === other.of && one.id === other.id;

/** The page that a text stands on; null for one that many pages show. */
export const pageOfText = ({ of, id }: TextPlace): PageId | null => (of === 'page' || of === 'notes' ? id : null);

/** The text at a place; null where nothing is written there yet, and undefined where the site has no such place, or it was removed. */
export function textAt(site: Site, place: TextPlace): ContentId | null | undefined {
  switch (place.of) {
    case 'page': {
      const node = maybeNodeAt(site, place.id);
      return node?.type === 'page' ? node.content : undefined;
    }
    case 'notes': {
      const node = maybeNodeAt(site, place.id);
      return node && (node.plan?.notes ?? null);
    }
    case 'shared':
      return site.settings.shared.find(({ id }) => id === place.id)?.content;
    case 'outline': {
      const label = site.settings.labels.find(({ id }) => id === place.id);
      return label && (label.pageOutline ?? null);
    }
  }
}
