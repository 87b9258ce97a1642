import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import type { SiteNode } from '../model/node.ts';
import { planOf } from '../model/plan.ts';
import { sketchOf } from '../model/sketch.ts';
import { checkSite } from '../model/check-site.ts';
import { branchOf } from '../model/site.ts';
import { anySite } from '../testing/random-site.ts';
import { derivedOf } from './derived.ts';
import { differencesOf } from './state.ts';
import { sharedPlan } from './shared-plan.ts';

describe('a shared plan', () => {
  it('has the same tree, with the same addresses, and the same states but for who may open what, and is sound', () =>
    holds(
      fc.property(anySite, (site) => {
        const shared = sharedPlan(site);
        // A live page may stand below one that was removed since: that one is kept from guests.
        expect(checkSite(shared).filter((fault) => !fault.endsWith('is live under a page that is not'))).toEqual([]);
        expect(branchOf(shared, null)).toEqual(branchOf(site, null));
        expect(derivedOf(shared).addresses).toEqual(derivedOf(site).addresses);
        const { outline, states } = derivedOf(shared);
        outline.nodes.forEach(({ id }, row) => {
          const differences = differencesOf(site, id).filter(
            (one) => one !== 'access' && one !== 'frame' && one !== 'details',
          );
          const before = derivedOf(site).states[row]!;
          expect(states[row]).toBe(before === 'edited' && differences.length === 0 ? 'live' : before);
        });
      }),
    ));

  it('says nothing of audiences, rules, labels and fields, menus, layouts and facts', () =>
    holds(
      fc.property(anySite, (site) => {
        const { settings, liveSettings, nodes, live, sketches } = sharedPlan(site);
        expect(sketches.flatMap(({ kinds }) => kinds)).toEqual([]);
        for (const one of [settings, liveSettings])
          expect(one && [one.audiences, one.labels, one.menus, one.facts].flat()).toEqual(one && []);
        const saysNothing = ({ access, frame, details }: SiteNode): boolean =>
          access === null && frame === null && details === null;
        expect(nodes.every(saysNothing)).toBe(true);
        expect(live.every(({ node }) => saysNothing(node))).toBe(true);
      }),
    ));

  it('keeps to itself what was removed, the notes, the questions and the old site', () =>
    holds(
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
            sketch: sketchOf(site, site.nodes.get(node.id)!)?.id ?? planOf(node).sketch,
          }),
        );
      }),
    ));
});
