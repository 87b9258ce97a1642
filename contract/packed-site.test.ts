import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '#core/testing/holds.ts';
import { planRelease, waitingPages } from '#core/changes/release-plan.ts';
import { IDS, anySite, anyStep, plain, siteAfterSteps } from '#core/testing/random-site.ts';
import { toSiteKey } from '#core/model/ids.ts';
import { nodeOf } from '#core/model/node.ts';
import { makeSite, newSettings } from '#core/model/site.ts';
import { packSite, packedSiteSchema, unpackSite } from './packed-site.ts';
import { readTree, sendTree, sentTreeSchema } from './sent-tree.ts';

describe('a packed site', () => {
  it('gives back the same site, through JSON and its schema', () => {
    holds(
      fc.property(anySite, fc.subarray([...IDS]), fc.array(anyStep, { maxLength: 15 }), (start, pages, steps) => {
        const there = pages.filter((id) => waitingPages(start).includes(id));
        const live = planRelease(start, { pages: there, retire: [] }).after;
        const down = pages.slice(0, 2).filter((id) => live.live.get(id)?.retired === false);
        const leadsTo = Object.fromEntries(
          down.map((id, at) => [id, at === 0 ? ('gone' as const) : { page: IDS[0]! }]),
        );
        const site = siteAfterSteps(steps, planRelease(live, { pages: [], retire: down, leadsTo }).after);
        const carried: unknown = JSON.parse(JSON.stringify(packSite(site, 7)));
        expect(plain(unpackSite(packedSiteSchema.parse(carried)))).toEqual(plain(site));
        const sent: unknown = JSON.parse(JSON.stringify(sendTree(site, 7)));
        expect(plain(readTree(sentTreeSchema.parse(sent)))).toEqual(plain(site));
      }),
      { numRuns: 100 },
    );
  });

  it('brings the slugs that only transliteration gives, and leaves out those that plain letters say', () => {
    const [plainly, not] = ['Our boats', 'Über uns'].map((title, at) =>
      nodeOf({ id: IDS[at]!, parent: null, order: `a${at}` }, { title: { en: title } }),
    );
    const site = makeSite(toSiteKey('quay'), newSettings('Quay', 'en'), [
      { ...plainly!, slug: { en: { text: 'our-boats', own: false } } },
      { ...not!, slug: { en: { text: 'uber-uns', own: false } } },
    ]);
    expect(Object.values(packSite(site, 1).nodes.slug)).toEqual([{ en: { text: 'uber-uns', own: false } }]);
  });

  it('is not read by the browser where a column lacks a row, and keeps titles that look like several', () => {
    const settings = newSettings('Quay', 'en');
    const nodes = ['', 'Two\nlines', 'Plain'].map((title, at) =>
      nodeOf({ id: IDS[at]!, parent: null, order: `a${at}` }, { title: { en: title } }),
    );
    const sent = sendTree(makeSite(toSiteKey('quay'), settings, nodes), 1);
    expect([...readTree(sent).nodes.values()].map(({ title }) => title)).toEqual(nodes.map(({ title }) => title));
    const short = { ...sent, nodes: { ...sent.nodes, title: 'Plain' } };
    expect(() => readTree(short)).toThrow(/column ‘title’/);
  });
});
