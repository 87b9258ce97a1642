import { MENU_SLOTS, type MenuSlot } from '#core/model/layout.ts';
import { LONGEST_MENU_NAME, type Menu } from '#core/model/menu.ts';
import { layoutOf } from '#core/derive/layouts.ts';
import { newMenuId } from '../../api/site-store.ts';
import { NamedThing, NamedThings } from '../../fields/named-things.tsx';
import { Choice } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

const SLOT_WORDS: Readonly<Record<MenuSlot, string>> = {
  utility: 'In a line above the header',
  header: 'In the header',
  side: 'Beside the text',
  footer: 'In the footer',
};

/** The menus of the site, and where each shows. */
export function MenusDialog({ onClose }: { readonly onClose: () => void }) {
  const { site, store } = useWorkbench();
  const { menus } = site.settings;
  return (
    <NamedThings
      title="Menus"
      description="A new menu follows the tree. How it is kept, its entries and its exceptions stand in the side sheet of the Menus lens."
      one="menu"
      placeholder="Footer"
      longest={LONGEST_MENU_NAME}
      isEmpty={menus.length === 0}
      onAdd={(title) => store.apply([{ name: 'menu.add', menu: newMenuId(), title }]) === null}
      onClose={onClose}
    >
      {menus.map((menu) => (
        <OneMenu key={menu.id} menu={menu} />
      ))}
    </NamedThings>
  );
}

function OneMenu({ menu }: { readonly menu: Menu }) {
  const { site, store } = useWorkbench();
  const layout = layoutOf(site, null);
  const place = MENU_SLOTS.find((slot) => layout.menus[slot] === menu.id) ?? '';
  const other = (slot: MenuSlot) => site.settings.menus.find(({ id }) => id === layout.menus[slot] && id !== menu.id);
  const put = (slot: MenuSlot | '') =>
    store.apply([
      {
        name: 'layout.set',
        layout: layout.id,
        fields: {
          menus: {
            ...layout.menus,
            ...(place !== '' && { [place]: null }),
            ...(slot !== '' && { [slot]: menu.id }),
          },
        },
      },
    ]);
  return (
    <NamedThing
      name={menu.name}
      one="menu"
      longest={LONGEST_MENU_NAME}
      hint={`Screen readers say it. ${menu.isByHand ? 'Arranged by hand.' : 'Follows the tree.'}`}
      onRename={(title) => store.apply([{ name: 'menu.set', menu: menu.id, fields: { title } }])}
      onRemove={() => store.apply([{ name: 'menu.remove', menu: menu.id }])}
    >
      <Choice label="Where it shows" value={place} onChange={(event) => put(event.target.value as MenuSlot | '')}>
        <option value="">Nowhere yet</option>
        {MENU_SLOTS.map((slot) => (
          <option key={slot} value={slot}>
            {SLOT_WORDS[slot]}
            {other(slot) ? `, instead of ‘${other(slot)!.name}’` : ''}
          </option>
        ))}
      </Choice>
    </NamedThing>
  );
}
