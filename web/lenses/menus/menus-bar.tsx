import { Info, ListTree, PanelsTopLeft } from 'lucide-react';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import type { BarAction } from '../../workbench/bar-action.ts';

export function MenusSays() {
  return <p className="text-quiet">In the tree you move pages. Move menu entries in the side sheet.</p>;
}

/** The menus of the site, and what stands around its pages. */
export function useMenusActions(): readonly BarAction[] {
  const { site, setDialog } = useWorkbench();
  const { menus, layouts } = site.settings;
  return [
    {
      label: 'Menus',
      count: menus.length,
      words: 'Menus…',
      also: ['navigation', 'footer menu', 'new menu'],
      Sign: ListTree,
      run: () => setDialog('menus'),
    },
    {
      label: 'Layouts',
      count: layouts.length,
      words: 'Layouts…',
      also: ['header', 'footer', 'frame', 'template', 'sidebar'],
      Sign: PanelsTopLeft,
      run: () => setDialog('layouts'),
    },
    {
      label: 'Facts',
      words: 'Facts of the site…',
      also: ['telephone', 'mail address', 'opening hours', 'strapline', 'logo'],
      Sign: Info,
      run: () => setDialog('facts'),
    },
  ];
}
