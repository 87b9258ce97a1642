import { beforeEach, describe, expect, it, vi } from 'vitest';
import { transliterate as always } from './transliterate.ts';

describe('transliteration that is fetched later', () => {
  let later: typeof import('./transliterate-later.ts');
  beforeEach(async () => {
    vi.resetModules();
    later = await import('./transliterate-later.ts');
  });

  it('is guessed at first, tells so once, and is the same as elsewhere from then on', async () => {
    expect(later.transliterate('Über uns')).toBe('uber uns');
    expect(later.transliterate('Страница')).toBe('');
    expect(await later.fetchTransliteration()).toBe(true);
    for (const title of ['Über uns', 'Страница', '東京', 'Œuvre – ß'])
      expect(later.transliterate(title)).toBe(always(title));
    expect(await later.fetchTransliteration()).toBe(false);
  });

  it('has nothing to correct where nothing was guessed', async () => {
    expect(await later.fetchTransliteration()).toBe(false);
  });
});
