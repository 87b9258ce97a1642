import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { membershipsOf, accessTable } from './access.ts';
import { anySite } from '../testing/random-site.ts';
import { outlineOf } from './outline.ts';
import { turnsAhead } from './turns.ts';

const FROM = Date.parse('2026-10-01T00:00:00Z');
const UNTIL = Date.parse('2027-06-01T00:00:00Z');

describe('what the clock will turn', () => {
  it('leads, turn by turn, from the pages that are open now to those that are open at the end', () =>
    holds(
      fc.property(anySite, (site) => {
        const outline = outlineOf(site);
        const openAt = (at: number) => {
          const { open } = accessTable(outline, site.settings, membershipsOf(site.settings.audiences), at);
          return new Set(
            outline.nodes.filter(({ type }, row) => type === 'page' && open[row] !== 0).map(({ id }) => id),
          );
        };
        const open = openAt(FROM);
        let last = FROM;
        for (const { at, opens, closes } of turnsAhead(site, FROM, UNTIL)) {
          expect(at).toBeGreaterThan(last);
          expect(at).toBeLessThanOrEqual(UNTIL);
          expect(opens.length + closes.length).toBeGreaterThan(0);
          opens.forEach((page) => open.add(page));
          // Who may open a page differs by audience; it closes altogether where nobody is left.
          closes.filter((page) => !openAt(at).has(page)).forEach((page) => open.delete(page));
          last = at;
        }
        expect(open).toEqual(openAt(UNTIL));
      }),
    ));

  it('stops at the number asked for, and at the last moment asked for', () =>
    holds(
      fc.property(anySite, fc.nat(2), (site, most) => {
        const all = turnsAhead(site, FROM, UNTIL);
        expect(turnsAhead(site, FROM, UNTIL, most)).toEqual(all.slice(0, most));
        if (all.length > 0) expect(turnsAhead(site, FROM, all[0]!.at)).toEqual(all.slice(0, 1));
        expect(turnsAhead(site, UNTIL, UNTIL)).toEqual([]);
      }),
    ));
});
