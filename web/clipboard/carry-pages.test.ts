import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { carryTo } from '#core/arrange/grow.ts';
import { toPageId, toSiteKey } from '#core/model/ids.ts';
import { maybeNodeAt } from '#core/model/site.ts';
import { SiteStore, newPageId } from '../api/site-store.ts';
import { HeldServer, settle, stubWindow } from '../testing/held-server.ts';
import { siteOf } from '../testing/workbench-for-keys.ts';
import { type CarriedOver, carryPages } from './carry-pages.ts';

const FROM = siteOf(['Tours', '  Boat', 'Visit']);
const CUT = { site: toSiteKey('other-site'), kind: 'cut' } as const;
const PAGES = [toPageId('Tours')];
const plan = () => carryTo(FROM, PAGES, 'en', { parent: toPageId('Home'), after: null }, true, newPageId);

let server: HeldServer;
let store: SiteStore;
beforeEach(async () => {
  vi.useFakeTimers();
  server = new HeldServer(siteOf(['Home', 'News']));
  stubWindow();
  store = await SiteStore.open(toSiteKey('test-site'));
  store.follow();
});
afterEach(() => {
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

/** Lets a carry go on, while the test decides on what it asks of the server. */
function start(clip: Parameters<typeof carryPages>[1]) {
  const asked = plan();
  let result: CarriedOver | null = null;
  void carryPages(store, clip, asked, PAGES).then((made) => (result = made));
  return { asked, result: () => result };
}
const later = async () => {
  await settle();
  await vi.advanceTimersByTimeAsync(40);
  await settle();
};

describe('pages that are cut in another site', () => {
  it('leave it only when they are saved here', async () => {
    const carry = start(CUT);
    await later();
    expect(server.asked.map(({ path }) => path)).toEqual(['/api/sites/test-site/operations']);
    await server.decide();
    server.tell();
    await later();
    const removal = server.asked.shift()!;
    expect([removal.path, removal.body.operations]).toEqual([
      '/api/sites/other-site/operations',
      [{ name: 'page.remove', page: 'Tours' }],
    ]);
    removal.answer(200, { revision: 9, applied: [], inverse: [] });
    await later();
    expect(carry.result()).toEqual({ is: 'here' });
    expect(carry.asked.operations.every(({ page }) => maybeNodeAt(store.getShown().site, page))).toBe(true);
  });

  it('stay there where they are refused here', async () => {
    const carry = start(CUT);
    server.commit([{ name: 'page.remove', page: toPageId('Home') }]);
    await later();
    await server.decide();
    server.tell();
    await later();
    expect(carry.result()).toEqual({ is: 'refused' });
    expect(server.asked).toEqual([]);
  });

  it('stand in both sites where they cannot be taken out of the first one, and it is said why', async () => {
    const carry = start(CUT);
    await later();
    await server.decide();
    server.tell();
    await later();
    const why = 'That is locked. Ask its owner.';
    server.asked.shift()!.answer(403, { type: '/problems/x', title: 'x', status: 403, detail: why, code: 'forbidden' });
    await later();
    expect(carry.result()).toEqual({ is: 'in both', why });
  });
});

describe('pages that are copied in another site', () => {
  it('come here, and nothing is asked of the other site', async () => {
    const carry = start({ ...CUT, kind: 'copy' });
    await later();
    expect(carry.result()).toEqual({ is: 'here' });
    await server.decide();
    server.tell();
    await later();
    expect(server.asked).toEqual([]);
  });
});
