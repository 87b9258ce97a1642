import { describe, expect, it } from 'vitest';
import { type ContentId, toSiteKey } from '../model/ids.ts';
import { MAX_SHARED, type SharedId } from '../model/shared-section.ts';
import { type Site, makeSite, newSettings } from '../model/site.ts';
import { siteAfter } from '../testing/random-site.ts';
import { applyOperation, wordsOf } from './apply.ts';
import type { Operation } from './operation.ts';

const id = (name: string) => name as SharedId;
const [SHUT, OPEN] = ['shutAtNoon01', 'openAtNoon01'] as ContentId[];
const add = (shared: string, title: string, more: object = {}): Operation => ({
  name: 'shared.add',
  shared: id(shared),
  title,
  ...more,
});
const site = siteAfter(
  [add('hours', ' Opening hours ', { content: SHUT }), add('ferry', 'The ferry')],
  makeSite(toSiteKey('quay'), newSettings('Quay', 'en' as never), []),
);
const refusal = (operation: Operation, of: Site = site) => {
  const outcome = applyOperation(of, operation);
  return outcome.ok ? 'made' : outcome.code;
};

describe('a shared section', () => {
  it('has a name and an id of its own, and is one of so many at most', () => {
    expect(site.settings.shared).toEqual([
      { id: 'hours', name: 'Opening hours', content: SHUT },
      { id: 'ferry', name: 'The ferry', content: null },
    ]);
    expect(refusal(add('safety', ' '))).toBe('shared-unnamed');
    expect(refusal(add('hours', 'Again'))).toBe('shared-exists');
    const full = siteAfter(
      Array.from({ length: MAX_SHARED - 2 }, (_, n) => add(`shared${n}`, `Section ${n}`)),
      site,
    );
    expect(refusal(add('safety', 'Safety'), full)).toBe('shared-too-many');
  });

  it('says something else or nothing, and what it said by undoing', () => {
    for (const content of [OPEN!, null]) {
      const outcome = applyOperation(site, { name: 'shared.set', shared: id('hours'), fields: { content } });
      if (!outcome.ok) throw new Error(outcome.code);
      expect(outcome.site.settings.shared[0]).toEqual({ id: 'hours', name: 'Opening hours', content });
      expect(siteAfter([...outcome.inverse], outcome.site).settings).toEqual(site.settings);
    }
    const same = applyOperation(site, { name: 'shared.set', shared: id('hours'), fields: { content: SHUT! } });
    expect(same.ok && same.site).toBe(site);
    expect(refusal({ name: 'shared.set', shared: id('nowhere'), fields: {} })).toBe('shared-unknown');
  });

  it('comes back at its place, with all that it said', () => {
    const removed = applyOperation(site, { name: 'shared.remove', shared: id('hours') });
    if (!removed.ok) throw new Error(removed.code);
    expect(removed.site.settings.shared.map(({ name }) => name)).toEqual(['The ferry']);
    expect(siteAfter([...removed.inverse], removed.site).settings).toEqual(site.settings);
  });

  it('is told of in the history', () =>
    expect(
      [
        add('safety', 'Safety'),
        { name: 'shared.set' as const, shared: id('hours'), fields: { content: OPEN! } },
        { name: 'shared.set' as const, shared: id('hours'), fields: { title: 'When we are there' } },
        { name: 'shared.remove' as const, shared: id('ferry') },
      ].map((operation) => wordsOf(operation, site)),
    ).toEqual([
      'added the shared section ‘Safety’',
      'changed the text of the shared section ‘Opening hours’',
      'renamed the shared section ‘Opening hours’ ‘When we are there’',
      'removed the shared section ‘The ferry’',
    ]));
});
