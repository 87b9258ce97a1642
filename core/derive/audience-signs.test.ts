import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import type { Audience, AudienceId } from '../model/audience.ts';
import { nodeAt } from '../model/site.ts';
import { anySite } from '../testing/random-site.ts';
import { accessReason, accessTable, membershipsOf } from './access.ts';
import { audienceSigns, hasGate, passing } from './audience-signs.ts';
import { outlineOf } from './outline.ts';

const AT = Date.parse('2026-11-25T00:00:00Z');
const named = (names: readonly string[]): Audience[] =>
  names.map((name, at) => ({ id: `a${at}` as AudienceId, name, includes: [] }));

describe('the letters of an audience', () => {
  it('are as few as tell it apart', () =>
    expect(audienceSigns(named(['Students', 'Staff', 'Governors'])).map(({ letters }) => letters)).toEqual([
      'Stu',
      'Sta',
      'G',
    ]));

  it('belong to no other audience, whatever they are called', () =>
    holds(
      fc.property(
        fc.array(fc.constantFrom('Staff', 'staff', 'Sta', 'Staff 2', 'S', 'Old staff'), { maxLength: 8 }),
        (names) => {
          const letters = audienceSigns(named(names)).map((one) => one.letters.toLowerCase());
          expect(new Set(letters).size).toBe(names.length);
          expect(letters.every((one) => one.length > 0)).toBe(true);
        },
      ),
    ));
});

describe('a rail', () => {
  it('takes the tints of the audiences that pass, and none where everyone does or nobody', () =>
    holds(
      fc.property(anySite, (site) => {
        const { nodes } = outlineOf(site);
        const signs = audienceSigns(site.settings.audiences);
        const memberships = membershipsOf(site.settings.audiences);
        const table = accessTable(outlineOf(site), site.settings, memberships, AT);
        nodes.forEach(({ id }, row) => {
          const passes = memberships.map((one) => {
            const { opens, asks } = accessReason(site, id, one, AT);
            return opens || asks;
          });
          const [everyone, ...others] = passes;
          const wanted = site.settings.audiences.filter((_, at) => others[at]).map((one) => one.id);
          expect(passing(table, signs, row)?.map(({ audience }) => audience) ?? null).toEqual(
            everyone || wanted.length === 0 ? null : wanted,
          );
        });
      }),
      { numRuns: 60 },
    ));

  it('has a gate where fewer pass than at the page above, hiding and clock left aside', () =>
    holds(
      fc.property(anySite, (site) => {
        const memberships = membershipsOf(site.settings.audiences);
        for (const { id, parent } of outlineOf(site).nodes) {
          const narrows = (one: (typeof memberships)[number], page: typeof id) =>
            accessReason(site, page, one, AT).chain.some(
              ({ by, keepsOut }) => keepsOut && (by === 'audiences' || by === 'passphrase'),
            );
          const isNarrower = memberships.some((one) => narrows(one, id) && (parent === null || !narrows(one, parent)));
          if (isNarrower) expect(hasGate(site, nodeAt(site, id))).toBe(true);
        }
      }),
      { numRuns: 60 },
    ));
});
