import { Info, ListTree, Palette, PanelsTopLeft } from 'lucide-react';
import type { SettingsKey } from '../../settings/settings-keys.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import type { BarAction } from '../../workbench/bar-action.ts';

export function MenusSays() {
  return <p className="text-quiet">In the tree you move pages. Move menu entries in the side sheet.</p>;
}

/** The menus of the site, and what stands around its pages. */
export function useMenusActions(): readonly BarAction[] {
  const { site, setBeside } = useWorkbench();
  const open = (kind: SettingsKey) => () => setBeside({ kind, id: null });
  const { menus, layouts } = site.settings;
  return [
    {
      label: 'Menus',
      count: menus.length,
      words: 'Menus…',
      also: ['navigation', 'footer menu', 'new menu'],
      Sign: ListTree,
      run: open('menus'),
    },
    {
      label: 'Layouts',
      count: layouts.length,
      words: 'Layouts…',
      also: ['header', 'footer', 'frame', 'template', 'sidebar'],
      Sign: PanelsTopLeft,
      run: open('layouts'),
    },
    {
      label: 'Look',
      words: 'The look of the site…',
      also: ['colours', 'fonts', 'type', 'style', 'design', 'appearance', 'contrast'],
      Sign: Palette,
      run: open('look'),
    },
    {
      label: 'Facts',
      words: 'Facts of the site…',
      also: ['telephone', 'mail address', 'opening hours', 'strapline', 'logo'],
      Sign: Info,
      run: open('facts'),
    },
  ];
}
