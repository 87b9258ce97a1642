import { describe, expect, it } from 'vitest';
import { toPageId } from '../model/ids.ts';
import { type Destination, MAX_REDIRECTS, type RedirectId } from '../model/redirect.ts';
import type { Site } from '../model/site.ts';
import { siteAfter } from '../testing/random-site.ts';
import { applyOperation, wordsOf } from './apply.ts';
import { type Operation, operationSchema } from './operation.ts';

const visit = toPageId('visit');
const id = (name: string) => name as RedirectId;
const add = (redirect: string, from: string, to: Destination, more: object = {}): Operation => ({
  name: 'redirect.add',
  redirect: id(redirect),
  from,
  to,
  ...more,
});
const site = siteAfter([
  { name: 'page.add', page: toPageId('home'), place: { parent: null }, title: { en: 'Home' } },
  { name: 'page.add', page: visit, place: { parent: null }, title: { en: 'Visit' } },
  { name: 'page.add', page: toPageId('more'), place: { parent: null }, title: { en: 'More' }, type: 'heading' },
  add('first', '/find-us', { page: visit }),
  add('second', '/fair-1999', 'gone'),
]);
const refusal = (operation: Operation, of = site) => {
  const outcome = applyOperation(of, operation);
  return outcome.ok ? 'made' : outcome.code;
};
const froms = ({ settings }: Site) => settings.redirects.map(({ from }) => from);

describe('a redirect', () => {
  it('leads an address to a page, outside, or nowhere', () => {
    expect(refusal(add('third', '/tides', { url: 'https://tides.example/' }))).toBe('made');
    expect(refusal(add('third', '/tides', { page: visit }))).toBe('made');
    expect(refusal(add('third', '/tides', 'gone'))).toBe('made');
    expect(refusal(add('third', '/tides', { page: toPageId('nowhere') }))).toBe('redirect-to-no-page');
    expect(refusal(add('third', '/tides', { page: toPageId('more') }))).toBe('redirect-to-no-page');
  });

  it('is never made for an address that a page has; a pattern may lie over it', () => {
    expect(refusal(add('third', '/visit', 'gone'))).toBe('redirect-in-use');
    expect(refusal(add('third', '/visit/*', 'gone'))).toBe('made');
  });

  it('is one for its address, whatever form its letters have', () => {
    expect(refusal(add('third', '/find-us', 'gone'))).toBe('redirect-twice');
    expect(refusal(add('first', '/other', 'gone'))).toBe('redirect-exists');
    const accented = siteAfter([add('third', '/caf\u00e9', 'gone')], site);
    expect(refusal(add('fourth', '/cafe\u0301', 'gone'), accented)).toBe('redirect-twice');
  });

  it('is one of so many at most', () => {
    const full: Site = {
      ...site,
      settings: {
        ...site.settings,
        redirects: Array.from({ length: MAX_REDIRECTS }, (_, n) => ({ id: id(`r${n}`), from: `/r${n}`, to: 'gone' })),
      },
    };
    expect(refusal(add('third', '/tides', 'gone'), full)).toBe('redirect-too-many');
  });

  it.each(['find-us', '/find us', '/a/../b', '/*', '/a/*/b', '/a#b', '/a/', '//'])(
    'is not taken for %s, which is no address of the site',
    (from) => {
      expect(operationSchema.safeParse(add('third', from, 'gone')).success).toBe(false);
    },
  );

  it.each(['/a', '/find-us', '/old/*', '/index.php?id=4', '/caf\u00e9/men\u00fc'])('is taken for %s', (from) => {
    expect(operationSchema.safeParse(add('third', from, 'gone')).success).toBe(true);
  });
});

describe('a redirect that is changed or taken away', () => {
  it('leads elsewhere, and back by undoing', () => {
    const outcome = applyOperation(site, { name: 'redirect.set', redirect: id('first'), to: 'gone' });
    if (!outcome.ok) throw new Error(outcome.code);
    expect(outcome.site.settings.redirects[0]).toMatchObject({ from: '/find-us', to: 'gone' });
    expect(siteAfter([...outcome.inverse], outcome.site).settings.redirects).toEqual(site.settings.redirects);
    const same = applyOperation(site, { name: 'redirect.set', redirect: id('second'), to: 'gone' });
    expect(same.ok && same.site).toBe(site);
    expect(refusal({ name: 'redirect.set', redirect: id('nowhere'), to: 'gone' })).toBe('redirect-unknown');
  });

  it('comes back at its place by undoing, also where a page has its address by now', () => {
    const outcome = applyOperation(site, { name: 'redirect.remove', redirect: id('first') });
    if (!outcome.ok) throw new Error(outcome.code);
    expect(froms(outcome.site)).toEqual(['/fair-1999']);
    expect(froms(siteAfter([...outcome.inverse], outcome.site))).toEqual(['/find-us', '/fair-1999']);
    const taken = siteAfter(
      [{ name: 'page.add', page: toPageId('find'), place: { parent: null }, title: { en: 'Find us' } }],
      outcome.site,
    );
    expect(froms(siteAfter([...outcome.inverse], taken))).toEqual(['/find-us', '/fair-1999']);
    expect(refusal({ name: 'redirect.remove', redirect: id('nowhere') })).toBe('redirect-unknown');
  });

  it('is told in words', () => {
    expect(wordsOf(add('third', '/tides', { url: 'https://tides.example/' }), site)).toBe(
      'made /tides lead to https://tides.example/',
    );
    expect(wordsOf(add('third', '/tides', { page: visit }), site)).toBe('made /tides lead to ‘Visit’');
    expect(wordsOf({ name: 'redirect.set', redirect: id('first'), to: 'gone' }, site)).toBe(
      'made /find-us lead nowhere any more',
    );
    expect(wordsOf({ name: 'redirect.remove', redirect: id('second') }, site)).toBe(
      'removed the redirect from /fair-1999',
    );
  });
});
