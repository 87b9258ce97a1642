import type { Proposes } from '../model/feedback.ts';
import type { PageId } from '../model/ids.ts';
import { type Refusal, refuse } from '../model/refusal.ts';
import { type Site, isWithin, maybeNodeAt, nodeAt } from '../model/site.ts';
import { textIn } from '../model/texts.ts';
import { checkStands } from '../operations/checks.ts';
import type { Operation } from '../operations/operation.ts';
import { moveToPlace, placeOn } from './landing.ts';

/**
 * The operations by which a page becomes what was proposed for it; none where it is so already.
 * Gives a refusal where the page, or the one that its place is seen from, does not stand in the tree any more, and where the
 * place is within the page itself. What else forbids it is found out when the operations are applied.
 */
export function editsOfProposal(
  site: Site,
  page: PageId,
  { title, place }: Proposes,
): { readonly ok: true; readonly operations: readonly Operation[] } | Refusal {
  const forbidden = checkStands(site, page) ?? (place?.near ? checkStands(site, place.near) : null);
  if (forbidden) return forbidden;
  const { language } = site.settings;
  const operations: Operation[] = [];
  if (title !== undefined && title !== textIn(nodeAt(site, page).title, language))
    operations.push({ name: 'page.set', page, fields: { title: { [language]: title } } });
  if (place) {
    const target = placeOn(site, place.near, place.side, [page]);
    // Beside itself is where it stands.
    const isBesideItself = place.near === page && place.side !== 'inside';
    if (!isBesideItself && target.parent !== null && isWithin(site, target.parent, page))
      return refuse('moved-inside-itself', { page });
    if (!isBesideItself) operations.push(...moveToPlace(site, [page], target));
  }
  return { ok: true, operations };
}

/** What is proposed, as the object of a sentence: "the title ‘Fees’ and a place inside ‘Courses’". */
export function proposalWords(site: Site, { title, place }: Proposes): string {
  const parts: string[] = [];
  if (title !== undefined) parts.push(`the title ‘${title}’`);
  if (place) parts.push(`a place ${placeWords(site, place)}`);
  return parts.join(' and ');
}

function placeWords(site: Site, { near, side }: NonNullable<Proposes['place']>): string {
  if (near === null) return 'at the end of the top level';
  const node = maybeNodeAt(site, near);
  return `${side} ${node ? `‘${textIn(node.title, site.settings.language)}’` : 'a page that was removed'}`;
}
