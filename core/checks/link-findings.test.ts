import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { liveSiteOf } from '../derive/live-site.ts';
import { derivedOf } from '../derive/derived.ts';
import { visitorView } from '../derive/visitor-view.ts';
import { planRelease, waitingPages } from '../changes/release-plan.ts';
import { type AudienceId, EVERYONE, closureOf } from '../model/audience.ts';
import { type PageId, toPageId } from '../model/ids.ts';
import type { Operation } from '../operations/operation.ts';
import { IDS, anySite, emptySite, siteAfter } from '../testing/random-site.ts';
import { type TextLink, linkFindings, newFindings, outsideFindings, outsideLinksOf } from './link-findings.ts';

const id = toPageId;
const NOW = Date.parse('2026-11-26T00:00:00Z');
const staff = 'staff' as AudienceId;
const students = 'students' as AudienceId;
const add = (page: string, more: object = {}): Operation => ({
  name: 'page.add',
  page: id(page),
  place: { parent: null },
  title: { en: page },
  ...more,
});
const site = siteAfter(
  [
    { name: 'audience.add', audience: staff, title: 'Staff' },
    { name: 'audience.add', audience: students, title: 'Students' },
    add('home'),
    add('visit'),
    add('group', { type: 'heading' }),
    add('hidden', { hidden: 'page' }),
    add('staffroom', { access: { only: [staff] } }),
    add('rota', { access: { only: [staff] } }),
    add('locked', { access: { only: [staff], closedLook: 'locked' } }),
    add('way', { type: 'link', target: { page: id('hidden') } }),
    add('tides', { type: 'link', target: { url: 'https://tides.example/' } }),
    add('write', { type: 'link', target: { url: 'mailto:desk@tides.example?body=https://tides.example/' } }),
    add('ferry', { type: 'link', target: { url: 'http://ferry.example/' } }),
    add('direct', { type: 'link', target: { page: id('home') } }),
  ],
  emptySite(),
);
const link = (page: string, to: string, heading: string | null = null, hasHeading = true): TextLink => ({
  page: id(page),
  to: id(to),
  heading,
  hasHeading,
});
const told = (...links: TextLink[]) =>
  linkFindings(site, NOW, links).map(({ page, to, fault }) => [page, (to as { page: PageId }).page, fault]);

describe('links to pages of the site', () => {
  it('are told where they lead to nothing, to what is hidden, to what is closed to readers, or to no heading', () => {
    expect(
      told(
        link('visit', 'gone'),
        link('visit', 'group'),
        link('home', 'staffroom'),
        link('home', 'visit', 'by-boat', false),
        link('home', 'visit', 'by-bus'),
      ),
    ).toEqual([
      ['home', 'staffroom', 'closed'],
      ['home', 'visit', 'no heading'],
      ['visit', 'gone', 'not there'],
      ['visit', 'group', 'not there'],
      ['way', 'hidden', 'hidden'],
    ]);
  });

  it('are well where whoever reads them gets an answer: from one closed page to another, or to one with a lock', () =>
    expect(told(link('rota', 'staffroom'), link('home', 'locked'), link('hidden', 'gone'))).toEqual([
      ['way', 'hidden', 'hidden'],
    ]));

  it('are found exactly where some visitor who reads the page gets no answer', () =>
    holds(
      fc.property(anySite, fc.constantFrom(...IDS), fc.constantFrom(...IDS), (any, page, to) => {
        const found = linkFindings(any, NOW, [{ page, to, heading: null, hasHeading: true }]).some(
          (one) => one.page === page && (one.to as { page: PageId }).page === to,
        );
        const audiences = [[EVERYONE], ...any.settings.audiences.map((one) => [one.id])];
        const isDead = audiences.some((own) => {
          const view = visitorView(any, closureOf(any.settings.audiences, own), NOW, !own.includes(EVERYONE));
          const { derived, locked } = view;
          const at = (one: PageId) => derived.outline.rowOf.get(one);
          const [from, target] = [at(page), at(to)];
          if (from === undefined || derived.hiddenBy[from] !== -1 || locked[from] === 1 || view.asks[from] === 1)
            return false;
          return (
            target === undefined ||
            derived.addresses[target] === null ||
            (derived.hiddenBy[target] !== -1 && view.asks[target] === 0)
          );
        });
        const isAlias = derivedOf(any).outline.nodes.some(
          (node) => node.id === page && node.target !== null && 'page' in node.target && node.target.page === to,
        );
        if (!isAlias) expect(found).toBe(isDead);
      }),
      { numRuns: 150 },
    ));

  it('are told of a release where it breaks them, and not again', () => {
    const live = planRelease(site, { pages: waitingPages(site), retire: [] }).after;
    const without = siteAfter([{ name: 'page.remove', page: id('visit') }], live);
    const after = planRelease(without, { pages: waitingPages(without), retire: [] }).after;
    const links = [link('home', 'visit'), link('home', 'gone')];
    const findings = (of: typeof site) => linkFindings(liveSiteOf(of), NOW, links);
    expect(newFindings(findings(live), findings(after))).toMatchObject([{ page: 'home', to: { page: 'visit' } }]);
    expect(newFindings(findings(after), findings(after))).toEqual([]);
  });
});

it('links to outside addresses are told with what these said, in the order of the tree', () => {
  const answers = [
    { address: 'https://tides.example/', fault: 'moved' as const, says: 'https://tides.example/now' },
    { address: 'https://gone.example/a', fault: 'missing' as const, says: 'It answers with 404.' },
  ];
  const texts = [
    { page: id('home'), address: 'https://gone.example/a' },
    { page: id('home'), address: 'https://fine.example/' },
    { page: id('unknown'), address: 'https://gone.example/a' },
  ];
  expect(outsideLinksOf(site, texts)).toEqual([
    { page: 'tides', address: 'https://tides.example/' },
    { page: 'ferry', address: 'http://ferry.example/' },
    ...texts.slice(0, 2),
  ]);
  expect(outsideFindings(site, texts, answers)).toEqual([
    { page: 'home', to: { address: 'https://gone.example/a' }, fault: 'missing', says: 'It answers with 404.' },
    { page: 'tides', to: { address: 'https://tides.example/' }, fault: 'moved', says: 'https://tides.example/now' },
  ]);
});
