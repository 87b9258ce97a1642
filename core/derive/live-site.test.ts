import fc from 'fast-check';
import { expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { planRelease, waitingPages } from '../changes/release-plan.ts';
import { checkSite } from '../model/check-site.ts';
import { IDS, anySite, anyStep, plain, siteAfterSteps } from '../testing/random-site.ts';
import { derivedOf } from './derived.ts';
import { livePlaceOf } from './live-place.ts';
import { liveSiteOf, makeLiveSite } from './live-site.ts';

it('the live site that is made of the one before a release is the one that is made anew', () => {
  const round = fc.record({
    steps: fc.array(anyStep, { maxLength: 12 }),
    pages: fc.subarray([...IDS]),
    retire: fc.subarray([...IDS], { maxLength: 3 }),
  });
  holds(
    fc.property(anySite, fc.array(round, { minLength: 2, maxLength: 6 }), (start, rounds) => {
      let site = start;
      for (const { steps, pages, retire } of rounds) {
        derivedOf(liveSiteOf(site));
        site = siteAfterSteps(steps, site);
        const waiting = waitingPages(site);
        site = planRelease(site, {
          pages: pages.filter((page) => waiting.includes(page)),
          retire: retire.filter((page) => site.live.get(page)?.retired === false),
        }).after;
        const [live, anew] = [liveSiteOf(site), makeLiveSite(site)];
        expect(plain(live)).toEqual(plain(anew));
        const [of, ofAnew] = [derivedOf(live), derivedOf(anew)];
        expect(of.addresses).toEqual(ofAnew.addresses);
        for (const id of [...site.nodes.keys(), ...site.live.keys()]) {
          const row = ofAnew.outline.rowOf.get(id);
          expect(livePlaceOf(site, id)).toEqual(
            row === undefined ? null : { address: ofAnew.addresses[row], isReachable: ofAnew.hiddenBy[row] === -1 },
          );
        }
        expect(of.outline.nodes.map(({ id }) => id)).toEqual(ofAnew.outline.nodes.map(({ id }) => id));
        expect(of.outline.nodes.map(({ id }) => of.outline.rowOf.get(id))).toEqual([...ofAnew.outline.nodes.keys()]);
        expect(checkSite(site)).toEqual([]);
      }
    }),
    { numRuns: 100 },
  );
});
