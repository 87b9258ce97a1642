import { MENU_ANSWERS } from '#core/derive/derived.ts';
import type { FilterField } from '#core/derive/filters.ts';
import { textIn } from '#core/model/texts.ts';
import { MENU_WORDS } from '../../tree/words.ts';

/** What the Menus lens adds to the filters. */
export const MENUS_FILTERS: readonly FilterField[] = [
  {
    key: 'main-menu',
    name: 'Main menu',
    kind: 'one-of',
    values: MENU_ANSWERS.map((value) => ({ value, words: value === 'in' ? 'In it' : MENU_WORDS[value] })),
    matches: ({ derived }, row, value) => derived.menu[row] === value,
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
