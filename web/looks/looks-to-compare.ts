import { type Look, lookSchema, withOwnOf } from '#core/model/look.ts';
import { suggestLooks } from '#core/look/suggest.ts';

/** Looks that are carried from the sheet to the page where they stand side by side, and from there back when one is taken. */
export interface CarriedLooks {
  readonly looks?: readonly Look[];
  readonly taken?: Look;
}

/** A look that stands beside others. */
export interface NamedLook {
  readonly name: string;
  /** Null for the site's own, whatever it becomes. */
  readonly look: Look | null;
}

/** So many stand side by side at once. */
export const MOST_BESIDE = 3;

/** The looks that are compared: the site's own, and those that were brought; where none were, suggestions from its colour. */
export function looksToCompare(own: Look, carried: unknown): NamedLook[] {
  const brought = (carried as CarriedLooks | null)?.looks;
  const sound = Array.isArray(brought) ? brought.flatMap((one) => lookSchema.safeParse(one).data ?? []) : [];
  const looks = sound.length > 0 ? sound : suggestLooks([own.colour], 0);
  return [
    { name: 'The site’s own look', look: null },
    ...looks.map((look, at) => ({ name: `Suggestion ${at + 1}`, look: withOwnOf(look, own) })),
  ];
}
