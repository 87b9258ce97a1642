import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { toPageId } from '../model/ids.ts';
import { branchOf, maybeNodeAt } from '../model/site.ts';
import type { Operation } from '../operations/operation.ts';
import { anyStep, anySite, siteAfter, siteAfterSteps } from '../testing/random-site.ts';
import { compareTrees } from './compare-trees.ts';

const id = toPageId;
const add = (page: string, parent: string | null = null): Operation => ({
  name: 'page.add',
  page: id(page),
  place: { parent: parent === null ? null : id(parent) },
  title: { en: page },
});
const THEN = siteAfter([add('a'), add('b'), add('c', 'b')]);
const since = (...operations: Operation[]) => compareTrees(THEN, siteAfter(operations, THEN));

describe('an earlier tree beside a later one', () => {
  it.each<[string, Operation[], [string, string][]]>([
    ['nothing was done', [], []],
    [
      'a page was renamed',
      [{ name: 'page.set', page: id('a'), fields: { title: { en: 'A' } } }],
      [['a', 'renamed since']],
    ],
    ['a page was hidden', [{ name: 'page.set', page: id('a'), fields: { hidden: 'page' } }], [['a', 'changed since']]],
    ['a page was moved', [{ name: 'page.move', page: id('c'), place: { parent: id('a') } }], [['c', 'moved since']]],
    [
      'a page was moved and renamed: the place counts more',
      [
        { name: 'page.move', page: id('c'), place: { parent: id('a') } },
        { name: 'page.set', page: id('c'), fields: { title: { en: 'C' } } },
      ],
      [['c', 'moved since']],
    ],
    [
      'a branch was removed',
      [{ name: 'page.remove', page: id('b') }],
      [
        ['b', 'gone since'],
        ['c', 'gone since'],
      ],
    ],
    [
      'a page was removed and put back',
      [
        { name: 'page.remove', page: id('b') },
        { name: 'page.putBack', page: id('b') },
      ],
      [],
    ],
  ])('marks what differs where %s', (_, operations, marks) => expect([...since(...operations).earlier]).toEqual(marks));

  it('names what is new, in the order of the later tree', () =>
    expect(since(add('z', 'a'), add('y')).added).toEqual(['z', 'y']));

  it('marks each node that is not the same there, and only these', () =>
    holds(
      fc.property(anySite, fc.array(anyStep, { maxLength: 12 }), (site, steps) => {
        const later = siteAfterSteps(steps, site);
        const { earlier, added } = compareTrees(site, later);
        for (const page of branchOf(site, null)) {
          expect(earlier.get(page) === 'gone since').toBe(maybeNodeAt(later, page) === undefined);
          if (maybeNodeAt(later, page) === maybeNodeAt(site, page)) expect(earlier.has(page)).toBe(false);
        }
        expect(added.every((page) => !maybeNodeAt(site, page) && maybeNodeAt(later, page))).toBe(true);
        const back = compareTrees(later, site);
        expect([...back.earlier].filter(([, mark]) => mark === 'gone since').map(([page]) => page)).toEqual(added);
      }),
      { numRuns: 100 },
    ));
});
