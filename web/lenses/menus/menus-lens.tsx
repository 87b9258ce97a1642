import { later } from '../../ui/later.tsx';
import type { LensDefinition } from '../lens-definition.ts';
import { menuColumns } from './menu-columns.tsx';
import { MenusSays, useMenusActions } from './menus-bar.tsx';
import { MENUS_FILTERS } from './menus-filters.ts';
import { menusWaiting } from './menus-waiting.ts';

/** What stands in which menu. */
export const MENUS_LENS: LensDefinition = {
  name: 'Menus',
  edits: 'menus',
  columns: { key: 'menus', of: menuColumns },
  filters: MENUS_FILTERS,
  Says: MenusSays,
  useActions: useMenusActions,
  Panel: later(() => import('./menus-panel.tsx').then(({ MenusPanel }) => MenusPanel)),
  waiting: menusWaiting,
  dragNote: 'moves the page',
};
