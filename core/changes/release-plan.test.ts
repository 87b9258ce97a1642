import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isPractice } from '../model/practice.ts';
import { holds } from '../testing/holds.ts';
import { derivedOf } from '../derive/derived.ts';
import { liveSiteOf } from '../derive/live-site.ts';
import { stateOf } from '../derive/state.ts';
import { checkSite } from '../model/check-site.ts';
import { type PageId, toPageId } from '../model/ids.ts';
import type { Site } from '../model/site.ts';
import { applyOperation } from '../operations/apply.ts';
import type { Operation } from '../operations/operation.ts';
import { IDS, anySite, anyStep, emptySite, siteAfter, siteAfterSteps } from '../testing/random-site.ts';
import { planRelease, waitingPages } from './release-plan.ts';

const id = toPageId;
const add = (page: string, title: string, parent: string | null = null): Operation => ({
  name: 'page.add',
  page: id(page),
  place: { parent: parent === null ? null : id(parent) },
  title: { en: title },
});
const release = (site: Site, pages: PageId[], retire: PageId[] = []): Site => {
  const outcome = applyOperation(site, planRelease(site, { pages, retire }).operation);
  if (!outcome.ok) throw new Error(`refused: ${outcome.code} ${JSON.stringify(outcome.params)}`);
  return outcome.site;
};
const liveAddresses = (site: Site): Record<string, string | null> => {
  const { outline, addresses } = derivedOf(liveSiteOf(site));
  return Object.fromEntries(outline.nodes.map((node, row) => [node.id, addresses[row]!]));
};

const start = siteAfter(
  [add('home', 'Home'), add('a', 'Courses'), add('b', 'Evening', 'a'), add('c', 'Monday', 'b')],
  emptySite(),
);

describe('a release', () => {
  it('brings the pages above along, and says for which page', () => {
    const plan = planRelease(start, { pages: [id('c')], retire: [] });
    expect(new Set(plan.operation.pages)).toEqual(new Set(['a', 'b', 'c']));
    expect(plan.along.map((one) => [one.page, one.because])).toEqual([
      ['b', 'above'],
      ['a', 'above'],
    ]);
  });

  it('leaves the edits of a page above that is live where it stands', () => {
    const live = release(start, [...start.nodes.keys()]);
    const edited = siteAfter(
      [
        { name: 'page.set', page: id('a'), fields: { title: { en: 'Learning' } } },
        { name: 'page.set', page: id('c'), fields: { title: { en: 'Tuesday' } } },
      ],
      live,
    );
    expect(liveAddresses(release(edited, [id('c')]))).toEqual({
      home: '/',
      a: '/courses',
      b: '/courses/evening',
      c: '/courses/evening/tuesday',
    });
  });

  it('frees an address that another page still has', () => {
    const live = release(start, [...start.nodes.keys()]);
    const swapped = siteAfter(
      [
        { name: 'page.set', page: id('a'), fields: { slug: { en: { text: 'learn', own: true } } } },
        add('d', 'Courses'),
      ],
      live,
    );
    const plan = planRelease(swapped, { pages: [id('d')], retire: [] });
    expect(plan.along).toEqual([{ page: 'a', because: 'address', of: 'd' }]);
    expect(liveAddresses(release(swapped, [id('d')]))).toMatchObject({ a: '/learn', d: '/courses' });
  });

  it('takes the pages below down with a page, and removed pages with all that waits', () => {
    const live = release(start, [...start.nodes.keys()]);
    expect(liveAddresses(release(live, [], [id('b')]))).toEqual({ home: '/', a: '/courses' });
    const removed = siteAfter([{ name: 'page.remove', page: id('a') }], live);
    expect(liveAddresses(removed)).toHaveProperty('c');
    expect(liveAddresses(release(removed, waitingPages(removed)))).toEqual({ home: '/' });
  });

  it('of anything, after anything, leaves a sound live site, and of all that waits leaves nothing waiting', () => {
    const step = fc.oneof(
      { weight: 5, arbitrary: anyStep },
      {
        weight: 1,
        arbitrary: fc.record({ pages: fc.subarray([...IDS]), retire: fc.subarray([...IDS], { maxLength: 2 }) }),
      },
    );
    holds(
      fc.property(anySite, fc.array(step, { minLength: 1, maxLength: 20, size: 'max' }), (start, steps) => {
        let site = start;
        for (const one of steps) {
          if ('name' in one) {
            site = siteAfterSteps([one], site);
            continue;
          }
          const waiting = waitingPages(site);
          site = release(
            site,
            one.pages.filter((page) => waiting.includes(page)),
            one.retire.filter((page) => site.live.get(page)?.retired === false),
          );
          expect(checkSite(site)).toEqual([]);
          const addresses = Object.values(liveAddresses(site)).filter((address) => address !== null);
          expect(new Set(addresses).size).toBe(addresses.length);
        }
        const all = release(site, waitingPages(site));
        expect(waitingPages(all)).toEqual([]);
        all.nodes.forEach((node) => {
          // What is for practice never goes live.
          if (isPractice(all, node.id)) return;
          if (node.removedWith === null) expect(['live', 'retired']).toContain(stateOf(all.live.get(node.id), node));
        });
      }),
      { numRuns: 150 },
    );
  });
});
