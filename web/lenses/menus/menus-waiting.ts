import { arrangedNow } from '#core/derive/menu-merge.ts';
import { answerOfRow } from '#core/derive/menu-range.ts';
import type { Waiting, WaitingFacts } from '../lens-definition.ts';
import { inWords } from '../waiting-words.ts';

/** What menus that were arranged by hand propose, and links that lead nowhere. */
export function menusWaiting({ site, derived }: WaitingFacts): Waiting {
  let dead = 0;
  for (const row of derived.outline.aliases) if (answerOfRow(derived, row) === 'leads nowhere') dead++;
  const proposals = site.settings.menus.reduce(
    (count, menu) => count + (menu.isByHand ? arrangedNow(site, menu).proposals.length : 0),
    0,
  );
  return {
    count: proposals + dead,
    words: inWords(
      (proposals > 0 || dead === 0) && (proposals === 1 ? '1 proposal to settle' : `${proposals} proposals to settle`),
      dead > 0 && `${dead} that lead nowhere`,
    ),
  };
}
