import { describe, expect, it } from 'vitest';
import { checkSite } from '../model/check-site.ts';
import { REFUSAL_CODES, type RefusalCode } from '../model/refusal.ts';
import { type Site, branchOf } from '../model/site.ts';
import { applyOperation } from '../operations/apply.ts';
import type { OperationName } from '../operations/operation.ts';
import { Draw } from './draw.ts';
import { DRAWS, drawEdit } from './draw-edit.ts';
import { SHAPES, plantSite } from './random-site.ts';

const NAMES = Object.keys(DRAWS) as OperationName[];
const SITES = 150;
const ROUNDS = 9;

/** Refusals that no random history gets to: limits, each tested beside its operation, and what only a request can break. */
const OUT_OF_REACH: ReadonlySet<RefusalCode> = new Set([
  'too-deep',
  'audience-too-many',
  'label-too-many',
  'field-too-many',
  'menu-too-many',
  'entry-too-many',
  'entry-too-deep',
  'layout-too-many',
  'fact-too-many',
  'shared-too-many',
  'form-too-many',
  'redirect-too-many',
  'sketch-too-many',
  'board-too-many',
  'piece-too-many',
  'variant-too-many',
  'box-too-many',
  'two-homes',
]);

interface Tally {
  tries: number;
  accepted: number;
  changed: number;
}

/** Each operation tried on each of many sites, with how often it was accepted and changed something. */
function census() {
  const tallies = new Map(NAMES.map((name): [OperationName, Tally] => [name, { tries: 0, accepted: 0, changed: 0 }]));
  const refusals = new Map<string, number>();
  const grown: Site[] = [];
  for (let n = 0; n < SITES; n++) {
    const draw = new Draw(n);
    let site = plantSite({ seed: n, pages: 5 + ((n * 7) % 90), shape: SHAPES[n % SHAPES.length]! });
    for (let round = 0; round < ROUNDS; round++)
      for (const name of draw.some(NAMES, NAMES.length, NAMES.length)) {
        const tally = tallies.get(name)!;
        const isOdd = draw.chance(1 / 6);
        const outcome = applyOperation(site, drawEdit(site, { name, seed: draw.int(0, 1e9), isOdd }));
        tally.tries++;
        if (!outcome.ok) {
          refusals.set(outcome.code, (refusals.get(outcome.code) ?? 0) + 1);
          continue;
        }
        tally.accepted++;
        if (outcome.site !== site) tally.changed++;
        site = outcome.site;
      }
    grown.push(site);
  }
  return { tallies, refusals, grown };
}

describe('random sites', () => {
  const { tallies, refusals, grown } = census();

  it.each(NAMES)('let %s through in a third of its tries or more, and change by it in half of those', (name) => {
    const { tries, accepted, changed } = tallies.get(name)!;
    expect(tries).toBe(SITES * ROUNDS);
    expect(accepted, `${accepted} of ${tries} accepted`).toBeGreaterThan(tries / 3);
    expect(changed, `${changed} of ${accepted} changed something`).toBeGreaterThan(accepted / 2);
  });

  it('meet every refusal that a history can get to', () => {
    const met = REFUSAL_CODES.filter((code) => refusals.has(code) || OUT_OF_REACH.has(code));
    expect(met).toEqual([...REFUSAL_CODES]);
  });

  it('are sound, and hold what laws are about', () => {
    const share = (holds: (site: Site) => boolean) => grown.filter(holds).length / grown.length;
    expect(grown.flatMap(checkSite)).toEqual([]);
    const found = {
      pages: share((site) => branchOf(site, null).length >= 5),
      live: share((site) => site.live.some(({ retired }) => !retired)),
      retired: share((site) => site.live.some(({ retired }) => retired)),
      removed: share((site) => site.nodes.some(({ removedWith }) => removedWith !== null)),
      links: share((site) => site.nodes.some(({ type }) => type === 'link')),
      rules: share((site) => site.nodes.some(({ access }) => access?.only != null)),
      labels: share((site) => site.nodes.some(({ access }) => (access?.labels.length ?? 0) > 0)),
      byHand: share((site) => site.settings.menus.some(({ isByHand, arranged }) => isByHand && arranged !== null)),
      layouts: share((site) => site.settings.layouts.length > 1),
      languages: share((site) => site.nodes.some(({ title }) => Object.keys(title).length > 1)),
      deep: share((site) => branchOf(site, null).length > 0 && site.nodes.some(({ parent }) => parent !== null)),
    };
    for (const [what, of] of Object.entries(found)) expect(of, what).toBeGreaterThan(0.4);
  });

  it('are the same for the same seed', () => {
    const seedling = { seed: 7, pages: 30, shape: 'mixed' as const };
    expect([...plantSite(seedling).nodes]).toEqual([...plantSite(seedling).nodes]);
  });
});
