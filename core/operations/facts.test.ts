import { describe, expect, it } from 'vitest';
import { type FactId, MAX_FACTS } from '../model/fact.ts';
import { type Site, newSettings, makeSite } from '../model/site.ts';
import { toSiteKey } from '../model/ids.ts';
import { siteAfter } from '../testing/random-site.ts';
import { applyOperation, wordsOf } from './apply.ts';
import type { Operation } from './operation.ts';

const id = (name: string) => name as FactId;
const add = (fact: string, title: string, more: object = {}): Operation => ({
  name: 'fact.add',
  fact: id(fact),
  title,
  ...more,
});
const bare = makeSite(toSiteKey('quay'), { ...newSettings('Quay', 'en' as never), facts: [] }, []);
const site = siteAfter(
  [add('phone', 'Telephone', { text: ' 01632 960 017 ', inFooter: true }), add('hours', 'Hours')],
  bare,
);
const refusal = (operation: Operation, of: Site = site) => {
  const outcome = applyOperation(of, operation);
  return outcome.ok ? 'made' : outcome.code;
};
const names = ({ settings }: Site) => settings.facts.map(({ name }) => name);

describe('a fact of the site', () => {
  it('says what it is told to, without spaces around it, at its place in the list', () => {
    expect(site.settings.facts[0]).toEqual({
      id: 'phone',
      name: 'Telephone',
      text: '01632 960 017',
      inFooter: true,
    });
    expect(names(siteAfter([add('mail', 'Mail', { after: 'phone' })], site))).toEqual(['Telephone', 'Mail', 'Hours']);
    expect(names(siteAfter([add('mail', 'Mail', { after: null })], site))).toEqual(['Mail', 'Telephone', 'Hours']);
  });

  it('has a name and an id of its own, and is one of so many at most', () => {
    expect(refusal(add('mail', ' '))).toBe('fact-unnamed');
    expect(refusal(add('phone', 'Again'))).toBe('fact-exists');
    const full = siteAfter(
      Array.from({ length: MAX_FACTS - 2 }, (_, n) => add(`fact${n}`, `Fact ${n}`)),
      site,
    );
    expect(refusal(add('mail', 'Mail'), full)).toBe('fact-too-many');
  });

  it('is changed field by field, and back by undoing', () => {
    const outcome = applyOperation(site, { name: 'fact.set', fact: id('phone'), fields: { text: '01632 960 018' } });
    if (!outcome.ok) throw new Error(outcome.code);
    expect(outcome.site.settings.facts[0]).toMatchObject({ name: 'Telephone', text: '01632 960 018', inFooter: true });
    expect(siteAfter([...outcome.inverse], outcome.site).settings.facts).toEqual(site.settings.facts);
    const same = applyOperation(site, { name: 'fact.set', fact: id('phone'), fields: { title: 'Telephone ' } });
    expect(same.ok && same.site).toBe(site);
    expect(refusal({ name: 'fact.set', fact: id('phone'), fields: { title: '' } })).toBe('fact-unnamed');
    expect(refusal({ name: 'fact.set', fact: id('nowhere'), fields: { text: '' } })).toBe('fact-unknown');
  });

  it('comes back at its place, with all that it said', () => {
    const outcome = applyOperation(site, { name: 'fact.remove', fact: id('phone') });
    if (!outcome.ok) throw new Error(outcome.code);
    expect(names(outcome.site)).toEqual(['Hours']);
    expect(siteAfter([...outcome.inverse], outcome.site).settings.facts).toEqual(site.settings.facts);
    expect(refusal({ name: 'fact.remove', fact: id('nowhere') })).toBe('fact-unknown');
  });

  it('is told in words', () => {
    expect(wordsOf(add('mail', 'Mail'), site)).toBe('added the fact ‘Mail’');
    expect(wordsOf({ name: 'fact.set', fact: id('hours'), fields: { text: 'Nine to five' } }, site)).toBe(
      'set ‘Hours’ to ‘Nine to five’',
    );
    expect(wordsOf({ name: 'fact.set', fact: id('hours'), fields: { inFooter: true } }, site)).toBe(
      'changed the fact ‘Hours’',
    );
    expect(wordsOf({ name: 'fact.remove', fact: id('hours') }, site)).toBe('removed the fact ‘Hours’');
  });
});
