import type { PageId } from '#core/model/ids.ts';
import { STANDARD_LAYOUT, layoutIdSchema } from '#core/model/layout.ts';
import { type ArrangedEntry, MAIN_MENU, entryIdSchema, entryOf, newMenu, toMenuId } from '#core/model/menu.ts';
import type { Site } from '#core/model/site.ts';
import { factIdSchema } from '#core/model/fact.ts';
import { PLAIN_TRAIL } from '#core/model/trail-setting.ts';
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
  const fact = (id: string, text: string): Operation => ({
    name: 'fact.set',
    fact: factIdSchema.parse(id),
    fields: { text },
  });
  const bare = layoutIdSchema.parse('bare');
  return [
    fact('strapline', 'Wooden boats, built by whoever wants to learn'),
    fact('address', 'Cooper’s Hard, Pellow Quay'),
    fact('telephone', '01632 960 411'),
    fact('mail', 'office@pellow-quay.example'),
    { name: 'menu.add', menu: SIDE, title: 'Section', fields: { root: 'section', withRoot: true } },
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
    {
      name: 'layout.add',
      layout: bare,
      title: 'Without header and footer',
      fields: { header: 'none', hasFooter: false, menus: { utility: null, header: null, side: null, footer: null } },
    },
    {
      name: 'layout.add',
      layout: layoutIdSchema.parse('handbook'),
      title: 'Handbook',
      fields: {
        header: 'slim',
        hasTurns: true,
        menus: { utility: null, header: MAIN_MENU.id, side: SIDE, footer: null },
        trail: { ...PLAIN_TRAIL, leadIn: { en: 'You are here:' }, withHome: false },
      },
    },
    { name: 'page.set', page: idOf('Useful links'), fields: { frame: { layout: bare } } },
    { name: 'page.set', page: idOf('Staff handbook'), fields: { frame: { layout: layoutIdSchema.parse('handbook') } } },
    {
      name: 'page.set',
      page: idOf('Boats built'),
      fields: { frame: { listing: { look: 'cards', levels: 1, order: 'tree' } } },
    },
  ];
}
