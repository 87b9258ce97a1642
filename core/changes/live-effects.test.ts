import { describe, expect, it } from 'vitest';
import type { AudienceId } from '../model/audience.ts';
import { toPageId } from '../model/ids.ts';
import type { Site } from '../model/site.ts';
import type { Operation } from '../operations/operation.ts';
import { emptySite, siteAfter } from '../testing/random-site.ts';
import { liveEffects } from './live-effects.ts';
import { planRelease, waitingPages } from './release-plan.ts';
import { settingsItems } from './settings-items.ts';

const id = toPageId;
const NOW = Date.parse('2026-11-26T00:00:00Z');
const NOTHING: ReadonlySet<string> = new Set();
const add = (page: string, title: string, parent: string | null = null, more: object = {}): Operation => ({
  name: 'page.add',
  page: id(page),
  place: { parent: parent === null ? null : id(parent) },
  title: { en: title },
  ...more,
});
const slug = (page: string, text: string): Operation => ({
  name: 'page.set',
  page: id(page),
  fields: { slug: { en: { text, own: true } } },
});
const released = (site: Site, ...operations: Operation[]): Site => {
  const edited = siteAfter(operations, site);
  return planRelease(edited, { pages: waitingPages(edited), retire: [] }).after;
};
const start = released(
  siteAfter(
    [
      { name: 'audience.add', audience: 'staff' as AudienceId, title: 'Staff' },
      add('home', 'Home'),
      add('courses', 'Courses'),
      add('evening', 'Evening', 'courses'),
      add('visit', 'Visit'),
      add('way', 'The way here', null, { type: 'link', target: { page: id('visit') } }),
    ],
    emptySite(),
  ),
);

describe('what visitors notice of a release', () => {
  it('is nothing where nothing differs', () => {
    const { came, went, addresses, redirects, menus, audiences, settings } = liveEffects(start, start, NOW, NOTHING);
    expect([came, went, addresses, redirects, menus, audiences, settings].flat()).toEqual([]);
  });

  it('is the addresses that change with the redirects that are made, and those that end', () => {
    const after = released(start, slug('courses', 'learn'));
    expect(liveEffects(start, after, NOW, NOTHING)).toMatchObject({
      addresses: [
        { page: 'courses', before: '/courses', after: '/learn' },
        { page: 'evening', before: '/courses/evening', after: '/learn/evening' },
      ],
      redirects: [
        { from: '/courses', to: '/learn' },
        { from: '/courses/evening', to: '/learn/evening' },
      ],
    });
    const back = released(after, slug('courses', 'courses'));
    expect(liveEffects(after, back, NOW, new Set(['/courses', '/courses/evening'])).backInUse).toEqual([
      '/courses',
      '/courses/evening',
    ]);
  });

  it('is where the address of a page that goes leads', () => {
    const effects = liveEffects(start, released(start, { name: 'page.remove', page: id('visit') }), NOW, NOTHING);
    expect(effects).toMatchObject({ went: ['visit'], redirects: [{ from: '/visit', to: '/' }] });
  });

  it('is who loses a page, and what their menus lose', () => {
    const only = ['staff' as AudienceId];
    const after = released(start, { name: 'page.set', page: id('courses'), fields: { access: { only } } });
    const { audiences, menusOf } = liveEffects(start, after, NOW, NOTHING);
    expect(audiences).toMatchObject([{ audience: 'everyone', loses: ['courses', 'evening'], gains: [] }]);
    expect(menusOf[0]!.loses.map(({ before }) => before!.text)).toEqual(['Courses', 'Evening']);
  });
});

describe('what of the settings a release takes along', () => {
  const plan = (site: Site, page: string) => planRelease(site, { pages: [id(page)], retire: [], settings: [] });

  it('is what its pages name and visitors do not have, and in turn what that names', () => {
    const site = siteAfter(
      [
        { name: 'audience.add', audience: 'students' as AudienceId, title: 'Students' },
        { name: 'label.add', label: 'papers' as never, title: 'Papers', rule: { only: ['students' as AudienceId] } },
        { name: 'page.set', page: id('visit'), fields: { access: { labels: ['papers' as never] } } },
      ],
      start,
    );
    expect(plan(site, 'visit').parts).toEqual([
      { part: 'labels', of: { page: 'visit' } },
      { part: 'audiences', of: { part: 'labels' } },
    ]);
    expect(plan(siteAfter([slug('visit', 'find-us')], site), 'courses').parts).toEqual([]);
  });

  it('is the menus that name a page which goes live for the first time', () => {
    const site = siteAfter(
      [
        add('news', 'News'),
        {
          name: 'entry.add',
          menu: 'main' as never,
          entry: 'news' as never,
          target: { page: id('news') },
          label: {},
          under: null,
        },
      ],
      siteAfter([{ name: 'menu.set', menu: 'main' as never, fields: { root: { page: id('courses') } } }], start),
    );
    expect(plan(site, 'news').parts).toEqual([{ part: 'menus', of: { page: 'news' } }]);
  });
});

it('what differs within a part of the settings is told by name', () => {
  const site = siteAfter(
    [
      { name: 'audience.set', audience: 'staff' as AudienceId, fields: { title: 'Everybody here' } },
      { name: 'audience.add', audience: 'students' as AudienceId, title: 'Students' },
      { name: 'site.set', fields: { name: 'Quay' } },
    ],
    start,
  );
  expect(settingsItems(start.settings, site.settings, 'audiences')).toEqual({
    kind: 'things',
    came: ['Students'],
    went: [],
    changed: ['Everybody here'],
  });
  expect(settingsItems(start.settings, site.settings, 'name')).toEqual({
    kind: 'value',
    before: 'Test site',
    after: 'Quay',
  });
});
