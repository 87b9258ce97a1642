import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { accessTable, letsPass, membershipsOf } from '#core/derive/access.ts';
import { outlineOf } from '#core/derive/outline.ts';
import { type AccessRule, NO_RULE, ruleOf, withAccess } from '#core/model/access.ts';
import { type Audience, type AudienceId, EVERYONE, closureOf } from '#core/model/audience.ts';
import type { PageId } from '#core/model/ids.ts';
import { anySite } from '#core/testing/random-site.ts';
import { accessColumns, choicesFor } from './access-columns.tsx';
import { answerAt, audiencesOf } from '../../tree/access-of.ts';

const AUDIENCES: readonly Audience[] = ['staff', 'students', 'governors'].map((id) => ({
  id: id as AudienceId,
  name: id.toUpperCase(),
  includes: [],
}));
const ids = AUDIENCES.map(({ id }) => id);
const rule: fc.Arbitrary<AccessRule> = fc
  .record({
    only: fc.option(fc.subarray(ids, { minLength: 1 }), { nil: null }),
    except: fc.subarray(ids),
    standsAlone: fc.boolean(),
  })
  .map((given) => ({ ...NO_RULE, ...given, only: given.only?.toSorted() ?? null, except: given.except.toSorted() }));

/** Whom a rule lets pass by itself, of those in one audience. */
const passing = (one: AccessRule): AudienceId[] =>
  [EVERYONE, ...ids].filter((id) => letsPass(one, closureOf(AUDIENCES, [id])));
const after = (before: AccessRule, fields: ReturnType<typeof choicesFor>[number]['fields']): AccessRule =>
  ruleOf({ access: withAccess(before, (typeof fields === 'function' ? fields('p' as PageId) : fields)!.access!) });

describe('what can be chosen in a cell', () => {
  it('does what its words say', () =>
    fc.assert(
      fc.property(rule, fc.constantFrom(...AUDIENCES), (before, { id, name }) => {
        for (const { words, fields } of choicesFor(id, name, before.only, before.except, before.standsAlone)) {
          const now = after(before, fields);
          if (words === `Only ${name}`) expect(passing(now)).toEqual([id]);
          else if (words === 'As the page above') expect(passing(now)).toEqual([EVERYONE, ...ids]);
          else if (words === `All but ${name}` || words === `Not ${name} any more`)
            expect(passing(now)).not.toContain(id);
          else if (words === `${name} too`) expect(now.only).toContain(id);
          else {
            expect(words).toBe(`Allow ${name} again`);
            expect(now.except).not.toContain(id);
          }
          // Nobody else is shut out but by ‘Only’, and nobody else let in but by what takes a rule away.
          if (words === `${name} too` || words === `Allow ${name} again`)
            expect(passing(now)).toEqual(expect.arrayContaining(passing(before)));
          if (words === `All but ${name}`) expect(passing(before)).toEqual(expect.arrayContaining(passing(now)));
        }
      }),
    ));

  it('marks the choice that holds, and choosing it changes nothing', () =>
    fc.assert(
      fc.property(rule, fc.constantFrom({ id: EVERYONE, name: 'Everyone' }, ...AUDIENCES), (before, { id, name }) => {
        for (const { isChosen, fields } of choicesFor(id, name, before.only, before.except, before.standsAlone))
          if (isChosen) expect(passing(after(before, fields)).includes(id)).toBe(passing(before).includes(id));
      }),
    ));
});

describe('the columns of the Access lens', () => {
  it('are one for everyone and each audience, then what finds pages; the same as long as the audiences are', () =>
    fc.assert(
      fc.property(anySite, (site) => {
        const columns = accessColumns(site);
        expect(columns.map(({ name }) => name)).toEqual([
          ...audiencesOf(site).map(({ name }) => name),
          'Site search',
          'Search engines',
        ]);
        expect(accessColumns(site)).toBe(columns);
      }),
    ));

  it('say of each row what the table says', () =>
    fc.assert(
      fc.property(anySite, (site) => {
        const outline = outlineOf(site);
        const table = accessTable(
          outline,
          site.settings,
          membershipsOf(site.settings.audiences),
          Date.parse('2026-11-25T00:00:00Z'),
        );
        outline.nodes.forEach((_, row) =>
          audiencesOf(site).forEach((__, bit) => {
            const answer = answerAt(table, row, bit);
            expect(answer === 'open').toBe(((table.open[row]! >>> bit) & 1) === 1);
            expect(answer === 'asks').toBe(((table.asks[row]! >>> bit) & 1) === 1);
            expect(answer === 'locked').toBe((((table.locked[row]! & ~table.asks[row]!) >>> bit) & 1) === 1);
          }),
        );
      }),
    ));
});
