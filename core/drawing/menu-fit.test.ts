import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import type { MenuEntry } from '../derive/menu.ts';
import type { EntryId } from '../model/menu.ts';
import { type MeasureText, menuFit } from './menu-fit.ts';

/** Ten pixels a letter. */
const measure: MeasureText = (text) => [...text].length * 10;
const entry = (text: string, entries: MenuEntry[] = []): MenuEntry => ({
  id: text.replace(/\W/g, '').slice(0, 24) as EntryId,
  page: null,
  text,
  leadsTo: '/x',
  does: null,
  isBeside: false,
  entries,
});
const on = (slot: Parameters<typeof menuFit>[0], entries: MenuEntry[], screen: string) =>
  menuFit(slot, entries, measure, 17).find((one) => one.screen === screen)!;

describe('a menu in a header', () => {
  it('takes a second row where the first holds no more, and says what begins it', () => {
    // 1280 less the scroll bar and two gutters of 48 is 1169: eleven entries of 80 and ten gaps of 24 are 1120.
    const eleven = Array.from({ length: 11 }, (_, n) => entry(`Entry ${n % 10}X`));
    expect(on('header', eleven, 'wide')).toMatchObject({ rows: 1, firstInNextRow: null });
    expect(on('header', [...eleven, entry('Too much')], 'wide')).toMatchObject({ rows: 2, firstInNextRow: 'Too much' });
    expect(on('header', eleven, 'narrow').rows).toBe(1);
  });
  it('counts the sign that opens what is below', () => {
    const eleven = Array.from({ length: 11 }, (_, n) =>
      entry(`Entry ${n % 10}X`, n === 0 ? [entry('Below'), entry('More')] : []),
    );
    expect(on('header', eleven, 'wide').rows).toBe(1);
    expect(
      on(
        'header',
        eleven.map((one) => ({ ...one, entries: [entry('Below')] })),
        'wide',
      ).rows,
    ).toBe(2);
  });
});

describe('labels beside the text', () => {
  it('that take two lines are listed, with the first words that take one', () => {
    // The column is 272 less a gutter of 48; one level in, 208.
    const entries = [entry('Short'), entry('Courses', [entry('Wednesday: rope and canvas')])];
    expect(on('side', entries, 'wide').wide).toEqual([
      { entry: 'Wednesdayropeandcanvas', text: 'Wednesday: rope and canvas', lines: 2, fitting: 'Wednesday: rope' },
    ]);
    expect(on('side', entries, 'narrow').wide).toEqual([]);
  });
});

describe('what is said to fit', () => {
  it('takes one line, and is the beginning of the label', () =>
    holds(
      fc.property(fc.array(fc.stringMatching(/^[a-z]{1,12}$/), { minLength: 1, maxLength: 8 }), (words) => {
        const text = words.join(' ');
        for (const fit of menuFit('side', [entry(text)], measure, 17))
          for (const { fitting, lines } of fit.wide) {
            expect(lines).toBeGreaterThan(1);
            if (fitting === null) continue;
            expect(text.startsWith(fitting)).toBe(true);
            expect(
              menuFit('side', [entry(fitting)], measure, 17).find((one) => one.screen === fit.screen)!.wide,
            ).toEqual([]);
          }
      }),
    ));
});
