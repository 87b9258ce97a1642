import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { outlineOf } from '../derive/outline.ts';
import { toPageId } from '../model/ids.ts';
import { holds } from '../testing/holds.ts';
import { IDS, anySite, siteAfter } from '../testing/random-site.ts';
import { type SectionsOf, sectionsOf } from './sections.ts';
import { settledOf } from './settle.ts';

const ADDRESSES = ['/', '/a.html', '/news/1', '/news/2', '/shop/x/y', '/page.php?id=1', '/page.php?id=2'];
const oldPages = ADDRESSES.map((address) => ({ address, visits: null }));
const anyLines = fc.array(fc.record({ old: fc.constantFrom(...ADDRESSES), planned: fc.constantFrom(...IDS) }), {
  maxLength: 12,
});

describe('the sections of the carry-over', () => {
  it('have each page once, and come to what is settled as a whole', () =>
    holds(
      fc.property(anySite, anyLines, (site, lines) => {
        const outline = outlineOf(site);
        const settled = settledOf(site, oldPages);
        const of = (side: SectionsOf) => sectionsOf(site, outline, oldPages, lines, settled, side);
        const sum = (numbers: readonly number[]) => numbers.reduce((total, one) => total + one, 0);
        const [plan, old] = [of('plan'), of('old')];
        const planned = outline.nodes.filter(({ type }) => type === 'page').map(({ id }) => id);
        expect(plan.flatMap((one) => [...one.planned]).sort()).toEqual([...planned].sort());
        expect(old.flatMap((one) => [...one.old]).sort()).toEqual([...ADDRESSES].sort());
        expect(sum(plan.map((one) => one.settled))).toBe(planned.length - settled.withoutSource.length);
        expect(sum(old.map((one) => one.settled))).toBe(settled.settledOldPages);
      }),
    ));

  it('have the partners of their pages beside them', () =>
    holds(
      fc.property(anySite, anyLines, fc.constantFrom<SectionsOf>('plan', 'old'), (site, lines, of) => {
        const outline = outlineOf(site);
        const sections = sectionsOf(site, outline, oldPages, lines, settledOf(site, oldPages), of);
        for (const { old, planned } of lines) {
          const row = outline.rowOf.get(planned);
          if (row === undefined || outline.nodes[row]!.type !== 'page') continue;
          const its = sections.find((one) => (of === 'plan' ? one.planned.has(planned) : one.old.has(old)))!;
          expect([its.planned.has(planned), its.old.has(old)]).toEqual([true, true]);
        }
      }),
    ));

  it('show what has no partner where its neighbours have theirs', () => {
    const id = toPageId;
    const site = siteAfter([
      { name: 'page.add', page: id('news'), place: { parent: null }, title: { en: 'News' } },
      { name: 'page.add', page: id('one'), place: { parent: id('news') }, title: { en: 'One' } },
      { name: 'page.add', page: id('two'), place: { parent: id('news') }, title: { en: 'Two' } },
      { name: 'page.add', page: id('shop'), place: { parent: null }, title: { en: 'Shop' } },
    ]);
    const lines = [{ old: '/news/1', planned: id('one') }];
    const of = (side: SectionsOf) =>
      sectionsOf(site, outlineOf(site), oldPages, lines, settledOf(site, oldPages), side);
    const [news, shop] = of('plan');
    expect([news!.name, [...news!.old].sort()]).toEqual(['News', ['/news/1', '/news/2']]);
    expect([shop!.name, [...shop!.old]]).toEqual(['Shop', []]);
    const old = of('old');
    expect(old.map(({ name }) => name)).toEqual(['In no folder', '/news/', '/page.php', '/shop/']);
    expect([...old[1]!.planned].sort()).toEqual(['news', 'one', 'two']);
  });

  it('are the children of the one page that all stands below', () => {
    const id = toPageId;
    const site = siteAfter([
      { name: 'page.add', page: id('top'), place: { parent: null }, title: { en: 'Top' } },
      { name: 'page.add', page: id('a'), place: { parent: id('top') }, title: { en: 'A' } },
      { name: 'page.add', page: id('deep'), place: { parent: id('a') }, title: { en: 'Deep' } },
      { name: 'page.add', page: id('b'), place: { parent: id('top') }, title: { en: 'B' } },
    ]);
    const sections = sectionsOf(site, outlineOf(site), [], [], settledOf(site, []), 'plan');
    expect(sections.map(({ name, planned }) => [name, [...planned]])).toEqual([
      ['Top', ['top']],
      ['A', ['a', 'deep']],
      ['B', ['b']],
    ]);
  });
});
