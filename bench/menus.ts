import { arrangeByHand } from '#core/arrange/switch-menu.ts';
import { derivedForEach, visitorOf } from '#core/derive/derived-for-each.ts';
import { derivedOf } from '#core/derive/derived.ts';
import { arrangedNow } from '#core/derive/menu-merge.ts';
import { menuTable } from '#core/derive/menu-table.ts';
import { type AudienceId, EVERYONE } from '#core/model/audience.ts';
import { type Menu, newMenu, toMenuId } from '#core/model/menu.ts';
import type { Site } from '#core/model/site.ts';
import { applyOperation } from '#core/operations/apply.ts';
import type { Operation } from '#core/operations/operation.ts';
import { generateSite } from './generate-site.ts';
import { type Result, ms, timeByTurns } from './measure.ts';

const SIZE = 10_000;
const AUDIENCES = 16;
const AT = Date.parse('2026-11-25T00:00:00Z');

/** Eight menus for sixteen audiences after a page was renamed: what the bare pass over flat arrays marks, made into entries. */
export function benchMenus(): Result[] {
  const audiences = Array.from({ length: AUDIENCES - 1 }, (_, n) => `a${n}` as AudienceId);
  const plain = generateSite(SIZE);
  const ids = derivedOf(plain).outline.nodes.map(({ id }) => id);
  const operations: Operation[] = [
    ...audiences.map((audience): Operation => ({ name: 'audience.add', audience, title: `Audience ${audience}` })),
    ...ids.flatMap((page, row): Operation[] =>
      row % 20 === 0
        ? [{ name: 'page.set', page, fields: { access: { only: [audiences[row % audiences.length]!] } } }]
        : [],
    ),
  ];
  const ruled = operations.reduce(applied, plain);
  const kinds: readonly Partial<Menu>[] = [
    { levels: 2 },
    { levels: 3 },
    { levels: 1 },
    { levels: 2, root: 'section', withRoot: true },
    { levels: 3, root: 'section' },
    { levels: 2, root: { page: ids[0]! }, order: 'alphabet' },
    { levels: 2, order: 'alphabet' },
  ];
  const byHand = newMenu(toMenuId('hand'), 'By hand');
  const menus = kinds.map((kind, n) => ({ ...newMenu(toMenuId(`m${n}`), `Menu ${n}`), ...kind }));
  const before: Site = { ...ruled, settings: { ...ruled.settings, menus: [...menus, byHand] } };
  const site = applied(before, arrangeByHand(before, byHand));
  const visitors = [EVERYONE, ...audiences].map((id) => visitorOf(site, id));
  let turn = 0;
  const afterEdit = () => applied(site, rename(ids[(turn++ * 37) % ids.length]!, turn));
  const all = () => {
    const now = afterEdit();
    for (const [bit, derived] of derivedForEach(now, visitors, AT).entries())
      for (const menu of now.settings.menus) {
        const table = menuTable(now, menu, derived, visitors[bit]!);
        for (const section of table.sections) table.entries(section);
      }
    return now;
  };
  const { outline, hiddenBy } = derivedOf(site);
  const { parent, depth, inMenus } = outline;
  const bare = () => {
    const marks = new Uint8Array(SIZE);
    let entries = 0;
    for (let menu = 0; menu < 8; menu++)
      for (let bit = 0; bit < AUDIENCES; bit++)
        for (let row = 0; row < SIZE; row++) {
          const above = parent[row]!;
          const isIn =
            hiddenBy[row] === -1 && inMenus[row] === 1 && depth[row]! < 3 && (above === -1 || marks[above] === 1);
          marks[row] = isIn ? 1 : 0;
          if (isIn) entries++;
        }
    return entries;
  };
  const [ours, limit, merge] = timeByTurns(15, [
    all,
    bare,
    () => {
      const now = afterEdit();
      return arrangedNow(now, now.settings.menus.at(-1)!);
    },
  ]) as [number, number, number];
  return [
    {
      what: `8 menus for ${AUDIENCES} audiences after an edit, ${SIZE.toLocaleString('en')} pages`,
      ours: ms(ours),
      limit: `${ms(limit)}, a bare pass for each that only marks`,
      ratio: ours / limit,
      aim: '≤ 30 ms',
      isMet: ours <= 30,
    },
    {
      what: `A menu arranged by hand held against the tree, ${site.settings.menus.at(-1)!.arranged!.settled.length} pages in its range`,
      ours: ms(merge),
      limit: `${ms(limit)}, as above`,
      ratio: merge / limit,
      aim: 'none set',
      isMet: true,
    },
  ];
}

function applied(site: Site, operation: Operation): Site {
  const outcome = applyOperation(site, operation);
  if (!outcome.ok) throw new Error(`The site of the bench breaks a rule: ${outcome.code}`);
  return outcome.site;
}

const rename = (page: Site['settings']['home'] & string, turn: number): Operation => ({
  name: 'page.set',
  page,
  fields: { title: { en: `Renamed ${turn}` } },
});
