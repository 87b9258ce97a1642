import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { applyOperation } from '../operations/apply.ts';
import { anySite, anyStep, drawEdit } from '../testing/random-site.ts';
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

  it('is the same object while nothing of it has changed', () => {
    holds(
      fc.property(anySite, (site) => {
        expect(outlineOf({ ...site, settings: { ...site.settings, name: 'Another name' } })).toBe(outlineOf(site));
      }),
      { numRuns: 30 },
    );
  });
});
