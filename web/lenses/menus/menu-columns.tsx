import { labelOf } from '#core/derive/menu.ts';
import { type MenuAnswer, menuTableOf } from '#core/derive/menu-table.ts';
import { type Menu, entryOf } from '#core/model/menu.ts';
import type { Site } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { onEach, putInMenu, takeOut } from '#core/arrange/arrange-entries.ts';
import type { Edit } from '../../api/site-store.ts';
import { type CellChoice, ChoiceCell } from '../../tree/cells.tsx';
import { type Column, hidden, inMenus } from '../../tree/columns.tsx';
import { MENU_WORDS, OWN_PLACE_WORDS, menuName } from '../../tree/words.ts';

const known = new WeakMap<Site['settings'], readonly Column[]>();

/** The columns of the Menus lens: one for each menu of the site, with the number of the page's entry or why it has none. */
export function menuColumns(site: Site): readonly Column[] {
  let columns = known.get(site.settings);
  if (!columns) {
    const { menus } = site.settings;
    // Where there is a menu it says more.
    const first = menus.length > 0 ? { ...inMenus, isMinor: true } : inMenus;
    columns = [first, ...menus.map(menuColumn), label, hidden];
    known.set(site.settings, columns);
  }
  return columns;
}

const label: Column = {
  key: 'label',
  edits: 'menus',
  name: 'Menu label',
  width: 130,
  grows: true,
  isMinor: true,
  values: ({ site, derived }, row) => {
    const node = derived.outline.nodes[row]!;
    return [textIn(node.label, site.settings.language) === '' ? null : labelOf(site, node)];
  },
  cell: ([words]) => (
    <span className={`truncate ${words === null ? 'text-quiet' : 'font-medium'}`}>{words ?? 'as the title'}</span>
  ),
};

const menuColumn = (menu: Menu, index: number): Column => ({
  key: `menu-${menu.id}`,
  edits: 'menus',
  name: menuName(menu),
  width: 140,
  isMinor: index > 0,
  values: ({ site, derived }, row) => {
    const table = menuTableOf(site, menu);
    const { id } = derived.outline.nodes[row]!;
    const exception = menu.isByHand ? undefined : menu.exceptions.find(({ page }) => page === id);
    return [
      table.answerAt(row),
      table.numbers.get(entryOf(id)) ?? null,
      exception?.isLeftOut === true,
      exception?.pin ?? null,
    ];
  },
  cell: ([answer, number, isLeftOut, pin], context) => (
    <ChoiceCell
      field={menuName(menu)}
      words={number === null ? MENU_WORDS[answer as Exclude<MenuAnswer, 'in'>] : String(number)}
      look={
        number !== null
          ? 'font-mono font-medium text-accent'
          : answer === 'leads nowhere' || answer === 'proposed'
            ? 'text-attention'
            : 'text-quiet'
      }
      label={`The ${menuName(menu)}: ${context.title}`}
      why={() =>
        menu.isByHand
          ? 'Arranged by hand. This changes the entry; the page stays where it is.'
          : 'It follows the tree. This is an exception of this menu; the page stays where it is.'
      }
      context={context}
      choices={
        menu.isByHand
          ? choicesByHand(menu, number !== null, context.latest)
          : choicesBesideTree(menu, isLeftOut === true, pin)
      }
    />
  ),
});

/** What can be chosen for a page in a menu that follows the tree. */
function choicesBesideTree({ id, order }: Menu, isLeftOut: boolean, pin: unknown): CellChoice[] {
  const set = (words: string, isChosen: boolean, fields: object): CellChoice => ({
    words,
    isChosen,
    editsFor: (pages) => pages.map((page) => ({ name: 'entry.set', menu: id, entry: entryOf(page), fields })),
  });
  return [
    set(OWN_PLACE_WORDS[order], !isLeftOut && pin === null, { isLeftOut: false, pin: null }),
    set('Leave it out here', isLeftOut, { isLeftOut: true }),
    set('Before the others', !isLeftOut && pin === 'first', { isLeftOut: false, pin: 'first' }),
    set('After the others', !isLeftOut && pin === 'last', { isLeftOut: false, pin: 'last' }),
  ];
}

/** What can be chosen for a page in a menu that is arranged by hand. */
function choicesByHand(menu: Menu, isIn: boolean, latest: () => { readonly site: Site }): CellChoice[] {
  return [
    {
      words: 'In the menu',
      isChosen: isIn,
      editsFor: (pages) => onEach(latest().site, menu.id, pages, putInMenu) as Edit[],
    },
    {
      words: 'Not in the menu',
      isChosen: !isIn,
      editsFor: (pages) =>
        onEach(latest().site, menu.id, pages, (site, now, page) => takeOut(site, now, entryOf(page))) as Edit[],
    },
  ];
}
