import { describe, expect, it } from 'vitest';
import { liveSiteOf } from '../derive/live-site.ts';
import { toPageId } from '../model/ids.ts';
import type { Site } from '../model/site.ts';
import type { Operation } from '../operations/operation.ts';
import { emptySite, siteAfter } from '../testing/random-site.ts';
import { affectedPages } from './affected-pages.ts';
import { planRelease, waitingPages } from './release-plan.ts';

const id = toPageId;
const add = (page: string, parent: string | null = null, more: object = {}): Operation => ({
  name: 'page.add',
  page: id(page),
  place: { parent: parent === null ? null : id(parent) },
  title: { en: page },
  ...more,
});
const set = (page: string, fields: object): Operation => ({ name: 'page.set', page: id(page), fields });
const released = (site: Site, ...operations: Operation[]): Site => {
  const edited = siteAfter(operations, site);
  return planRelease(edited, { pages: waitingPages(edited), retire: [] }).after;
};
const start = released(
  emptySite(),
  add('home'),
  add('courses'),
  add('evening', 'courses'),
  add('visit'),
  add('all', null, { frame: { listing: { look: 'sitemap', levels: 3, order: 'tree' } } }),
  add('door', null, { access: { standsIn: 'sign-in' } }),
);
const affected = (...operations: Operation[]) => {
  const found = affectedPages(liveSiteOf(start), liveSiteOf(released(start, ...operations)));
  return found && [...found].sort();
};

describe('the pages that look otherwise after a release', () => {
  it('are those whose text or description changed, those above, and those that list the whole site', () => {
    expect(affected(set('evening', { description: { en: 'After work.' } }))).toEqual(['all', 'courses', 'evening']);
    expect(affected(set('visit', { description: { en: 'By boat.' } }))).toEqual(['all', 'visit']);
    expect(affected(set('visit', { searchTitle: { en: 'How to get here' } }))).toEqual(['all', 'visit']);
  });

  it('are those that are named in a field, before or after, and no others of their kind', () => {
    const kinds = released(
      start,
      { name: 'label.add', label: 'course', title: 'Course', about: 'course' } as Operation,
      { name: 'field.add', label: 'course', field: 'by', title: 'Teachers', settings: { type: 'pages' } } as Operation,
      ...['ann', 'ben', 'cat'].map((page) => add(page)),
      add('oars', 'courses', { access: { labels: ['course'] }, details: { by: 'ann' } }),
    );
    const after = liveSiteOf(released(kinds, set('oars', { details: { by: 'ben' } })));
    const found = affectedPages(liveSiteOf(kinds), after);
    expect(found && [...found].sort()).toEqual(['all', 'ann', 'ben', 'courses', 'oars']);
  });

  it.each<[string, Operation]>([
    ['a title', set('visit', { title: { en: 'Find us' } })],
    ['an address', set('visit', { slug: { en: { text: 'find-us', own: true } } })],
    ['a place in menus', set('visit', { inMenus: false })],
    ['hiding', set('visit', { hidden: 'page' })],
    ['access', set('visit', { access: { only: [] } })],
    ['a place', { name: 'page.move', page: id('visit'), place: { parent: id('courses') } }],
    ['a new page', add('news')],
    ['a page that goes', { name: 'page.remove', page: id('visit') }],
    ['a setting', { name: 'site.set', fields: { name: 'The Quay' } }],
    ['the home page', { name: 'site.set', fields: { home: id('visit') } }],
    ['the text of a page that stands in', set('door', { description: { en: 'Come in.' } })],
  ])('can be any where %s has changed', (_, operation) => expect(affected(operation)).toBeNull());
});
