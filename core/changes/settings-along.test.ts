import { describe, expect, it } from 'vitest';
import type { LabelId } from '../model/access.ts';
import type { AudienceId } from '../model/audience.ts';
import { type PageId, toPageId } from '../model/ids.ts';
import { type LayoutId, STANDARD_LAYOUT } from '../model/layout.ts';
import { type EntryId, MAIN_MENU, type MenuId } from '../model/menu.ts';
import type { SettingsPart } from '../model/settings-parts.ts';
import type { SharedId } from '../model/shared-section.ts';
import type { FormId } from '../model/site-form.ts';
import { nodeAt } from '../model/site.ts';
import type { Operation } from '../operations/operation.ts';
import { siteAfter } from '../testing/random-site.ts';
import { type TextNeeds, lackingFor, partsAlong } from './settings-along.ts';

const staff = 'staff' as AudienceId;
const shop = 'shop' as LabelId;
const handbook = 'handbook' as LayoutId;
const side = 'sideMenu' as MenuId;
const [home, page] = [toPageId('home'), toPageId('sawRoom')];
const add = (id: typeof home, title: string): Operation => ({
  name: 'page.add',
  page: id,
  place: { parent: null },
  title: { en: title },
});
const live = siteAfter([add(home, 'Home'), { name: 'release.make', pages: [home], retire: [] }, add(page, 'Saw room')]);
const rule = (access: object): Operation => ({ name: 'page.set', page, fields: { access } });
const audience: Operation = { name: 'audience.add', audience: staff, title: 'Staff' };
const layout: Operation = { name: 'layout.add', layout: handbook, title: 'Handbook' };
/** What goes along with a release of the new page, after these operations, where these parts were asked for. */
const along = (operations: Operation[], asked: SettingsPart[] = []) =>
  partsAlong(siteAfter(operations, live), new Set([page]), asked);

describe('what goes along of the settings with a page', () => {
  it('is nothing where the page names nothing that visitors lack', () => {
    expect(along([])).toEqual([]);
    expect(along([audience])).toEqual([]);
  });

  it('are audiences, labels and layouts that it names and visitors do not have yet', () => {
    expect(along([audience, rule({ only: [staff] })])).toEqual([{ part: 'audiences', of: { page } }]);
    expect(along([{ name: 'label.add', label: shop, title: 'Shop floor' }, rule({ labels: [shop] })])).toEqual([
      { part: 'labels', of: { page } },
    ]);
    expect(along([layout, { name: 'page.set', page, fields: { frame: { layout: handbook } } }])).toEqual([
      { part: 'layouts', of: { page } },
    ]);
  });

  it('are the fields in which it says something and that visitors do not have yet', () => {
    const kind = { name: 'label.add', label: shop, title: 'Shop floor', about: 'place' } as Operation;
    const withKind = siteAfter(
      [
        kind,
        rule({ labels: [shop] }),
        { name: 'release.make', pages: [page], retire: [], settings: ['labels'] } as Operation,
      ],
      live,
    );
    const field = { name: 'field.add', label: shop, field: 'benches', title: 'Benches' } as Operation;
    const says = { name: 'page.set', page, fields: { details: { benches: '16' } } } as Operation;
    const needed = (...operations: Operation[]) => partsAlong(siteAfter(operations, withKind), new Set([page]), []);
    expect(needed(field)).toEqual([]);
    expect(needed(field, says)).toEqual([{ part: 'labels', of: { page } }]);
  });

  it('is told once, and not where it was asked for', () => {
    expect(along([audience, rule({ only: [staff] })], ['audiences'])).toEqual([]);
  });

  it('is nothing with the first release, which brings all of them', () => {
    const never = siteAfter([audience, add(page, 'Saw room'), rule({ only: [staff] })]);
    expect(partsAlong(never, new Set([page]), [])).toEqual([]);
  });
});

describe('what goes along with what goes along', () => {
  it('are the audiences that a label names', () => {
    expect(
      along([
        audience,
        { name: 'label.add', label: shop, title: 'Shop floor', rule: { only: [staff] } },
        rule({ labels: [shop] }),
      ]),
    ).toEqual([
      { part: 'labels', of: { page } },
      { part: 'audiences', of: { part: 'labels' } },
    ]);
  });

  it('are the menus that a layout has in its slots, with the audiences that they name', () => {
    expect(
      along([
        audience,
        { name: 'menu.add', menu: side, title: 'Side' },
        {
          name: 'menu.set',
          menu: side,
          fields: {
            extras: [
              {
                id: 'rota0001' as EntryId,
                label: { en: 'Rota' },
                target: null,
                only: [staff],
                under: null,
                pin: 'last',
              },
            ],
          },
        } as Operation,
        layout,
        { name: 'layout.set', layout: handbook, fields: { menus: { ...STANDARD_LAYOUT.menus, side } } } as Operation,
        { name: 'page.set', page, fields: { frame: { layout: handbook } } },
      ]),
    ).toEqual([
      { part: 'layouts', of: { page } },
      { part: 'menus', of: { part: 'layouts' } },
      { part: 'audiences', of: { part: 'menus' } },
    ]);
  });

  it('are the forms and shared sections that its text shows', () => {
    const site = siteAfter(
      [
        { name: 'form.add', form: 'apply' as FormId, title: 'Apply' },
        { name: 'shared.add', shared: 'hours' as SharedId, title: 'Hours' },
      ],
      live,
    );
    const of = (needs: TextNeeds) => partsAlong(site, new Set([page]), [], needs);
    expect(of({ forms: [page], shared: [page] })).toEqual([
      { part: 'forms', of: { page } },
      { part: 'shared', of: { page } },
    ]);
    expect(of({ forms: ['elsewhere' as PageId] })).toEqual([]);
    // Nothing of them waits.
    expect(partsAlong(live, new Set([page]), [], { forms: [page] })).toEqual([]);
  });

  it('are the menus that name the page, when it goes live for the first time', () => {
    const named: Operation = {
      name: 'menu.set',
      menu: MAIN_MENU.id,
      fields: { exceptions: [{ page, label: { en: 'Saws' }, isLeftOut: false, pin: null, only: null }] },
    } as Operation;
    expect(along([named])).toEqual([{ part: 'menus', of: { page } }]);
    const again = siteAfter(
      [
        { name: 'release.make', pages: [page], retire: [] },
        named,
        { name: 'page.set', page, fields: { inMenus: false } },
      ],
      live,
    );
    expect(partsAlong(again, new Set([page]), [])).toEqual([]);
  });
});

describe('what the settings lack for a page', () => {
  it('is the first part that does not have what it names', () => {
    const site = siteAfter([audience, layout, rule({ only: [staff] })], live);
    const node = nodeAt(site, page);
    expect(lackingFor(node, site.settings)).toBeNull();
    expect(lackingFor(node, live.settings)).toBe('audiences');
    const framed = siteAfter([{ name: 'page.set', page, fields: { frame: { layout: handbook } } }], site);
    expect(lackingFor(nodeAt(framed, page), { ...site.settings, layouts: live.settings.layouts })).toBe('layouts');
    const labelled = siteAfter(
      [{ name: 'label.add', label: shop, title: 'Shop floor' }, rule({ only: null, labels: [shop] })],
      site,
    );
    expect(lackingFor(nodeAt(labelled, page), live.settings)).toBe('labels');
  });
});
