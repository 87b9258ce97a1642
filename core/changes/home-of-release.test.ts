import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { derivedOf } from '../derive/derived.ts';
import { liveSiteOf } from '../derive/live-site.ts';
import type { PageId } from '../model/ids.ts';
import { homeOf } from '../model/site.ts';
import { holds } from '../testing/holds.ts';
import { anySite, emptySite, siteAfter } from '../testing/random-site.ts';
import { homeOfRelease } from './home-of-release.ts';
import { planRelease } from './release-plan.ts';

const id = (text: string) => text as PageId;
const add = (page: string, parent: string | null = null) => ({
  name: 'page.add' as const,
  page: id(page),
  place: { parent: parent === null ? null : id(parent) },
  title: { en: page },
});
const said = (operations: Parameters<typeof siteAfter>[0], pages: readonly string[]) => {
  const site = siteAfter(operations, emptySite());
  return homeOfRelease(site, planRelease(site, { pages: pages.map(id), retire: [] }).after);
};

describe('the home page of a release', () => {
  it('is told where nobody has chosen it, and more so where pages stand below it', () => {
    expect(said([add('welcome'), add('visit')], ['welcome'])).toEqual({
      kind: 'not-chosen',
      page: 'welcome',
      isParent: false,
    });
    expect(said([add('courses'), add('evening', 'courses')], ['evening'])).toEqual({
      kind: 'not-chosen',
      page: 'courses',
      isParent: true,
    });
  });

  it('is told where it stays behind, or can be none', () => {
    const named = { name: 'site.set' as const, fields: { home: id('welcome') } };
    expect(said([add('welcome'), add('visit'), named], ['visit'])).toEqual({ kind: 'not-live', page: 'welcome' });
    expect(said([{ ...add('group'), type: 'heading' as const }], ['group'])).toEqual({ kind: 'none' });
  });

  it('is passed over where it was chosen, or where visitors have it already', () => {
    const named = { name: 'site.set' as const, fields: { home: id('welcome') } };
    expect(said([add('welcome'), named], ['welcome'])).toBeNull();
    const released = { name: 'release.make' as const, pages: [id('welcome')], retire: [] };
    expect(said([add('welcome'), released, add('visit')], ['visit'])).toBeNull();
  });

  it('never is another page than the one that is told, and has the address `/`', () =>
    holds(
      fc.property(anySite, (site) => {
        const { after } = planRelease(site, { pages: [...site.nodes.keys()], retire: [] });
        const live = derivedOf(liveSiteOf(after));
        const told = homeOfRelease(site, after);
        const top = live.addresses.indexOf('/');
        if (top !== -1) expect(live.outline.nodes[top]!.id).toBe(homeOf(site));
        if (told?.kind === 'not-live' || told?.kind === 'none') expect(top).toBe(-1);
      }),
      { numRuns: 100 },
    ));
});
