import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { type Texts, NO_TEXTS, sameTexts, textIn, textsChange, withTexts } from './texts.ts';

const language = fc.constantFrom('en', 'cy', 'de');
const stored: fc.Arbitrary<Texts> = fc.dictionary(language, fc.constantFrom('One', 'Two', 'Three'));
const change: fc.Arbitrary<Texts> = fc.dictionary(language, fc.constantFrom('', ' ', 'One', '  Two\n words '));

describe('texts by language', () => {
  it('hold no empty text and no stray spaces after any change', () => {
    holds(
      fc.property(stored, change, (texts, changes) => {
        for (const text of Object.values(withTexts(texts, changes))) expect(text).toMatch(/^\S+( \S+)*$/);
      }),
    );
  });
  it('stay the same object where nothing changes', () => {
    holds(
      fc.property(stored, (texts) => {
        expect(withTexts(texts, { ...texts })).toBe(texts);
      }),
    );
    expect(withTexts(NO_TEXTS, { en: '  ' })).toBe(NO_TEXTS);
  });
  it('are given back by the change that undoes a change', () => {
    holds(
      fc.property(stored, change, (before, changes) => {
        const after = withTexts(before, changes);
        expect(sameTexts(withTexts(after, textsChange(after, before)), before)).toBe(true);
      }),
    );
  });
  it('are read in the language asked for, else in any other, else as nothing', () => {
    expect(textIn({ en: 'Boats', cy: 'Cychod' }, 'cy')).toBe('Cychod');
    expect(textIn({ cy: 'Cychod' }, 'en')).toBe('Cychod');
    expect(textIn({}, 'en')).toBe('');
  });
  it('are the same only where every language is', () => {
    holds(
      fc.property(stored, stored, (a, b) => {
        const sorted = (texts: Texts) => JSON.stringify(Object.entries(texts).sort());
        expect(sameTexts(a, b)).toBe(sorted(a) === sorted(b));
      }),
    );
  });
});
