import { useMemo, useState } from 'react';
import { derivedForEach, visitorOf } from '#core/derive/derived-for-each.ts';
import { arrangedNow } from '#core/derive/menu-merge.ts';
import { sectionOf } from '#core/derive/menu.ts';
import { menuTable, menuTableOf } from '#core/derive/menu-table.ts';
import type { AudienceId } from '#core/model/audience.ts';
import type { PageId } from '#core/model/ids.ts';
import type { EntryId, Menu } from '#core/model/menu.ts';
import { audiencesOf } from '../../tree/access-of.ts';
import { menuName } from '../../tree/words.ts';
import { Choice } from '../../ui/field.tsx';
import { useNow } from '../../ui/use-now.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { ArrangedList } from './arranged-list.tsx';
import { EntryFields } from './entry-fields.tsx';
import { FollowingList } from './following-list.tsx';
import { MenuFitPart } from './menu-fit-part.tsx';
import { MenuSettings } from './menu-settings.tsx';
import { NewEntry } from './new-entry.tsx';
import { Proposals } from './proposals.tsx';

/** One menu: what waits to be settled, the menu as it shows, the entry that is looked at, and how the menu is kept. */
export function MenuSheet({ menu, page }: { readonly menu: Menu; readonly page: PageId | null }) {
  const { site, derived, mayEdit } = useWorkbench();
  const [audience, setAudience] = useState<AudienceId | null>(null);
  const [chosen, choose] = useState<EntryId | null>(null);
  const now = useNow();
  const section = sectionOf(derived, page);
  const entries = useMemo(() => {
    if (audience === null) return menuTableOf(site, menu).entries(section);
    const visitor = visitorOf(site, audience);
    const [theirs] = derivedForEach(site, [visitor], now);
    return menuTable(site, menu, theirs!, visitor).entries(section);
  }, [site, menu, audience, section, now]);
  const isArranging = menu.isByHand && audience === null;
  return (
    <>
      <h3 className="font-display text-large font-semibold">{menuName(menu)}</h3>
      {menu.isByHand && <Proposals menu={menu} />}
      <Choice
        label="Shown to"
        value={audience ?? ''}
        onChange={(event) => setAudience(event.target.value === '' ? null : (event.target.value as AudienceId))}
      >
        <option value="">Anybody: all of its entries</option>
        {audiencesOf(site).map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </Choice>
      <p className="text-small text-quiet">{gestureWords(menu, section !== null, audience !== null)}</p>
      {isArranging ? (
        <ArrangedList
          menu={menu}
          entries={arrangedNow(site, menu).entries}
          page={page}
          chosen={chosen}
          onChoose={choose}
        />
      ) : entries.length === 0 ? (
        <p className="text-quiet">
          {menu.root === 'section' && section === null
            ? 'Select a page: the menu shows what stands in its section.'
            : 'Nothing to show: no page in this part of the tree is in menus.'}
        </p>
      ) : (
        <FollowingList menu={menu} entries={entries} page={page} chosen={chosen} onChoose={choose} />
      )}
      {mayEdit && chosen !== null && audience === null && (
        <EntryFields key={chosen} menu={menu} entry={chosen} onClose={() => choose(null)} />
      )}
      {mayEdit && <NewEntry menu={menu} />}
      <MenuFitPart menu={menu} />
      <MenuSettings menu={menu} />
    </>
  );
}

/** What moving something here moves. */
function gestureWords({ isByHand, root }: Menu, hasSection: boolean, isForAudience: boolean): string {
  if (isForAudience) return 'This is the menu as they see it. Choose Anybody to change it.';
  if (isByHand) return 'Arranged by hand: moving an entry here moves the entry only. The page stays where it is.';
  if (root === 'section' && hasSection)
    return 'It follows the tree, in the section of the selected page. Moving a page moves its entry.';
  return 'It follows the tree. To move an entry, move its page in the tree.';
}
