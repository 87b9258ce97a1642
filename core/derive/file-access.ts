import { closureOf } from '../model/audience.ts';
import type { PageId } from '../model/ids.ts';
import { type Site, nodeAt } from '../model/site.ts';
import { textIn } from '../model/texts.ts';
import { NOBODY_KNOWN, accessReason } from './access.ts';
import { liveSiteOf } from './live-site.ts';
import { whoOpens, whoOpensWords } from './who-opens.ts';

/** A live page that shows a file. */
export interface LiveUse {
  readonly page: PageId;
  /** Whether the file stands only in sections for some of those who can open the page. */
  readonly isInSection: boolean;
}

/** So many pages are named. */
const NAMED = 3;

/**
 * Who can open a file, in a sentence: whoever can open one of the live pages that show it.
 * @param site with what is live @param at the moment, in milliseconds since 1970
 */
export function fileOpensWords(site: Site, uses: readonly LiveUse[], at: number): string {
  const live = liveSiteOf(site);
  const there = uses.filter(({ page }) => live.nodes.has(page));
  if (there.length === 0) return 'Only colleagues can open it: no live page shows it.';
  const titleOf = (page: PageId) => `‘${textIn(nodeAt(live, page).title, live.settings.language)}’`;
  const open = there.find(({ page, isInSection }) => !isInSection && opensToAll(live, page, at));
  if (open) return `Everyone can open it, through ${titleOf(open.page)}.`;
  const ways = there.flatMap(({ page, isInSection }) => {
    const whom = whoOpensWords(whoOpens(live, page, at));
    return whom === null
      ? []
      : [`${whom} through ${titleOf(page)}${isInSection ? ', in a section for some of them' : ''}`];
  });
  if (ways.length === 0) return 'No visitor can open it: no visitor can open a live page that shows it.';
  const more = ways.length - NAMED;
  return `It is open to ${ways.slice(0, NAMED).join('; to ')}${more > 0 ? `; and through ${more === 1 ? 'one more page' : `${more} more pages`}` : ''}.`;
}

/** Whether a page opens to everybody, signed in or not, without a passphrase. */
function opensToAll(site: Site, page: PageId, at: number): boolean {
  const { audiences } = site.settings;
  return [NOBODY_KNOWN, ...audiences.map(({ id }) => closureOf(audiences, [id]))].every(
    (visitor) => accessReason(site, page, visitor, at).opens,
  );
}
