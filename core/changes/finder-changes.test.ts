import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { visitorView } from '../derive/visitor-view.ts';
import { EVERYONE, closureOf } from '../model/audience.ts';
import type { PageId } from '../model/ids.ts';
import { type Site, nodeAt } from '../model/site.ts';
import { anyStep, anySite, siteAfter, siteAfterSteps } from '../testing/random-site.ts';
import { finderChanges } from './finder-changes.ts';

const AT = Date.parse('2026-11-25T00:00:00Z');

/** The pages that visitors of some audience get offered or found, one audience after the other. */
function pagesFor(site: Site, column: 'offered' | 'found', audiences: readonly string[]): Set<PageId> {
  const pages = new Set<PageId>();
  for (const id of audiences) {
    const view = visitorView(site, closureOf(site.settings.audiences, [id as never]), AT, id !== EVERYONE);
    view.derived.outline.nodes.forEach(({ id: page, type }, row) => {
      if (view[column][row] === 1 && type === 'page') pages.add(page);
    });
  }
  return pages;
}

describe('what engines and search gain and lose', () => {
  it('is what visitors are offered and find now and did not before, and the reverse', () =>
    holds(
      fc.property(anySite, fc.array(anyStep, { minLength: 1, maxLength: 8 }), (before, steps) => {
        const after = siteAfterSteps(steps, before);
        const { engines, search } = finderChanges(before, after, AT);
        const everybody = (site: Site) => [EVERYONE, ...site.settings.audiences.map(({ id }) => id)];
        for (const [change, column, who] of [
          [engines, 'offered', () => [EVERYONE]],
          [search, 'found', everybody],
        ] as const) {
          const [was, is] = [before, after].map((site) => pagesFor(site, column, who(site))) as [
            Set<PageId>,
            Set<PageId>,
          ];
          expect(new Set(change.gains)).toEqual(new Set([...is].filter((page) => !was.has(page))));
          expect(new Set(change.loses)).toEqual(new Set([...was].filter((page) => !is.has(page))));
        }
      }),
      { numRuns: 100 },
    ));

  it('is nothing for a change that nobody notices', () => {
    holds(
      fc.property(anySite, (site) => {
        const renamed = siteAfter([{ name: 'site.set', fields: { name: 'Another name' } }], site);
        const { engines, search } = finderChanges(site, renamed, AT);
        expect([engines.gains, engines.loses, search.gains, search.loses]).toEqual([[], [], [], []]);
      }),
      { numRuns: 20 },
    );
  });

  it('names a page that is held back, and those below where the branch is', () => {
    const site = siteAfter([
      { name: 'page.add', page: 'p0' as PageId, place: { parent: null }, title: { en: 'Home' } },
      { name: 'page.add', page: 'p1' as PageId, place: { parent: null }, title: { en: 'Legal' } },
      { name: 'page.add', page: 'p2' as PageId, place: { parent: 'p1' as PageId }, title: { en: 'Imprint' } },
    ]);
    const held = siteAfter(
      [{ name: 'page.set', page: 'p1' as PageId, fields: { access: { engines: 'branch', search: 'page' } } }],
      site,
    );
    expect(nodeAt(held, 'p1' as PageId).access).not.toBeNull();
    const { engines, search } = finderChanges(site, held, AT);
    expect([engines.loses, search.loses]).toEqual([['p1', 'p2'], ['p1']]);
  });
});
