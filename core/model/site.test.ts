import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { anySite, anyStep, emptySite, plain, siteAfter, siteAfterSteps } from '../testing/random-site.ts';
import { checkSite } from './check-site.ts';
import { toPageId } from './ids.ts';
import { isOrderKey, orderKeyFor } from './place.ts';
import {
  type Site,
  ancestorsOf,
  branchOf,
  childrenOf,
  heightOf,
  homeOf,
  isWithin,
  makeSite,
  maybeNodeAt,
  nodeAt,
} from './site.ts';
import { withNodes } from './site-edit.ts';

const id = toPageId;
const add = (page: string, parent: string | null = null, more: object = {}) => ({
  name: 'page.add' as const,
  page: id(page),
  place: { parent: parent === null ? null : id(parent) },
  title: { en: page },
  ...more,
});

describe('a site', () => {
  it('made anew of its nodes is the same, with the same lists of children', () => {
    holds(
      fc.property(anySite, (site) => {
        const again = makeSite(
          site.key,
          site.settings,
          [...site.nodes.values()].reverse(),
          [...site.live.values()],
          site.liveSettings,
          site,
        );
        expect(plain(again)).toEqual(plain(site));
      }),
      { numRuns: 100 },
    );
  });

  it('is never changed in place: what was held before an edit stays what it was', () => {
    holds(
      fc.property(anySite, fc.array(anyStep, { maxLength: 10 }), (site, steps) => {
        const before = plain(site);
        siteAfterSteps(steps, site);
        expect(plain(site)).toEqual(before);
      }),
      { numRuns: 100 },
    );
  });

  it('gives every branch in tree order, and says of each node what stands above and below', () => {
    holds(
      fc.property(anySite, (site) => {
        const all = branchOf(site, null);
        expect(new Set(all).size).toBe(all.length);
        for (const one of all) {
          const branch = branchOf(site, one);
          const above = ancestorsOf(site, one).map((node) => node.id);
          expect(all.slice(all.indexOf(one), all.indexOf(one) + branch.length)).toEqual(branch);
          expect(all.filter((other) => isWithin(site, other, one))).toEqual(branch);
          expect(above.every((other) => isWithin(site, one, other))).toBe(true);
          expect(heightOf(site, one)).toBe(
            Math.max(...branch.map((other) => ancestorsOf(site, other).length)) - above.length,
          );
        }
      }),
      { numRuns: 100 },
    );
  });

  it('tells a page that is there from one that is not', () => {
    const site = siteAfter([add('a'), { name: 'page.remove', page: id('a') }]);
    expect(maybeNodeAt(site, id('a'))).toBeUndefined();
    expect(() => nodeAt(site, id('a'))).toThrow(
      /No node 'a' stands in the tree of site 'test-site'; look it up with maybeNodeAt/,
    );
  });
});

describe('the home page', () => {
  it('is the first page of the tree, headings and links apart, however deep it stands', () => {
    const site = siteAfter([add('h', null, { type: 'heading' }), add('a', 'h'), add('b')]);
    expect(homeOf(site)).toBe('a');
    expect(homeOf(emptySite())).toBeNull();
  });
  it('is the named one while that is a page of the tree', () => {
    const site = siteAfter([add('a'), add('b'), { name: 'site.set', fields: { home: id('b') } }]);
    expect(homeOf(site)).toBe('b');
    expect(homeOf(siteAfter([{ name: 'page.remove', page: id('b') }], site))).toBe('a');
    expect(homeOf(siteAfter([{ name: 'page.set', page: id('b'), fields: { type: 'heading' } }], site))).toBe('a');
  });
});

describe('a place among siblings', () => {
  it('has an order key between its neighbours, wherever it is', () => {
    holds(
      fc.property(anySite, fc.nat(20), (site, at) => {
        const siblings = childrenOf(site, null);
        const after = at % (siblings.length + 1) === 0 ? null : siblings[(at % (siblings.length + 1)) - 1]!;
        const key = orderKeyFor(site, { parent: null, after }, null);
        expect(isOrderKey(key)).toBe(true);
        const index = after === null ? 0 : siblings.indexOf(after) + 1;
        if (index > 0) expect(nodeAt(site, siblings[index - 1]!).order < key).toBe(true);
        if (index < siblings.length) expect(key < nodeAt(site, siblings[index]!).order).toBe(true);
      }),
      { numRuns: 100 },
    );
  });
  it('stays usable after a thousand insertions at one spot', () => {
    let site = siteAfter([add('first'), add('last')]);
    for (let n = 0; n < 1000; n++)
      site = siteAfter([add(`n${n}`, null, { place: { parent: null, after: id('first') } })], site);
    expect(childrenOf(site, null).slice(0, 3)).toEqual(['first', 'n999', 'n998']);
    expect(Math.max(...branchOf(site, null).map((one) => nodeAt(site, one).order.length))).toBeLessThan(200);
  });
});

describe('the check of a site', () => {
  const sound = siteAfter([add('a'), add('b', 'a'), add('c')]);
  const broken: [string, (site: Site) => Site, RegExp][] = [
    [
      'two equal addresses',
      (site) => withNodes(site, [{ ...nodeAt(site, id('c')), slug: { en: { text: 'b', own: false } } }]),
      /has the address of/,
    ],
    ['a circle', (site) => withNodes(site, [{ ...nodeAt(site, id('a')), parent: id('b') }]), /stands under itself/],
    [
      'a parent that is not there',
      (site) => withNodes(site, [{ ...nodeAt(site, id('c')), parent: id('x') }]),
      /parent is not there/,
    ],
    ['a page without a title', (site) => withNodes(site, [{ ...nodeAt(site, id('c')), title: {} }]), /has no title/],
    [
      'a reserved address',
      (site) => withNodes(site, [{ ...nodeAt(site, id('c')), slug: { en: { text: 'search', own: true } } }]),
      /reserved/,
    ],
    [
      'a link without a target',
      (site) => withNodes(site, [{ ...nodeAt(site, id('c')), type: 'link' }]),
      /has a target/,
    ],
    [
      'a broken list of children',
      (site) => ({ ...site, children: site.children.set(null, [id('c'), id('a')]) }),
      /out of order/,
    ],
  ];
  it('finds nothing wrong with a sound one', () => expect(checkSite(sound)).toEqual([]));
  it.each(broken)('finds %s', (_, breakIt, fault) => expect(checkSite(breakIt(sound)).join('\n')).toMatch(fault));
});
