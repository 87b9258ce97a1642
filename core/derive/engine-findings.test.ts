import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { NOBODY_KNOWN } from './access.ts';
import { anySite } from '../testing/random-site.ts';
import { type SeenAddress, engineReport } from './engine-findings.ts';
import { visitorView } from './visitor-view.ts';

const AT = Date.parse('2026-11-25T00:00:00Z');

/** What a robot sees of a site that is served as intended. */
function seenRightly(site: Parameters<typeof engineReport>[0]): SeenAddress[] {
  const { derived, offered } = visitorView(site, NOBODY_KNOWN, AT, false);
  return derived.addresses.flatMap((address, row) =>
    address === null
      ? []
      : [
          {
            address,
            isAllowed: true,
            status: derived.hiddenBy[row] === -1 ? 200 : 404,
            saysNoIndex: offered[row] === 0,
            canonical: address,
            isInSitemap: offered[row] === 1,
            isLinked: derived.hiddenBy[row] === -1,
          },
        ],
  );
}
const change = (seen: SeenAddress[], at: number, fields: Partial<SeenAddress>) =>
  seen.map((one, index) => (index === at ? { ...one, ...fields } : one));

describe('what a search engine would index', () => {
  it('is what is intended where the site is served as intended', () =>
    holds(
      fc.property(anySite, (site) => {
        const seen = seenRightly(site);
        const { indexed, intended, findings } = engineReport(site, seen, AT);
        expect(findings).toEqual([]);
        expect(indexed).toBe(intended);
        expect(intended).toBe(seen.filter(({ isInSitemap }) => isInSitemap).length);
      }),
    ));

  it.each([
    [{ isAllowed: false }, 'missed', 'robots.txt'],
    [{ status: 500 }, 'missed', '500'],
    [{ status: 301 }, 'missed', 'leads on'],
    [{ saysNoIndex: true }, 'missed', 'asks not to be indexed'],
    [{ canonical: '/elsewhere' }, 'missed', '/elsewhere'],
    [{ isInSitemap: false }, 'not in the sitemap file', 'Only links'],
  ] as const)('differs where an intended page is seen with %o: %s', (fields, difference, because) =>
    holds(
      fc.property(anySite, fc.nat(), (site, pick) => {
        const seen = seenRightly(site);
        const offered = seen.flatMap((one, at) => (one.isInSitemap ? [at] : []));
        fc.pre(offered.length > 0);
        const at = offered[pick % offered.length]!;
        const { findings } = engineReport(site, change(seen, at, fields), AT);
        expect(findings).toMatchObject([{ address: seen[at]!.address, difference }]);
        expect(findings[0]!.because).toContain(because);
      }),
    ),
  );

  it.each([
    [{ status: 200, saysNoIndex: false }, 'uninvited'],
    [{ isInSitemap: true }, 'in the sitemap by mistake'],
    [{ status: 404, isLinked: true }, 'broken link'],
  ] as const)('differs where a page that is not offered is seen with %o: %s', (fields, difference) =>
    holds(
      fc.property(anySite, fc.nat(), (site, pick) => {
        const seen = seenRightly(site);
        const others = seen.flatMap((one, at) => (one.isInSitemap ? [] : [at]));
        fc.pre(others.length > 0);
        const at = others[pick % others.length]!;
        expect(engineReport(site, change(seen, at, fields), AT).findings).toMatchObject([
          { address: seen[at]!.address, difference },
        ]);
      }),
    ),
  );

  it('misses a page that nothing leads to', () =>
    holds(
      fc.property(anySite, (site) => {
        const seen = seenRightly(site);
        const { findings } = engineReport(site, [], AT);
        expect(findings.map(({ difference }) => difference)).toEqual(
          seen.filter(({ isInSitemap }) => isInSitemap).map(() => 'missed'),
        );
      }),
    ));
});
