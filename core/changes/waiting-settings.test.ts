import { expect, it } from 'vitest';
import { toPageId } from '../model/ids.ts';
import { MAIN_MENU } from '../model/menu.ts';
import { siteAfter } from '../testing/random-site.ts';
import { waitingSettings } from './waiting-settings.ts';

it('are the settings that differ from what visitors have, until a release, even one of no page', () => {
  const page = toPageId('home');
  const draft = siteAfter([{ name: 'page.add', page, place: { parent: null }, title: { en: 'Home' } }]);
  expect(waitingSettings(draft)).toEqual([]);
  const live = siteAfter([{ name: 'release.make', pages: [page], retire: [] }], draft);
  expect(waitingSettings(live)).toEqual([]);
  const changed = siteAfter(
    [
      { name: 'menu.set', menu: MAIN_MENU.id, fields: { levels: 3 } },
      { name: 'site.set', fields: { name: 'Another name' } },
    ],
    live,
  );
  expect(waitingSettings(changed)).toEqual(['name', 'menus']);
  const back = siteAfter([{ name: 'menu.set', menu: MAIN_MENU.id, fields: { levels: 2 } }], changed);
  expect(waitingSettings(back)).toEqual(['name']);
  expect(waitingSettings(siteAfter([{ name: 'release.make', pages: [], retire: [] }], changed))).toEqual([]);
});
