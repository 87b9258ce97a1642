import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { planRelease, waitingPages } from '../changes/release-plan.ts';
import { checkSite } from '../model/check-site.ts';
import type { Site } from '../model/site.ts';
import { IDS, anyEdit, anySite, emptySite, plain, siteAfter } from '../testing/random-site.ts';
import { applyOperation, applyOperations } from './apply.ts';
import { type Operation, operationSchema } from './operation.ts';

const RUNS = { numRuns: 400 };
const edits = fc.array(anyEdit, { minLength: 1, maxLength: 50, size: 'max' });

/** Edits with releases of random pages among them. */
const editsAndReleases = fc.array(
  fc.oneof(
    { weight: 5, arbitrary: anyEdit },
    { weight: 1, arbitrary: fc.subarray([...IDS]).map((pages) => ({ release: pages })) },
  ),
  { minLength: 1, maxLength: 50, size: 'max' },
);
const asOperation = (site: Site, step: Operation | { release: (typeof IDS)[number][] }): Operation =>
  'release' in step
    ? planRelease(site, { pages: step.release.filter((id) => waitingPages(site).includes(id)), retire: [] }).operation
    : step;

describe('every operation', () => {
  it('is undone by its inverse, exactly, and the inverse by its own', () => {
    fc.assert(
      fc.property(editsAndReleases, (steps) => {
        let site = emptySite();
        for (const step of steps) {
          const outcome = applyOperation(site, asOperation(site, step));
          if (!outcome.ok) continue;
          const back = applyOperations(outcome.site, outcome.inverse);
          expect(back).toMatchObject({ ok: true });
          if (!back.ok) return;
          expect(plain(back.site)).toEqual(plain(site));
          const again = applyOperations(back.site, back.inverse);
          expect(again).toMatchObject({ ok: true });
          if (again.ok) expect(plain(again.site)).toEqual(plain(outcome.site));
          site = outcome.site;
        }
      }),
      RUNS,
    );
  });

  it('leaves a sound site', () => {
    fc.assert(
      fc.property(editsAndReleases, (steps) => {
        let site = emptySite();
        for (const step of steps) {
          const operation = asOperation(site, step);
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
    fc.assert(
      fc.property(anySite, anyEdit, (site, operation) => {
        const before = plain(site);
        const outcome = applyOperation(site, operation);
        expect(plain(site)).toEqual(before);
        if (outcome.ok && outcome.inverse.length === 0) expect(outcome.site).toBe(site);
        if (outcome.ok && outcome.site !== site) expect(plain(outcome.site)).not.toEqual(before);
      }),
      RUNS,
    );
  });

  it('says all that it touches, and nothing else', () => {
    fc.assert(
      fc.property(anySite, anyEdit, (site, operation) => {
        const outcome = applyOperation(site, operation);
        if (!outcome.ok) return;
        const differing = IDS.filter((id) => site.nodes.get(id) !== outcome.site.nodes.get(id));
        expect(outcome.touched.filter((id) => IDS.includes(id)).sort()).toEqual(differing.sort());
      }),
      RUNS,
    );
  });

  it('goes through JSON and its schema unchanged, as its inverse does', () => {
    fc.assert(
      fc.property(anySite, anyEdit, (site, operation) => {
        const outcome = applyOperation(site, operation);
        if (!outcome.ok) return;
        for (const one of [operation, ...outcome.inverse]) {
          const carried: unknown = JSON.parse(JSON.stringify(one));
          expect(JSON.parse(JSON.stringify(operationSchema.parse(carried)))).toEqual(carried);
        }
      }),
      RUNS,
    );
  });
});

describe('a sequence of operations', () => {
  it('followed by its inverses gives back the identical site', () => {
    fc.assert(
      fc.property(anySite, edits, (start, operations) => {
        let site = start;
        const inverses: (readonly Operation[])[] = [];
        for (const operation of operations) {
          const outcome = applyOperation(site, operation);
          if (!outcome.ok) continue;
          inverses.unshift(outcome.inverse);
          site = outcome.site;
        }
        const back = applyOperations(site, inverses.flat());
        expect(back).toMatchObject({ ok: true });
        if (back.ok) expect(plain(back.site)).toEqual(plain(start));
      }),
      RUNS,
    );
  });

  it('is applied whole or not at all', () => {
    fc.assert(
      fc.property(anySite, edits, (site, operations) => {
        const whole = applyOperations(site, operations);
        const oneByOne = siteAfter(operations, site);
        if (whole.ok) expect(plain(whole.site)).toEqual(plain(oneByOne));
        else expect(operations[whole.index]).toBeDefined();
      }),
      RUNS,
    );
  });
});
