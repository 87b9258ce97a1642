import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { XmlText } from 'yjs';
import { toPageId, toSiteKey } from '#core/model/ids.ts';
import { siteAfter } from '#core/testing/random-site.ts';
import type { JointAnswer, JointBody } from '#contract/joint-text.ts';
import { SiteStore } from '../api/site-store.ts';
import { HeldServer, settle, stubWindow } from '../testing/held-server.ts';
import { JointText } from './joint-text.ts';

const PAGE = toPageId('visit');
/** What the server answers to what is written: a page that takes it, or a problem. */
type Answering = (body: JointBody) => Partial<JointAnswer> | { readonly code: string };

let answering: Answering;
let store: SiteStore;
let text: JointText;
beforeEach(async () => {
  vi.useFakeTimers();
  const server = new HeldServer(
    siteAfter([{ name: 'page.add', page: PAGE, place: { parent: null }, title: { en: 'Visit' } }]),
  );
  answering = () => ({});
  stubWindow();
  const timers = { setTimeout, clearTimeout, setInterval, clearInterval };
  vi.stubGlobal('window', { ...window, ...timers });
  vi.stubGlobal('fetch', (path: string, init: { body: string }) => {
    if (!path.endsWith('/joint')) return server.fetch(path, init);
    const given = answering(JSON.parse(init.body) as JointBody);
    const plain = { base: 'b', seq: 0, savedSeq: 0, savedRevision: 0, update: null, problem: null };
    return Promise.resolve(
      'code' in given
        ? Response.json(
            { type: '/problems/x', title: 'x', status: 409, detail: 'It is not taken.', ...given },
            { status: 409 },
          )
        : Response.json({ ...plain, ...given }),
    );
  });
  store = await SiteStore.open(toSiteKey('test-site'));
  text = await JointText.open(store, { of: 'page', id: PAGE });
});
afterEach(() => {
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

const write = async (words: string) => {
  text.fragment.push([new XmlText(words)]);
  await settle();
};
const after = async (ms: number) => {
  await vi.advanceTimersByTimeAsync(ms);
  await settle();
};

describe('what is written in a text', () => {
  it('is being saved until the page has it, and then saved', async () => {
    answering = ({ update, save }) => ({ seq: 1, savedSeq: update === null || save ? 1 : 0 });
    await write('Tides.');
    expect(store.getShown()).toMatchObject({ isSaving: true, isRefused: false });
    await after(500);
    expect(store.getShown()).toMatchObject({ isSaving: true, isRefused: false });
    text.settle();
    await after(500);
    expect(store.getShown()).toMatchObject({ isSaving: false, isRefused: false });
    expect(text.sendBeforeLeaving()).toBe(true);
  });

  it.each(['no-permission', 'text-began-anew'])('is never called saved where it is refused (%s)', async (code) => {
    answering = () => ({ code });
    await write('Tides.');
    await after(500);
    // Nobody waits for it for ever, and whoever closes the page is warned.
    expect(store.getShown()).toMatchObject({ isSaving: false, isRefused: true });
    expect(text.sendBeforeLeaving()).toBe(false);
  });

  it('is called refused while the page is gone, and saved when that has come back', async () => {
    answering = () => ({ code: 'page-unknown' });
    await write('Tides.');
    await after(500);
    expect(store.getShown()).toMatchObject({ isSaving: false, isRefused: true });
    expect(text.sendBeforeLeaving()).toBe(false);
    answering = () => ({ seq: 1, savedSeq: 1 });
    await after(3500);
    expect(store.getShown()).toMatchObject({ isSaving: false, isRefused: false });
    expect(text.sendBeforeLeaving()).toBe(true);
  });

  it('that does not fit into the page has arrived all the same', async () => {
    answering = () => ({ seq: 1, problem: 'A text has at most 200,000 characters.' });
    await write('Tides.');
    await after(500);
    expect(store.getShown()).toMatchObject({ isSaving: false, isRefused: true });
    expect(text.sendBeforeLeaving()).toBe(true);
  });
});
