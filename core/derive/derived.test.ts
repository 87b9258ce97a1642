import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { toPageId } from '../model/ids.ts';
import { anySite, emptySite, siteAfter } from '../testing/random-site.ts';
import { SlowReference } from '../testing/slow-reference.ts';
import { derivedOf } from './derived.ts';
import { liveSiteOf } from './live-site.ts';
import { trailOf } from './trail.ts';

describe('what follows from a site', () => {
  it('is what the slow reference finds, for every node', () => {
    holds(
      fc.property(anySite, (site) => {
        const slow = new SlowReference(site);
        const derived = derivedOf(site);
        const { outline } = derived;
        expect(outline.nodes.map((node) => node.id)).toEqual(slow.inTreeOrder());
        outline.nodes.forEach((node, row) => {
          const by = derived.hiddenBy[row]!;
          expect({
            id: node.id,
            address: derived.addresses[row],
            hiddenBy: by === -1 ? null : outline.nodes[by]!.id,
            state: derived.states[row],
            trail: trailOf(site, node.id).map((step) => step.page),
          }).toEqual({
            id: node.id,
            address: slow.address(node.id),
            hiddenBy: slow.hiddenBy(node.id),
            state: slow.state(node.id),
            trail: slow.trail(node.id),
          });
        });
      }),
      { numRuns: 150 },
    );
  });

  it('gives every page an address of its own, in the draft and live', () => {
    holds(
      fc.property(anySite, (site) => {
        for (const one of [site, liveSiteOf(site)]) {
          const addresses = derivedOf(one).addresses.filter((address) => address !== null);
          expect(new Set(addresses).size).toBe(addresses.length);
        }
      }),
      { numRuns: 150 },
    );
  });
});

describe('the trail', () => {
  it('names no page to visitors that they cannot reach, the home page least of all', () => {
    const [home, courses, page] = ['home', 'courses', 'page'].map(toPageId);
    const site = siteAfter([
      { name: 'page.add', page: home!, place: { parent: null }, title: { en: 'Home' }, hidden: 'page' },
      { name: 'page.add', page: courses!, place: { parent: null }, title: { en: 'Courses' }, hidden: 'page' },
      { name: 'page.add', page: page!, place: { parent: courses! }, title: { en: 'Evening' } },
    ]);
    expect(trailOf(site, page!, derivedOf(site)).map(({ text }) => text)).toEqual(['Evening']);
    // Whoever plans the site sees where it stands.
    expect(trailOf(site, page!).map(({ text }) => text)).toEqual(['Home', 'Courses', 'Evening']);
  });

  it('shows headings and hidden ancestors as plain text', () => {
    const [home, group, hidden, page] = ['a', 'b', 'c', 'd'].map(toPageId);
    const site = siteAfter(
      [
        { name: 'page.add', page: home!, place: { parent: null }, title: { en: 'Home' } },
        { name: 'page.add', page: group!, place: { parent: null }, type: 'heading', title: { en: 'Good to know' } },
        { name: 'page.add', page: hidden!, place: { parent: group! }, title: { en: 'Places' }, hidden: 'page' },
        {
          name: 'page.add',
          page: page!,
          place: { parent: hidden! },
          title: { en: 'Lodgings' },
          label: { en: 'Rooms' },
        },
      ],
      emptySite(),
    );
    expect(trailOf(site, page!).map(({ text, address }) => [text, address])).toEqual([
      ['Home', '/'],
      ['Good to know', null],
      ['Places', null],
      ['Rooms', '/places/lodgings'],
    ]);
  });
});
