import { ListTree } from 'lucide-react';
import { giveMenu } from '#core/arrange/give.ts';
import { touchedByMenu } from '#core/derive/touched.ts';
import { MAX_MENU_NAME_LENGTH, type MenuId } from '#core/model/menu.ts';
import { type Edit, newMenuId } from '../../api/site-store.ts';
import type { ListKind } from '../../settings/settings-kind.ts';
import { Button } from '../../ui/button.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { MenuSettings } from './menu-settings.tsx';

/** The menus of the site, and where each shows. */
export const MENUS: ListKind = {
  edits: 'menus',
  title: 'Menus',
  one: 'menu',
  Sign: ListTree,
  description: 'A new menu follows the tree. Set its entries and exceptions in the side sheet of the Menus lens.',
  placeholder: 'Footer',
  longest: MAX_MENU_NAME_LENGTH,
  items: (site) => site.settings.menus,
  says:
    ({ settings: { menus, layouts } }) =>
    (id) => {
      const says = menus.find((one) => one.id === id)?.isByHand ? 'Arranged by hand' : 'Follows the tree';
      const isShown = layouts.some((layout) => Object.values(layout.menus).some((one) => one === id));
      return isShown ? { says } : { says, waits: 'No layout shows it yet' };
    },
  touched: (site, { outline }, id) => touchedByMenu(site, outline, id as MenuId),
  add: (title) => {
    const menu = newMenuId();
    return { id: menu, edit: { name: 'menu.add', menu, title } };
  },
  rename: (id, title) => ({ name: 'menu.set', menu: id as MenuId, fields: { title } }),
  remove: (id) => ({ name: 'menu.remove', menu: id as MenuId }),
  give: (site, to, id) => giveMenu(site, to, id as MenuId) as Edit[],
  Fields: MenuFields,
};

function MenuFields({ id }: { readonly id: string }) {
  const { site, setBeside } = useWorkbench();
  const menu = site.settings.menus.find((one) => one.id === id);
  if (!menu) return null;
  const layouts = site.settings.layouts.filter(({ menus }) => Object.values(menus).includes(menu.id));
  return (
    <>
      <p className="flex flex-wrap items-center gap-2 text-small">
        <span className={layouts.length === 0 ? 'text-attention' : 'text-quiet'}>
          {layouts.length === 0
            ? 'No layout shows it yet.'
            : `Shown by the layout${layouts.length === 1 ? '' : 's'} ${layouts.map(({ name }) => `‘${name}’`).join(', ')}.`}
        </span>
        <Button look="quiet" isTight onClick={() => setBeside({ kind: 'layouts', id: layouts[0]?.id ?? null })}>
          Set where it shows
        </Button>
      </p>
      <MenuSettings menu={menu} />
    </>
  );
}
