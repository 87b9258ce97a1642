import { MAX_MENU_NAME_LENGTH, type Menu } from '#core/model/menu.ts';
import { newMenuId } from '../../api/site-store.ts';
import { NamedThing, NamedThings } from '../../fields/named-things.tsx';
import { Button } from '../../ui/button.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

/** The menus of the site, and where each shows. */
export function MenusDialog({ onClose }: { readonly onClose: () => void }) {
  const { site, store } = useWorkbench();
  const { menus } = site.settings;
  return (
    <NamedThings
      title="Menus"
      description="A new menu follows the tree. Set its entries and exceptions in the side sheet of the Menus lens."
      one="menu"
      placeholder="Footer"
      longest={MAX_MENU_NAME_LENGTH}
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
  const { site, store, setDialog } = useWorkbench();
  const layouts = site.settings.layouts.filter(({ menus }) => Object.values(menus).includes(menu.id));
  return (
    <NamedThing
      name={menu.name}
      one="menu"
      longest={MAX_MENU_NAME_LENGTH}
      hint={`Screen readers announce it. ${menu.isByHand ? 'Arranged by hand.' : 'Follows the tree.'}`}
      onRename={(title) => store.apply([{ name: 'menu.set', menu: menu.id, fields: { title } }])}
      onRemove={() => store.apply([{ name: 'menu.remove', menu: menu.id }])}
    >
      <p className="flex flex-wrap items-center gap-2 text-small">
        <span className={layouts.length === 0 ? 'text-attention' : 'text-quiet'}>
          {layouts.length === 0
            ? 'No layout shows it yet.'
            : `Shown by the layout${layouts.length === 1 ? '' : 's'} ${layouts.map(({ name }) => `‘${name}’`).join(', ')}.`}
        </span>
        <Button look="quiet" isTight onClick={() => setDialog('layouts')}>
          Set where it shows
        </Button>
      </p>
    </NamedThing>
  );
}
