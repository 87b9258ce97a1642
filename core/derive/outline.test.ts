import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { applyOperation } from '../operations/apply.ts';
import { toPageId } from '../model/ids.ts';
import { anySite, anyStep, drawEdit, siteAfter } from '../testing/random-site.ts';
import { derive, derivedOf } from './derived.ts';
import { type Outline, makeOutline, outlineOf } from './outline.ts';
import { statesAnew, statesOf } from './states.ts';

const plainOutline = (outline: Outline) => ({
  ...outline,
  parent: [...outline.parent],
  depth: [...outline.depth],
  end: [...outline.end],
  isPage: [...outline.isPage],
  inMenus: [...outline.inMenus],
  hidden: [...outline.hidden],
  rowOf: [outline.rowOf.size, ...outline.nodes.map(({ id }) => outline.rowOf.get(id))],
});

describe('the outline', () => {
  it('that is made from the one before is the one that is made anew, whatever was done', () => {
    holds(
      fc.property(
        anySite,
        fc.array(fc.tuple(anyStep, fc.boolean()), { maxLength: 25, size: 'max' }),
        (start, steps) => {
          let site = start;
          outlineOf(site);
          for (const [next, isLookedAt] of steps) {
            const outcome = applyOperation(site, drawEdit(site, next));
            if (!outcome.ok) continue;
            site = outcome.site;
            // Several edits may lie between two looks.
            if (!isLookedAt) continue;
            expect(plainOutline(outlineOf(site))).toEqual(plainOutline(makeOutline(site)));
            expect(statesOf(site)).toEqual(statesAnew(site, makeOutline(site)));
            const { addresses, hiddenBy } = derivedOf(site);
            const anew = derive(site, makeOutline(site));
            expect([addresses, hiddenBy]).toEqual([anew.addresses, anew.hiddenBy]);
          }
        },
      ),
      { numRuns: 100 },
    );
  });

  it('has a branch that was taken out and put back where it stands, with its address', () => {
    const [courses, oars, news] = ['courses', 'oars', 'news'].map(toPageId);
    const start = siteAfter([
      { name: 'page.add', page: toPageId('home'), place: { parent: null }, title: { en: 'Home' } },
      { name: 'page.add', page: courses!, place: { parent: null }, title: { en: 'Courses' } },
      { name: 'page.add', page: oars!, place: { parent: courses! }, title: { en: 'Oars' } },
      { name: 'page.add', page: news!, place: { parent: null }, title: { en: 'News' } },
    ]);
    derivedOf(start);
    const out = siteAfter([{ name: 'page.remove', page: courses! }], start);
    outlineOf(out);
    const back = siteAfter(
      [
        { name: 'page.putBack', page: courses! },
        {
          name: 'page.add',
          page: toPageId('visit'),
          place: { parent: null, after: toPageId('home') },
          title: { en: 'Visit' },
        },
      ],
      out,
    );
    expect(plainOutline(outlineOf(back))).toEqual(plainOutline(makeOutline(back)));
    expect(derivedOf(back).addresses).toEqual(derive(back, makeOutline(back)).addresses);
  });

  it('is the same object while nothing of it has changed', () => {
    holds(
      fc.property(anySite, (site) => {
        expect(outlineOf({ ...site, settings: { ...site.settings, name: 'Another name' } })).toBe(outlineOf(site));
      }),
      { numRuns: 30 },
    );
  });
});
