import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import {
  ACCESS_FIELDS,
  MENU_FOR,
  STANDS_IN,
  type AccessChange,
  CLOSED_LOOKS,
  HELD_BACK,
  accessChange,
  accessChangeSchema,
  audiencesIn,
  fromKeptAccess,
  ruleOf,
  sameAccess,
  toKeptAccess,
  withAccess,
} from './access.ts';
import type { AudienceId } from './audience.ts';

const audience = fc.constantFrom(...(['staff', 'students', 'governors'] as AudienceId[]));
const moment = fc.constantFrom('2026-11-01T00:00:00Z', '2027-01-01T00:00:00Z');
const change: fc.Arbitrary<AccessChange> = fc.record(
  {
    only: fc.option(fc.array(audience, { minLength: 1, maxLength: 4 }), { nil: null }),
    except: fc.array(audience, { maxLength: 4 }),
    standsAlone: fc.boolean(),
    closedLook: fc.constantFrom(...CLOSED_LOOKS, null),
    from: fc.option(moment, { nil: null }),
    until: fc.option(moment, { nil: null }),
    engines: fc.constantFrom(...HELD_BACK),
    search: fc.constantFrom(...HELD_BACK),
    standsIn: fc.constantFrom(...STANDS_IN, null),
    menuFor: fc.constantFrom(...MENU_FOR, null),
  },
  { requiredKeys: [] },
);
const rule = fc.array(change, { maxLength: 3 }).map((changes) => changes.reduce(withAccess, null));

describe('a rule of access', () => {
  it('takes a change, keeps what is left out, and names each audience once', () =>
    holds(
      fc.property(rule, change, (before, made) => {
        const after = ruleOf({ access: withAccess(before, made) });
        for (const field of [
          'standsAlone',
          'closedLook',
          'from',
          'until',
          'engines',
          'search',
          'standsIn',
          'menuFor',
        ] as const)
          expect(after[field]).toBe(made[field] === undefined ? ruleOf({ access: before })[field] : made[field]);
        for (const list of [after.only ?? [], after.except]) expect(list).toEqual([...new Set(list)].sort());
        expect(new Set(audiencesIn(after))).toEqual(new Set([...(after.only ?? []), ...after.except]));
      }),
    ));

  it('comes back as the same object where nothing changes, and as none where nothing is left of it', () =>
    holds(
      fc.property(rule, change, (before, made) => {
        const after = withAccess(before, made);
        expect(withAccess(after, made)).toBe(after);
        expect(withAccess(after, accessChange(after, null))).toBeNull();
        expect(sameAccess(after, before)).toBe(after === before);
      }),
    ));

  it('is undone by the change that leads back', () =>
    holds(
      fc.property(rule, change, (before, made) => {
        const after = withAccess(before, made);
        expect(withAccess(after, accessChange(after, before))).toEqual(before);
      }),
    ));

  it('is kept without what is usual, and read back as it was, through JSON and its schema', () =>
    holds(
      fc.property(rule, (one) => {
        fc.pre(one !== null);
        const kept = accessChangeSchema.parse(JSON.parse(JSON.stringify(toKeptAccess(one!))));
        expect(fromKeptAccess(kept)).toEqual(one);
        expect(Object.keys(kept).length).toBeLessThanOrEqual(ACCESS_FIELDS.length);
      }),
    ));
});
