import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyOperations } from '../operations/apply.ts';
import type { Operation } from '../operations/operation.ts';
import { holds } from '../testing/holds.ts';
import { anyEditStep, anyPlantedSite, emptySite, siteAfterSteps } from '../testing/random-site.ts';
import { scopeBelow, scopeMembers } from './address-scope.ts';
import { toPageId } from './ids.ts';
import { isSlugOfAnother, parentsInScope } from './slug-index.ts';
import { type Site, addsStep, branchOf, homeOf, makeSite, nodeAt } from './site.ts';

/** The same site with nothing remembered of the ones before. */
const anew = (site: Site): Site =>
  makeSite(site.key, site.settings, site.nodes.values(), site.live.values(), site.liveSettings, site);

describe('which slugs are taken', () => {
  it('is what looking through the scope says, after any edits', () => {
    holds(
      fc.property(anyPlantedSite, fc.array(anyEditStep, { minLength: 1, maxLength: 8 }), (start, steps) => {
        const site = siteAfterSteps(steps, start);
        const home = homeOf(site);
        const texts = [
          ...new Set([...site.nodes.values()].flatMap(({ slug }) => Object.values(slug).map((one) => one.text))),
        ];
        for (const id of branchOf(site, null).slice(0, 12)) {
          const node = nodeAt(site, id);
          if (!addsStep(node, home)) continue;
          const scope = scopeBelow(site, node.parent, home);
          const others = scopeMembers(site, scope, home).filter((one) => one.id !== id);
          const taken = new Set(others.flatMap(({ slug }) => Object.values(slug).map(({ text }) => text)));
          const fresh = anew(site);
          for (const text of texts.slice(0, 20)) {
            expect(isSlugOfAnother(site, parentsInScope(site, scope, home), home, id, text)).toBe(taken.has(text));
            expect(isSlugOfAnother(fresh, parentsInScope(fresh, scope, home), home, id, text)).toBe(taken.has(text));
          }
        }
      }),
      { numRuns: 60 },
    );
  });

  it.each([
    ['the same title', () => 'News'],
    ['titles of their own', (n: number) => `Boat ${n} of many`],
  ])('is known however many pages of %s are added at once', (_, title) => {
    const pages = Array.from({ length: 5000 }, (__, n): Operation => ({
      name: 'page.add',
      page: toPageId(`p${n}`),
      place: { parent: null },
      title: { en: title(n) },
    }));
    const outcome = applyOperations(emptySite(), pages);
    if (!outcome.ok) throw new Error(outcome.code);
    // The first one is home, whose slug is nobody’s.
    expect(new Set([...outcome.site.nodes.values()].map(({ slug }) => slug.en!.text)).size).toBeGreaterThanOrEqual(
      4999,
    );
  });
});
