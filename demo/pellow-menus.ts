import type { PageId } from '#core/model/ids.ts';
import { STANDARD_LAYOUT } from '#core/model/layout.ts';
import { type ArrangedEntry, MAIN_MENU, entryIdSchema, entryOf, newMenu, toMenuId } from '#core/model/menu.ts';
import type { Site } from '#core/model/site.ts';
import { settledNow } from '#core/derive/menu-merge.ts';
import type { Operation } from '#core/operations/operation.ts';

const SIDE = toMenuId('side');
const FOOTER = toMenuId('footer');

/**
 * The school's menus: the main one follows the tree, one beside the text shows the section, and the footer was arranged by
 * hand when the site went live; what has changed in the tree since waits there to be settled.
 */
export function pellowMenus(idOf: (title: string) => PageId, site: Site): Operation[] {
  const page = (title: string, below: ArrangedEntry[] = [], label = ''): ArrangedEntry => ({
    id: entryOf(idOf(title)),
    label: label === '' ? {} : { en: label },
    target: { page: idOf(title) },
    only: null,
    below,
  });
  const words = (id: string, text: string, below: ArrangedEntry[]): ArrangedEntry => ({
    id: entryIdSchema.parse(id),
    label: { en: text },
    target: null,
    only: null,
    below,
  });
  const entries = [
    page(
      'Courses',
      ['Long courses', 'Short courses', 'Evening classes'].map((title) => page(title)),
    ),
    words('coming', 'Coming here', [
      page('How to find us'),
      page('Access for everyone', [], 'Getting about'),
      page('Open Saturdays'),
    ]),
    words('quay', 'On the quay', [
      page('Shop', [], 'Chandlery'),
      page('News'),
      {
        id: entryIdSchema.parse('tides'),
        label: { en: 'Tide tables' },
        target: { url: 'https://tides.example/pellow-quay' },
        only: null,
        below: [],
      },
    ]),
  ];
  const asFollowing = newMenu(FOOTER, 'Footer');
  return [
    { name: 'menu.add', menu: SIDE, title: 'In this section', fields: { root: 'section', withRoot: true } },
    {
      name: 'menu.add',
      menu: FOOTER,
      title: asFollowing.name,
      fields: { isByHand: true, arranged: { entries, settled: settledNow(site, asFollowing) } },
    },
    {
      name: 'layout.set',
      layout: STANDARD_LAYOUT.id,
      fields: { menus: { utility: null, header: MAIN_MENU.id, side: SIDE, footer: FOOTER } },
    },
  ];
}
