import type { Carried } from '#core/arrange/grow.ts';
import type { PageId } from '#core/model/ids.ts';
import { maybeNodeAt } from '#core/model/site.ts';
import { wordsOfFault } from '../api/client.ts';
import { fetchContents } from '../api/content.ts';
import type { Edit, SiteStore } from '../api/site-store.ts';
import { removePages } from '../api/sites.ts';
import type { Clip } from './clip.ts';

/** How pages from another site have come. */
export type CarriedOver =
  | { readonly is: 'here' }
  /** They were refused, and stand where they stood; the store has told why. */
  | { readonly is: 'refused' }
  /** They stand in both sites: they could not be taken out of the first one. */
  | { readonly is: 'in both'; readonly why: string };

/**
 * Brings pages of another site into this one, with their texts. Those that were cut leave the other site only when this
 * one has them: nothing is lost on the way. @throws ServerProblem, NoAnswer where their texts cannot be fetched; then
 * nothing was done.
 */
export async function carryPages(
  store: SiteStore,
  clip: Pick<Clip, 'site' | 'kind'>,
  { operations, contents }: Pick<Carried, 'operations' | 'contents'>,
  pages: readonly PageId[],
): Promise<CarriedOver> {
  const texts = contents.length > 0 ? await fetchContents(clip.site, contents) : [];
  if (store.apply(operations as Edit[], texts) !== null) return { is: 'refused' };
  if (clip.kind === 'copy') return { is: 'here' };
  await store.settled();
  const { site } = store.getShown();
  if (!operations.every(({ page }) => maybeNodeAt(site, page))) return { is: 'refused' };
  try {
    await removePages(clip.site, pages);
    return { is: 'here' };
  } catch (fault) {
    return { is: 'in both', why: wordsOfFault(fault) };
  }
}
