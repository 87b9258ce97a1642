import { generateNKeysBetween } from 'fractional-indexing';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import type { PageId } from '../model/ids.ts';
import { type SiteNode, nodeOf } from '../model/node.ts';
import { makeSite } from '../model/site.ts';
import { applyOperation } from '../operations/apply.ts';
import { anyStep, drawEdit, emptySite } from '../testing/random-site.ts';
import { derive, derivedOf } from './derived.ts';
import { foldedNamesOf } from './folded-titles.ts';
import { makeOutline, outlineOf } from './outline.ts';
import { statesAnew, statesOf } from './states.ts';

const SIZE = 100_000;
/** Below each page stand so many, as long as there are pages left. */
const BELOW = 12;

/** A site of 100,000 pages. */
function largeSite() {
  const orders = generateNKeysBetween(null, null, BELOW);
  const id = (place: number) => `n${place}` as PageId;
  const nodes = Array.from({ length: SIZE }, (_, place): SiteNode => {
    const parent = place < BELOW ? null : id(Math.floor(place / BELOW) - 1);
    const values = {
      title: { en: `Page ${place}` },
      slug: { en: { text: `page-${place}`, own: false } },
      inAddress: true,
    };
    return nodeOf({ id: id(place), parent, order: orders[place % BELOW]! }, values);
  });
  return makeSite(emptySite().key, emptySite().settings, nodes);
}

it('of 100,000 pages: what is made of what was known before is what is made anew, whatever was done', () => {
  const start = largeSite();
  expect(outlineOf(start).nodes.length).toBe(SIZE);
  foldedNamesOf(start).at(SIZE - 1);
  derivedOf(start);
  holds(
    fc.property(fc.array(anyStep, { minLength: 15, maxLength: 25, size: 'max' }), (steps) => {
      let site = start;
      for (const step of steps) {
        const outcome = applyOperation(site, drawEdit(site, step));
        if (!outcome.ok) continue;
        site = outcome.site;
        derivedOf(site);
        foldedNamesOf(site);
      }
      const [outline, anew] = [outlineOf(site), makeOutline(site)];
      // Columns of 100,000 rows are compared as texts: one by one that would take a minute.
      for (const name of [
        'parent',
        'depth',
        'end',
        'slugs',
        'isPage',
        'inMenus',
        'hidden',
        'aliases',
        'ruled',
      ] as const)
        expect(`${name} ${outline[name].join() === anew[name].join()}`).toBe(`${name} true`);
      expect(outline.nodes.every((node, row) => node === anew.nodes[row] && outline.rowOf.get(node.id) === row)).toBe(
        true,
      );
      const [derived, derivedAnew] = [derivedOf(site), derive(site, anew)];
      expect(derived.addresses.join() === derivedAnew.addresses.join()).toBe(true);
      expect(derived.hiddenBy.join() === derivedAnew.hiddenBy.join()).toBe(true);
      expect(statesOf(site).join() === statesAnew(site, anew).join()).toBe(true);
      const titles = foldedNamesOf(site);
      const fresh = foldedNamesOf({ ...site });
      for (let row = 0; row < outline.nodes.length; row += 97) expect(titles.at(row)).toBe(fresh.at(row));
    }),
    { numRuns: 2 },
  );
}, 120_000);
