import { describe, expect, it } from 'vitest';
import { toPageId } from '../model/ids.ts';
import { type LayoutId, MAX_LAYOUTS, STANDARD_LAYOUT } from '../model/layout.ts';
import { MAIN_MENU, type MenuId } from '../model/menu.ts';
import type { Site } from '../model/site.ts';
import { siteAfter } from '../testing/random-site.ts';
import { applyOperation, wordsOf } from './apply.ts';
import type { Operation } from './operation.ts';

const [handbook, bare] = ['handbook', 'bare'] as LayoutId[] as [LayoutId, LayoutId];
const page = toPageId('rota');
const add = (layout: LayoutId, title: string, more: object = {}): Operation => ({
  name: 'layout.add',
  layout,
  title,
  ...more,
});
const site = siteAfter([
  { name: 'page.add', page, place: { parent: null }, title: { en: 'Rota' } },
  add(handbook, 'Handbook', { fields: { menus: { ...STANDARD_LAYOUT.menus, side: MAIN_MENU.id } } }),
]);
const refusal = (operation: Operation, of: Site = site) => {
  const outcome = applyOperation(of, operation);
  return outcome.ok ? 'made' : outcome.code;
};
const names = ({ settings }: Site) => settings.layouts.map(({ name }) => name);
const one = ({ settings }: Site, layout: LayoutId) => settings.layouts.find(({ id }) => id === layout)!;
const [first] = site.settings.layouts;

describe('a layout that is added', () => {
  it('is as the first one in all that is not said, and stands where it is put', () => {
    const { id, name, menus, ...rest } = one(site, handbook);
    expect([id, name, menus.side]).toEqual([handbook, 'Handbook', MAIN_MENU.id]);
    expect(first).toMatchObject(rest);
    expect(names(siteAfter([add(bare, ' Bare ', { after: null })], site))).toEqual(['Bare', first!.name, 'Handbook']);
    expect(names(siteAfter([add(bare, 'Bare', { after: first!.id })], site))).toEqual([
      first!.name,
      'Bare',
      'Handbook',
    ]);
  });

  it('has a name and an id of its own, menus that are there, and is one of so many at most', () => {
    expect(refusal(add(bare, ' '))).toBe('layout-unnamed');
    expect(refusal(add(handbook, 'Again'))).toBe('layout-exists');
    const lost = { ...STANDARD_LAYOUT.menus, side: 'nowhere' as MenuId };
    expect(refusal(add(bare, 'Bare', { fields: { menus: lost } }))).toBe('menu-unknown');
    const full = siteAfter(
      Array.from({ length: MAX_LAYOUTS - 2 }, (_, n) => add(`layout${n}` as LayoutId, `Layout ${n}`)),
      site,
    );
    expect(refusal(add(bare, 'Bare'), full)).toBe('layout-too-many');
  });
});

describe('a layout that is changed', () => {
  const set = (fields: object): Operation => ({ name: 'layout.set', layout: handbook, fields }) as Operation;

  it('keeps what is not named, and is back by undoing', () => {
    const outcome = applyOperation(site, set({ title: 'Staff pages' }));
    if (!outcome.ok) throw new Error(outcome.code);
    expect(one(outcome.site, handbook)).toEqual({ ...one(site, handbook), name: 'Staff pages' });
    expect(siteAfter([...outcome.inverse], outcome.site).settings.layouts).toEqual(site.settings.layouts);
  });

  it('is the same site where nothing differs', () => {
    const outcome = applyOperation(site, set({ menus: { ...one(site, handbook).menus } }));
    expect(outcome.ok && outcome.site).toBe(site);
  });

  it('is told in words', () => {
    const bareMenus = set({ menus: STANDARD_LAYOUT.menus });
    expect(wordsOf(bareMenus, site)).toBe('changed the layout ‘Handbook’');
    expect(wordsOf(set({ title: 'Staff' }), site)).toBe('renamed the layout ‘Handbook’ to ‘Staff’');
    expect(refusal({ name: 'layout.set', layout: bare, fields: { title: 'x' } })).toBe('layout-unknown');
  });
});

describe('a layout that is removed', () => {
  const remove = (layout: LayoutId): Operation => ({ name: 'layout.remove', layout });
  const frame = (layout: LayoutId | null): Operation => ({ name: 'page.set', page, fields: { frame: { layout } } });

  it('comes back at its place, as it was', () => {
    const outcome = applyOperation(siteAfter([add(bare, 'Bare')], site), remove(handbook));
    if (!outcome.ok) throw new Error(outcome.code);
    expect(names(outcome.site)).toEqual([first!.name, 'Bare']);
    const back = siteAfter([...outcome.inverse], outcome.site);
    expect(names(back)).toEqual([first!.name, 'Handbook', 'Bare']);
    expect(one(back, handbook)).toEqual(one(site, handbook));
  });

  it('is not while a page names it, drafted or live, nor where it is the last one', () => {
    expect(refusal(remove(handbook), siteAfter([frame(handbook)], site))).toBe('layout-used');
    const live = siteAfter([frame(handbook), { name: 'release.make', pages: [page], retire: [] }, frame(null)], site);
    expect(refusal(remove(handbook), live)).toBe('layout-used');
    expect(refusal(remove(first!.id), siteAfter([remove(handbook)], site))).toBe('layout-last');
    expect(refusal(remove(bare))).toBe('layout-unknown');
  });
});
