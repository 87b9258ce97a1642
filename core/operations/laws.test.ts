import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkSite } from '../model/check-site.ts';
import { holds } from '../testing/holds.ts';
import { type Step, anySite, anyStep, differencesBetween, drawEdit, plain, siteAfter } from '../testing/random-site.ts';
import { applyOperation, applyOperations } from './apply.ts';
import { type Operation, operationSchema } from './operation.ts';

const RUNS = { numRuns: 100 };
const steps = fc.array(anyStep, { minLength: 1, maxLength: 20, size: 'max' });

/** The edits that steps make one after the other, those that are refused left out. */
function editsOf(start: Parameters<typeof drawEdit>[0], made: readonly Step[]): Operation[] {
  const edits: Operation[] = [];
  let site = start;
  for (const step of made) {
    const operation = drawEdit(site, step);
    const outcome = applyOperation(site, operation);
    if (!outcome.ok) continue;
    edits.push(operation);
    site = outcome.site;
  }
  return edits;
}

describe('every operation', () => {
  it('is undone by its inverse, exactly, and the inverse by its own', () => {
    holds(
      fc.property(anySite, steps, (start, made) => {
        let site = start;
        for (const step of made) {
          const operation = drawEdit(site, step);
          const outcome = applyOperation(site, operation);
          if (!outcome.ok) continue;
          const back = applyOperations(outcome.site, outcome.inverse);
          expect({ operation, back }).toMatchObject({ back: { ok: true } });
          if (!back.ok) return;
          expect({ operation, left: differencesBetween(back.site, site) }).toEqual({ operation, left: [] });
          const again = applyOperations(back.site, back.inverse);
          expect({ operation, again }).toMatchObject({ again: { ok: true } });
          if (again.ok)
            expect({ operation, left: differencesBetween(again.site, outcome.site) }).toEqual({ operation, left: [] });
          site = outcome.site;
        }
      }),
      RUNS,
    );
  });

  it('leaves a sound site', () => {
    holds(
      fc.property(anySite, steps, (start, made) => {
        let site = start;
        for (const step of made) {
          const operation = drawEdit(site, step);
          const outcome = applyOperation(site, operation);
          if (!outcome.ok) continue;
          site = outcome.site;
          expect({ operation, faults: checkSite(site) }).toEqual({ operation, faults: [] });
        }
      }),
      RUNS,
    );
  });

  it('leaves the site as it was where it is refused, and gives the same site where nothing changes', () => {
    holds(
      fc.property(anySite, anyStep, (site, step) => {
        const before = plain(site);
        const outcome = applyOperation(site, drawEdit(site, step));
        expect(plain(site)).toEqual(before);
        if (outcome.ok && outcome.inverse.length === 0) expect(outcome.site).toBe(site);
        if (outcome.ok && outcome.site !== site) expect(differencesBetween(outcome.site, site)).not.toEqual([]);
      }),
      { numRuns: 150 },
    );
  });

  it('says all that it touches, and nothing else', () => {
    holds(
      fc.property(anySite, anyStep, (site, step) => {
        const outcome = applyOperation(site, drawEdit(site, step));
        if (!outcome.ok) return;
        const ids = new Set([...site.nodes.keys(), ...outcome.site.nodes.keys(), ...site.live.keys()]);
        const differing = [...ids].filter(
          (id) => site.nodes.get(id) !== outcome.site.nodes.get(id) || site.live.get(id) !== outcome.site.live.get(id),
        );
        expect([...outcome.touched].sort()).toEqual(differing.sort());
      }),
      { numRuns: 150 },
    );
  });

  it('goes through JSON and its schema unchanged, as its inverse does', () => {
    holds(
      fc.property(anySite, anyStep, (site, step) => {
        const operation = drawEdit(site, step);
        const outcome = applyOperation(site, operation);
        if (!outcome.ok) return;
        for (const one of [operation, ...outcome.inverse]) {
          const carried: unknown = JSON.parse(JSON.stringify(one));
          expect(JSON.parse(JSON.stringify(operationSchema.parse(carried)))).toEqual(carried);
        }
      }),
      { numRuns: 150 },
    );
  });
});

describe('a sequence of operations', () => {
  it('followed by its inverses gives back the identical site', () => {
    holds(
      fc.property(anySite, steps, (start, made) => {
        const there = applyOperations(start, editsOf(start, made));
        if (!there.ok) throw new Error(there.code);
        const back = applyOperations(there.site, there.inverse);
        expect(back).toMatchObject({ ok: true });
        if (back.ok) expect(differencesBetween(back.site, start)).toEqual([]);
      }),
      RUNS,
    );
  });

  it('is applied whole or not at all', () => {
    holds(
      fc.property(anySite, steps, fc.boolean(), (site, made, isBroken) => {
        const edits = editsOf(site, made);
        const broken: Operation[] = isBroken
          ? [{ name: 'page.move', page: 'neverThere' as never, place: { parent: null } }]
          : [];
        const whole = applyOperations(site, [...edits, ...broken]);
        if (whole.ok) expect(differencesBetween(whole.site, siteAfter(edits, site))).toEqual([]);
        else expect(whole).toMatchObject({ code: 'page-unknown', index: edits.length });
        expect(whole.ok).toBe(!isBroken);
      }),
      RUNS,
    );
  });
});
