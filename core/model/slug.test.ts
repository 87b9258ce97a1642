import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { derivedOf } from '../derive/derived.ts';
import { applyOperation } from '../operations/apply.ts';
import type { Operation } from '../operations/operation.ts';
import { settleReserved } from '../operations/settle-reserved.ts';
import { emptySite, siteAfter } from '../testing/random-site.ts';
import { toPageId } from './ids.ts';
import type { Site } from './site.ts';
import { withNodes } from './site-edit.ts';
import { isReservedSlug, isSlug, slugFromTitle } from './slug.ts';

const add = (id: string, title: string, more: Partial<Extract<Operation, { name: 'page.add' }>> = {}): Operation => ({
  name: 'page.add',
  page: toPageId(id),
  place: { parent: null },
  title: { en: title },
  ...more,
});
const addressOf = (site: Site, id: string) => {
  const derived = derivedOf(site);
  return derived.addresses[derived.outline.rowOf.get(toPageId(id))!];
};

describe('a slug from a title', () => {
  it.each([
    ['Evening classes', 'evening-classes'],
    ['  Crème brûlée & Übung  ', 'creme-brulee-ubung'],
    ['Строить лодки', 'stroit-lodki'],
    ['工房', 'gong-fang'],
    ['Cooper’s Hard', 'coopers-hard'],
    ['…', 'page'],
    ['🚢', 'page'],
  ])('%s becomes %s', (title, slug) => expect(slugFromTitle(title)).toBe(slug));

  it('is always fit for an address', () => {
    holds(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 200 }), (title) => {
        const slug = slugFromTitle(title);
        expect(isSlug(slug)).toBe(true);
        expect(slug.length).toBeLessThanOrEqual(60);
      }),
      { numRuns: 150 },
    );
  });
});

describe('the slug of a page', () => {
  it('follows the title until somebody chooses another, and again when that is removed', () => {
    const page = toPageId('a');
    const set = (fields: object): Operation => ({ name: 'page.set', page, fields });
    let site = siteAfter([add('home', 'Home'), add('a', 'Courses')]);
    const step = (operation: Operation) => {
      site = siteAfter([operation], site);
      return addressOf(site, 'a');
    };
    expect(step(set({ title: { en: 'All courses' } }))).toBe('/all-courses');
    expect(step(set({ slug: { en: { text: 'learn', own: true } } }))).toBe('/learn');
    expect(step(set({ title: { en: 'Classes' } }))).toBe('/learn');
    expect(step(set({ slug: { en: { text: '', own: false } } }))).toBe('/classes');
  });

  it('is settled with -2 among siblings, and among the children of a heading that adds no step', () => {
    const site = siteAfter([
      add('home', 'Home'),
      add('a', 'Apply'),
      add('b', 'Apply'),
      add('h', 'Good to know', { type: 'heading' }),
      add('c', 'Apply', { place: { parent: toPageId('h') } }),
    ]);
    expect(['a', 'b', 'c'].map((id) => addressOf(site, id))).toEqual(['/apply', '/apply-2', '/apply-3']);
  });

  it('stays while the page moves among its siblings, whatever has become free', () => {
    const site = siteAfter([
      add('home', 'Home'),
      add('a', 'Apply'),
      add('b', 'Apply'),
      { name: 'page.remove', page: toPageId('a') },
      { name: 'page.move', page: toPageId('b'), place: { parent: null, after: toPageId('home') } },
    ]);
    expect(addressOf(site, 'b')).toBe('/apply-2');
  });

  it('cannot be one that the site needs at its root, but can be deeper', () => {
    const site = siteAfter([
      add('home', 'Home'),
      add('a', 'Apply'),
      add('b', 'Find', { place: { parent: toPageId('a') } }),
    ]);
    const search = { slug: { en: { text: 'search', own: true } } };
    expect(applyOperation(site, { name: 'page.set', page: toPageId('a'), fields: search })).toMatchObject({
      ok: false,
      code: 'slug-reserved',
    });
    expect(applyOperation(site, { name: 'page.set', page: toPageId('b'), fields: search })).toMatchObject({ ok: true });
    expect(addressOf(siteAfter([add('home', 'Home'), add('a', 'Search')]), 'a')).toBe('/search-2');
  });

  it('makes way when another page becomes home, and comes back into use then', () => {
    const site = siteAfter([
      add('home', 'Welcome'),
      add('a', 'Apply'),
      { name: 'site.set', fields: { home: toPageId('a') } },
    ]);
    expect([addressOf(site, 'home'), addressOf(site, 'a')]).toEqual(['/welcome', '/']);
  });
});

describe('reserved slugs', () => {
  it.each(['index.html', 'feed.xml', 'con', 'CON', 'aux.txt', 'lpt1', 'com9.tar'])('%s is for no page', (text) => {
    expect(isReservedSlug(text)).toBe(true);
  });

  it.each(['sitemap.xml', 'sitemap-2.xml', '404.html', 'redirects.htaccess', 'search'])(
    '%s is for none right below the root',
    (text) => {
      expect([isReservedSlug(text), isReservedSlug(text, true)]).toEqual([false, true]);
    },
  );

  it.each(['contact', 'auxiliary', 'com', 'index', 'feed', 'con-2', 'com10'])('%s is free', (text) => {
    expect(isReservedSlug(text, true)).toBe(false);
  });

  it('are given to no page that follows its title, and those of before are settled', () => {
    const page = (id: string, title: string, parent: string | null) => ({
      name: 'page.add' as const,
      page: toPageId(id),
      place: { parent: parent === null ? null : toPageId(parent) },
      title: { en: title },
    });
    const site = siteAfter([page('home', 'Home', null), page('a', 'Con', null), page('b', 'Aux', 'a')], emptySite());
    expect(['a', 'b'].map((id) => site.nodes.get(toPageId(id))!.slug.en!.text)).toEqual(['con-2', 'aux-2']);
    const put = (id: string, text: string, own: boolean) => {
      const node = site.nodes.get(toPageId(id))!;
      return { ...node, slug: { en: { text, own } } };
    };
    const former = { ...site, nodes: withNodes(site, [put('a', 'con', false), put('b', 'index.html', true)]).nodes };
    const settled = siteAfter(settleReserved(former), former);
    expect(['a', 'b'].map((id) => settled.nodes.get(toPageId(id))!.slug.en)).toEqual([
      { text: 'con-2', own: false },
      { text: 'index.html-page', own: true },
    ]);
    expect(settleReserved(settled)).toEqual([]);
  });
});
