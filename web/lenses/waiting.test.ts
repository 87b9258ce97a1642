import { describe, expect, it } from 'vitest';
import { linkFindings } from '#core/checks/link-findings.ts';
import { pageFindings } from '#core/checks/page-checks.ts';
import { derivedOf } from '#core/derive/derived.ts';
import { toPageId } from '#core/model/ids.ts';
import type { Operation } from '#core/operations/operation.ts';
import { siteAfter } from '#core/testing/random-site.ts';
import { checksWaiting } from './checks/checks-waiting.ts';
import { menusWaiting } from './menus/menus-waiting.ts';
import { planWaiting } from './plan/plan-waiting.ts';
import { differs, publishWaiting, removedButLive } from './publish/publish-waiting.ts';
import { writeWaiting } from './write/write-waiting.ts';

const NOW = Date.parse('2026-11-26T12:00:00Z');
const id = toPageId;
const add = (page: string, more: object = {}): Operation => ({
  name: 'page.add',
  page: id(page),
  place: { parent: null },
  title: { en: page },
  description: { en: page },
  content: 'text0001' as never,
  ...more,
});
const WAITING = {
  plan: planWaiting,
  write: writeWaiting,
  menus: menusWaiting,
  publish: publishWaiting,
  checks: checksWaiting,
};

/** What waits under a lens after these operations, with all that is found of pages and links. */
const waiting = (lens: keyof typeof WAITING, operations: Operation[], { toSettle = 0, isKnown = true } = {}) => {
  const site = siteAfter(operations);
  const byPage = <Found extends { page: string }>(found: readonly Found[]) =>
    new Map(found.map(({ page }) => [id(page), found.filter((one) => one.page === page)]));
  const findings = isKnown
    ? { ofLinks: byPage(linkFindings(site, NOW, [])), ofPages: byPage(pageFindings(site, NOW, [])) }
    : { ofLinks: null, ofPages: null };
  const facts = { site, derived: derivedOf(site), toSettle, findings, settingsFindings: [] };
  const { count, words } = WAITING[lens](facts);
  return `${count}: ${words}`;
};

describe('what waits', () => {
  it('to be written are pages without text', () => {
    expect(
      waiting('write', [add('home'), add('visit', { content: null }), add('more', { type: 'heading', content: null })]),
    ).toBe('1: 1 without text');
  });

  it('to be planned are open questions, and what others said', () => {
    const ask: Operation = {
      name: 'page.set',
      page: id('home'),
      fields: {
        plan: {
          questions: { q1: { text: 'Who?', by: 'Ines', at: '2026-11-26T09:00:00.000Z', answer: '', settledBy: null } },
        },
      },
    };
    expect(waiting('plan', [add('home'), ask])).toBe('1: 1 open question');
    expect(waiting('plan', [add('home'), ask], { toSettle: 3 })).toBe('4: 1 open question, 3 comments to settle');
    expect(waiting('plan', [add('home')], { toSettle: 3 })).toBe('3: 3 comments to settle');
  });

  it('to be published is what differs from what is live, removed pages that are live still among it', () => {
    const live: Operation[] = [
      add('home'),
      add('visit'),
      add('gone'),
      { name: 'release.make', pages: ['home', 'visit', 'gone'].map(id), retire: [] },
    ];
    expect(waiting('publish', live)).toBe('0: 0 differ from what is live');
    const changed: Operation[] = [
      ...live,
      { name: 'page.set', page: id('visit'), fields: { title: { en: 'Come' } } },
      { name: 'page.remove', page: id('gone') },
      add('new'),
    ];
    expect(waiting('publish', changed)).toBe('3: 3 differ from what is live');
    const site = siteAfter(changed);
    expect(removedButLive(site)).toEqual(['gone']);
    expect(['home', 'visit', 'gone'].map((page) => differs(site, id(page)))).toEqual([false, true, true]);
  });

  it('to be checked are links that lead astray and pages that lack something, as far as they are known', () => {
    const operations = [
      add('home'),
      add('hidden', { hidden: 'page' }),
      add('way', { type: 'link', content: null, target: { page: id('hidden') } }),
      add('bare', { content: null }),
      add('apart', { inMenus: false, description: {} }),
    ];
    expect(waiting('checks', operations)).toBe('3: 1 link to mend, 2 pages that lack something');
    expect(waiting('checks', operations, { isKnown: false })).toBe('0: 0 links to mend');
    expect(waiting('checks', [add('home'), add('bare', { content: null })])).toBe('1: 1 page that lacks something');
  });

  it('in menus are links that lead nowhere', () => {
    expect(
      waiting('menus', [
        add('home'),
        add('hidden', { hidden: 'page' }),
        add('way', { type: 'link', content: null, target: { page: id('hidden') } }),
      ]),
    ).toBe('1: 1 that lead nowhere');
  });
});
