import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { planOf } from '../model/plan.ts';
import { checkSite } from '../model/check-site.ts';
import { branchOf } from '../model/site.ts';
import { anySite } from '../testing/random-site.ts';
import { derivedOf } from './derived.ts';
import { sharedPlan } from './shared-plan.ts';

describe('a shared plan', () => {
  it('has the same tree, with the same addresses and states, and is sound', () =>
    fc.assert(
      fc.property(anySite, (site) => {
        const shared = sharedPlan(site);
        expect(checkSite(shared)).toEqual([]);
        expect(branchOf(shared, null)).toEqual(branchOf(site, null));
        expect(derivedOf(shared).addresses).toEqual(derivedOf(site).addresses);
        expect(derivedOf(shared).states).toEqual(derivedOf(site).states);
      }),
    ));

  it('keeps to itself what was removed, the notes, the questions and the old site', () =>
    fc.assert(
      fc.property(anySite, (site) => {
        const shared = sharedPlan(site);
        expect([...shared.nodes.values()].filter((node) => node.removedWith !== null)).toEqual([]);
        expect(shared.oldPages.size).toBe(0);
        shared.nodes.forEach((node) =>
          expect(planOf(node)).toEqual({
            ...planOf(site.nodes.get(node.id)!),
            notes: null,
            questions: {},
            references: [],
          }),
        );
      }),
    ));
});
