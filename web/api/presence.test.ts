import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { toPageId, toSiteKey } from '#core/model/ids.ts';
import type { HereNews } from '#contract/presence.ts';
import { Presence } from './presence.ts';

const [visit, news] = [toPageId('visit'), toPageId('news')];
const layout = { setting: 'layouts/wide' };
/** What the others were told, the tab left out. */
let told: unknown[];
let presence: Presence;
beforeEach(() => {
  vi.useFakeTimers();
  vi.stubGlobal('window', { setTimeout, clearTimeout });
  told = [];
  vi.stubGlobal('fetch', (_: string, { body }: { body: string }) => {
    const { tab, ...rest } = JSON.parse(body) as { tab: string };
    told.push(rest);
    return Promise.resolve(Response.json({ tab }));
  });
  presence = new Presence(toSiteKey('quay'));
});
afterEach(() => {
  vi.unstubAllGlobals();
  vi.useRealTimers();
});
const hear = (tab: string, given: Partial<HereNews>) =>
  presence.hear({ tab, by: 'Marek', page: null, setting: null, field: null, isHere: true, ...given });

describe('what others change', () => {
  it('is known by its place, and forgotten when they go or are no longer heard of', () => {
    hear('a', { page: visit, setting: layout.setting, field: 'Name' });
    hear('b', { by: 'Teo', page: visit, field: 'Slug' });
    expect([...presence.changersAt(layout)]).toEqual([['Name', 'Marek']]);
    expect([...presence.changersAt({ page: visit })]).toEqual([['Slug', 'Teo']]);
    expect([...presence.changersAt({ page: news })]).toEqual([]);
    expect(presence.getHere().get(visit)).toBe('Marek\nTeo');
    hear('a', { isHere: false });
    expect([...presence.changersAt(layout)]).toEqual([]);
    vi.advanceTimersByTime(60_000);
    expect(presence.getHere().size).toBe(0);
  });
});

describe('what is changed here', () => {
  it('is told with its place, and stays told while the page is selected', () => {
    presence.tellHere(visit);
    presence.tellField({ page: visit }, 'Slug');
    presence.tellField({ page: visit }, 'Slug');
    presence.tellHere(visit);
    presence.tellHere(news);
    expect(told).toEqual([
      { page: visit, setting: null, field: null },
      { page: visit, setting: null, field: 'Slug' },
      { page: visit, setting: null, field: 'Slug' },
      { page: news, setting: null, field: null },
    ]);
  });

  it('is no longer told once its place is closed, however the keyboard left it', () => {
    presence.tellHere(visit);
    presence.tellField(layout, 'Name');
    presence.leaveFields({ page: visit });
    expect(told.at(-1)).toEqual({ page: visit, setting: layout.setting, field: 'Name' });
    presence.leaveFields(layout);
    expect(told.at(-1)).toEqual({ page: visit, setting: layout.setting, field: null });
    const { length } = told;
    presence.leaveFields(layout);
    expect(told).toHaveLength(length);
  });
});
