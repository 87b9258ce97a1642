import type { AudienceEntries, EntryChange } from '#core/changes/what-changes.ts';
import type { PageId } from '#core/model/ids.ts';
import { entryOf } from '#core/model/menu.ts';
import type { Site } from '#core/model/site.ts';
import { menuName } from '../tree/words.ts';

/** What differs in the menus: of the page that it is about one by one, of the others in numbers. */
export function menuChangeWords(before: Site, after: Site, page: PageId, changes: readonly EntryChange[]): string[] {
  const menus = [...new Set(changes.map(({ menu }) => menu))];
  return menus.flatMap((id) => {
    const menu =
      after.settings.menus.find((one) => one.id === id) ?? before.settings.menus.find((one) => one.id === id)!;
    const mine = changes.filter((one) => one.menu === id);
    const own = mine.find(({ entry }) => entry === entryOf(page));
    const others = mine.filter((one) => one !== own);
    const come = others.filter((one) => one.before === null).length;
    const go = others.filter((one) => one.after === null).length;
    const name = menuName(menu);
    return [
      own && ownEntryWords(name, own),
      come > 0 && `${come === 1 ? '1 entry comes' : `${come} entries come`} into the ${name}`,
      go > 0 && `${go === 1 ? '1 entry leaves' : `${go} entries leave`} the ${name}`,
    ].filter((words) => typeof words === 'string');
  });
}

function ownEntryWords(name: string, { before, after }: EntryChange): string {
  if (before === null) return `${name}: comes in as ${after!.number}`;
  if (after === null) return `${name}: leaves it (was ${before.number})`;
  if (before.number !== after.number) return `${name} ${before.number} → ${after.number}`;
  return `${name}: called ‘${after.text}’`;
}

const entries = (count: number): string => (count === 1 ? '1 entry' : `${count} entries`);

/** What the menus of an audience gain and lose, as clauses after its name. */
export function audienceMenuWords({ gains, loses }: Pick<AudienceEntries, 'gains' | 'loses'>): string[] {
  return [
    gains.length > 0 && `their menus gain ${entries(gains.length)}`,
    loses.length > 0 && `their menus lose ${entries(loses.length)}`,
  ].filter((words) => words !== false);
}
