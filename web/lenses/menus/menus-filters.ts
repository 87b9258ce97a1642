import { MENU_ANSWERS, menuTableOf } from '#core/derive/menu-table.ts';
import { entryOf } from '#core/model/menu.ts';
import type { FilterField } from '#core/derive/filters.ts';
import { textIn } from '#core/model/texts.ts';
import { MENU_WORDS } from '../../tree/words.ts';

/** What the Menus lens adds to the filters. */
export const MENUS_FILTERS: readonly FilterField[] = [
  {
    key: 'menu',
    name: 'In a menu',
    kind: 'one-of',
    values: MENU_ANSWERS.map((value) => ({ value, words: value === 'in' ? 'In at least one' : MENU_WORDS[value] })),
    matches: ({ site, derived }, row, value) => {
      const tables = site.settings.menus.map((menu) => menuTableOf(site, menu));
      const entry = entryOf(derived.outline.nodes[row]!.id);
      if (value === 'in') return tables.some(({ numbers }) => numbers.has(entry));
      return tables.some(({ answerAt }) => answerAt(row) === value);
    },
  },
  {
    key: 'label',
    name: 'Menu label',
    kind: 'one-of',
    values: [
      { value: 'own', words: 'Its own' },
      { value: 'title', words: 'As the title' },
    ],
    matches: ({ site, derived }, row, value) =>
      (textIn(derived.outline.nodes[row]!.label, site.settings.language) !== '') === (value === 'own'),
  },
];
