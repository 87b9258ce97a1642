import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { cellsOf } from '../operations/apply.ts';
import { holds } from '../testing/holds.ts';
import { anySite, anyStep, drawEdit } from '../testing/random-site.ts';
import { EDIT_KINDS, cellsOfKind } from './edit-kinds.ts';
import { needsOf } from './needs.ts';

describe('the kinds of edits', () => {
  it('part the cells of pages by what their change needs', () => {
    const kinds = EDIT_KINDS.map((kind) => [kind, new RegExp(cellsOfKind(kind))] as const);
    let seen = 0;
    holds(
      fc.property(anySite, anyStep, (site, step) => {
        const operation = drawEdit(site, step);
        if (operation.name !== 'page.set' && operation.name !== 'page.move') return;
        const needed = new Set(needsOf(site, operation).map(({ permission }) => permission));
        for (const cell of cellsOf(operation)) {
          const of = kinds.filter(([, pattern]) => pattern.test(cell)).map(([kind]) => kind);
          expect([cell, of.length]).toEqual([cell, 1]);
          // Labels without a rule, and a page's date, need less than what else is said there.
          if (!/[.](access|frame)/.test(cell)) expect([cell, needed.has(of[0]!)]).toEqual([cell, true]);
          seen++;
        }
      }),
      { numRuns: 60 },
    );
    expect(seen).toBeGreaterThan(20);
  });

  it('know every thing of a site by its cells', () => {
    const all = new RegExp(EDIT_KINDS.map((kind) => cellsOfKind(kind)).join('|'));
    holds(
      fc.property(anySite, anyStep, (site, step) => {
        for (const cell of cellsOf(drawEdit(site, step)))
          if (!cell.startsWith('site.') && !cell.endsWith('.live'))
            expect([cell, all.test(cell)]).toEqual([cell, true]);
      }),
      { numRuns: 80 },
    );
  });
});
