import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { MAX_DEPTH } from '../model/site.ts';
import { MAX_TITLE_LENGTH } from '../model/page-fields.ts';
import { MAX_LINES, readIndentedList, writeIndentedList } from './indented-list.ts';

/** The list as `depth title` lines. */
function read(text: string): string[] {
  const list = readIndentedList(text);
  if (!list.ok) throw new Error(list.why);
  return list.entries.map(({ depth, title }) => `${depth} ${title}`);
}
function notes(text: string): string[] {
  const list = readIndentedList(text);
  return list.ok ? list.notes.map(({ line, what }) => `${line} ${what}`) : [list.why];
}

describe('a pasted list', () => {
  it('nests by tabs, by spaces of any width, and by both', () => {
    expect(read('Courses\n\tShort\n\t\tKnots\n\tLong\nVisit')).toEqual([
      '0 Courses',
      '1 Short',
      '2 Knots',
      '1 Long',
      '0 Visit',
    ]);
    expect(read('A\n   B\n      C\n   D\n E')).toEqual(['0 A', '1 B', '2 C', '1 D', '1 E']);
    expect(read('A\n    B\n\tC')).toEqual(['0 A', '1 B', '1 C']);
  });
  it('leaves out bullets, numbers and boxes to tick', () => {
    expect(read('- A\n  * B\n  + C\n1. D\n   2) E\n• F\n- [x] G')).toEqual([
      '0 A',
      '1 B',
      '1 C',
      '0 D',
      '1 E',
      '0 F',
      '0 G',
    ]);
    expect(read('24 hours at sea\n1984 regatta')).toEqual(['0 24 hours at sea', '0 1984 regatta']);
  });
  it('nests by outline numbers where nothing is indented', () => {
    expect(read('1. Courses\n1.1 Short\n1.1.1 Knots\n1.2 Long\n2. Visit')).toEqual([
      '0 Courses',
      '1 Short',
      '2 Knots',
      '1 Long',
      '0 Visit',
    ]);
  });
  it('hangs list lines under Markdown headings', () => {
    expect(read('# Courses\n- Short\n  - Knots\n## Evening ##\n- Splicing\n# Visit')).toEqual([
      '0 Courses',
      '1 Short',
      '2 Knots',
      '1 Evening',
      '2 Splicing',
      '0 Visit',
    ]);
    expect(read('## Starts at two\n## Again')).toEqual(['0 Starts at two', '0 Again']);
  });
  it('says which lines were changed', () => {
    expect(notes('A\n---\nB')).toEqual(['2 no-title']);
    expect(notes('# A\n### B')).toEqual(['2 step-skipped']);
    expect(notes('A\u202eB')).toEqual(['1 marks-taken-out']);
    expect(notes('x'.repeat(MAX_TITLE_LENGTH + 1))).toEqual(['1 title-cut']);
    expect(read('x'.repeat(1_000_000))[0]).toHaveLength(MAX_TITLE_LENGTH + 2);
    const deep = Array.from({ length: 500 }, (_, n) => `${' '.repeat(n)}level ${n}`).join('\n');
    const list = readIndentedList(deep);
    expect(list.ok && Math.max(...list.entries.map((entry) => entry.depth))).toBe(MAX_DEPTH - 1);
    expect(notes(deep)).toContain('500 too-deep');
  });
  it('of too many lines is not read at all', () => {
    expect(readIndentedList('A\n'.repeat(100_000))).toEqual({
      ok: false,
      why: 'too-many-lines',
      most: MAX_LINES,
      found: 100_000,
    });
    expect(readIndentedList('x'.repeat(3_000_000))).toMatchObject({ ok: false, why: 'too-large' });
  });
  it('keeps scripts of every direction, marks that combine, and what looks like code', () => {
    expect(read('صفحة\n\tקורסים\n\té\n<script>alert(1)</script>')).toEqual([
      '0 صفحة',
      '1 קורסים',
      '1 é',
      '0 <script>alert(1)</script>',
    ]);
  });
  it('that was written by Spur is read back the same', () => {
    const title = fc
      .stringMatching(/^[A-Za-zÀ-Öà-ö][A-Za-z À-Öà-ö0-9]{0,20}$/)
      .map((text) => text.replace(/\s+/g, ' ').trim());
    const list = fc.array(fc.record({ title, step: fc.nat(6) }), { minLength: 1, maxLength: 40 }).map((entries) => {
      let before = -1;
      return entries.map(({ title: text, step }) => ({ title: text, depth: (before = Math.min(before + 1, step)) }));
    });
    holds(
      fc.property(list, (entries) => {
        expect(read(writeIndentedList(entries))).toEqual(
          entries.map((entry) => `${entry.depth} ${entry.title.normalize('NFC')}`),
        );
      }),
      { numRuns: 100 },
    );
  });
  it('never stands deeper than one level below the line above it', () => {
    holds(
      fc.property(
        fc.string({ unit: fc.constantFrom(' ', '\t', '\n', 'a', '-', '#', '1', '.'), maxLength: 300 }),
        (text) => {
          const list = readIndentedList(text);
          if (!list.ok) return;
          list.entries.forEach(({ depth }, index) =>
            expect(depth).toBeLessThanOrEqual(index === 0 ? 0 : list.entries[index - 1]!.depth + 1),
          );
        },
      ),
      { numRuns: 150 },
    );
  });
});
