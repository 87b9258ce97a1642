import { describe, expect, it } from 'vitest';
import { toPageId } from '#core/model/ids.ts';
import type { ScheduledRelease } from '#contract/releases.ts';
import { scheduledPages, scheduledWords } from './scheduled-pages.ts';

const [a, b] = ['a', 'b'].map(toPageId) as [ReturnType<typeof toPageId>, ReturnType<typeof toPageId>];
const release = (of: Partial<ScheduledRelease>): ScheduledRelease => ({
  id: '018f4d5e-0000-7000-8000-000000000000',
  at: '2026-12-03T09:00:00Z',
  by: 'Ines',
  name: '',
  note: '',
  pages: [],
  retire: [],
  state: 'waiting',
  doneAt: null,
  release: null,
  fault: null,
  ...of,
});

describe('what is set for a page', () => {
  it('is the first of several releases that wait, and none that is done', () => {
    const of = scheduledPages([
      release({ at: '2026-12-09T09:00:00Z', pages: [a] }),
      release({ pages: [a] }),
      release({ at: '2026-12-01T09:00:00Z', pages: [a], state: 'called off' }),
    ]);
    expect(scheduledWords(of, a, 'retired', 'UTC')).toBe('Live on 3 Dec');
    expect(scheduledWords(of, b, 'draft', 'UTC')).toBeNull();
  });
  it('is that of all pages where that comes first', () => {
    const of = scheduledPages([release({ pages: 'all' }), release({ at: '2026-12-09T09:00:00Z', pages: [a] })]);
    expect(scheduledWords(of, a, 'edited', 'UTC')).toBe('Live on 3 Dec');
    expect(scheduledWords(of, b, 'draft', 'UTC')).toBe('Live on 3 Dec');
    expect(scheduledWords(of, b, 'live', 'UTC')).toBeNull();
  });
  it('is that it is taken down, where visitors have it', () => {
    const of = scheduledPages([release({ retire: [a] })]);
    expect(scheduledWords(of, a, 'live', 'UTC')).toBe('Down on 3 Dec');
    expect(scheduledWords(of, a, 'retired', 'UTC')).toBeNull();
  });
});
