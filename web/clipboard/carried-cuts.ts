import { z } from 'zod';
import { type PageId, pageIdSchema, siteKeySchema } from '#core/model/ids.ts';
import { type Site, maybeNodeAt } from '#core/model/site.ts';

const carriedSchema = z.object({
  from: siteKeySchema,
  fromName: z.string(),
  to: siteKeySchema,
  /** What was removed there, and what came of it here. */
  pages: z.array(pageIdSchema),
  landed: z.array(pageIdSchema),
});
/** A branch that was cut in one site and pasted into another. Undoing takes it out of this one; the other keeps it among its removed pages. */
export type CarriedCut = z.infer<typeof carriedSchema>;

const KEY = 'spur.carried';
const MAX_KEPT = 20;

function kept(): CarriedCut[] {
  try {
    return z.array(carriedSchema).parse(JSON.parse(localStorage.getItem(KEY) ?? '[]'));
  } catch {
    return [];
  }
}

const keep = (all: readonly CarriedCut[]): void => {
  try {
    localStorage.setItem(KEY, JSON.stringify(all.slice(-MAX_KEPT)));
  } catch {
    // A browser that keeps nothing for sites: the pages are under ‘Removed pages’ all the same.
  }
};

export const keepCarried = (carried: CarriedCut): void => keep([...kept(), carried]);

/** What was carried here and stands here no more, so that it stands nowhere; it is given once. */
export function carriedAndUndone(site: Site): CarriedCut[] {
  const all = kept();
  const isGone = (page: PageId) => maybeNodeAt(site, page) === undefined;
  const undone = all.filter(({ to, landed }) => to === site.key && landed.length > 0 && landed.every(isGone));
  if (undone.length > 0) keep(all.filter((one) => !undone.includes(one)));
  return undone;
}
