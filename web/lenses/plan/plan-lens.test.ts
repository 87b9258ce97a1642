import { describe, expect, it } from 'vitest';
import { type Filter, filterRows } from '#core/derive/filters.ts';
import { derivedOf } from '#core/derive/derived.ts';
import { type PageId, toPageId } from '#core/model/ids.ts';
import type { GoalId, SketchId, PlanChange } from '#core/model/plan.ts';
import type { VariantId } from '#core/model/sketch.ts';
import { siteAfter } from '#core/testing/random-site.ts';
import { planNotes } from './plan-map-notes.ts';
import { PLAN_COLUMNS, ownersOf } from './plan-columns.tsx';
import { dayWords } from '../../tree/plan-words.tsx';
import type { Workbench } from '../../workbench/workbench-context.tsx';
import { inOrder, linesBySide } from './carry-over/list-order.ts';
import type { Line, OldPageWire } from './carry-over/carry-over-context.ts';
import { titleOfOld } from './carry-over/old-words.ts';
import { PLAN_FILTERS } from './plan-filters.ts';

const id = toPageId;
const page = (name: string, plan: PlanChange = {}, parent: string | null = null) => ({
  name: 'page.add' as const,
  page: id(name),
  place: { parent: parent === null ? null : id(parent) },
  title: { en: name },
  plan,
});
const QUESTION = { text: 'Why?', by: 'Ines', at: '2026-11-25T09:00:00Z', answer: '', settledBy: null };
const site = siteAfter([
  { name: 'goal.add', goal: 'g1' as GoalId, statement: 'More applicants' },
  page('top'),
  page(
    'a',
    { origin: 'keep', owner: 'Bram, Jr', due: '2020-01-01', readiness: 'drafting', goals: ['g1' as GoalId] },
    'top',
  ),
  {
    name: 'sketch.add',
    sketch: 's1' as SketchId,
    title: 'Open',
    variants: ['v1', 'v2'].map((variant) => ({ id: variant as VariantId, name: variant, boxes: [] })),
  },
  page(
    'b',
    { origin: 'new', due: '2099-01-01', importance: 1, questions: { q1: QUESTION }, sketch: 's1' as SketchId },
    'top',
  ),
  page(
    'c',
    { owner: 'Ines', due: '2020-01-01', readiness: 'ready', oldAddresses: ['/c.html'], goals: ['gone' as GoalId] },
    'top',
  ),
]);
const derived = derivedOf(site);
const rowOf = (name: string) => derived.outline.rowOf.get(id(name))!;

describe('the filters of the Plan lens', () => {
  const found = (filter: Filter): string[] => {
    const facts = { site, derived, changes: null, texts: null, feedback: null, faults: null, moment: null };
    return [...filterRows(facts, PLAN_FILTERS, { query: '', filter }).matches].map(
      (row) => derived.outline.nodes[row]!.id,
    );
  };

  it.each<[Filter, string[]]>([
    [{ origin: ['keep', 'new'] }, ['a', 'b']],
    [{ origin: ['none'] }, ['top', 'c']],
    [{ readiness: ['ready'] }, ['c']],
    [{ plan: ['late'] }, ['a']],
    [{ plan: ['questions'] }, ['b']],
    [{ plan: ['no-goal'] }, ['top', 'b', 'c']],
    [{ plan: ['old'] }, ['c']],
    [{ plan: ['open-sketch'] }, ['b']],
    [{ plan: ['unsketched'] }, ['top', 'a', 'c']],
    [{ plan: ['unowned'], origin: ['new'] }, ['b']],
    [{ importance: ['1'] }, ['b']],
    [{ owner: ['Bram%2C%20Jr'] }, ['a']],
    [{ goal: ['g1'] }, ['a']],
  ])('%j leave %j', (filter, expected) => expect(found(filter)).toEqual(expected));

  it('offer the owners and the goals that the site has', () => {
    const valuesOf = (key: string) =>
      PLAN_FILTERS.find((one) => one.key === key)!.valuesOf!({ site, derived }).map(({ words }) => words);
    expect(valuesOf('owner')).toEqual(['Bram, Jr', 'Ines']);
    expect(valuesOf('goal')).toEqual(['More applicants (1)']);
    expect(ownersOf(site)).toEqual(['Bram, Jr', 'Ines']);
  });
});

describe('the columns of the Plan lens', () => {
  const values = (column: string, name: string) =>
    PLAN_COLUMNS.find((one) => one.key === column)!.values({ site, derived } as Workbench, rowOf(name));

  it('show each page’s own plan, and what its branch comes to', () => {
    expect(values('origin', 'a')).toEqual(['keep']);
    expect(values('due', 'top')).toEqual([null, '2020-01-01', true]);
    expect(values('due', 'c')).toEqual(['2020-01-01', null, false]);
    expect(values('branch', 'top')).toEqual([2, 1, 0, 1]);
    expect(values('branch', 'a')).toEqual([]);
    expect(values('questions', 'top')).toEqual([0, 1]);
    expect(values('old-addresses', 'c')).toEqual(['/c.html']);
  });

  it('give way where there is no room, but for the readiness', () =>
    expect(PLAN_COLUMNS.filter((one) => !one.isMinor).map((one) => one.key)).toEqual(['readiness']));
});

describe('the map in the Plan lens', () => {
  const noted = { site, derived, moment: null, feedback: null, findings: null, guest: null };
  it('says of each page where it comes from, how far it is, and what is asked', () => {
    const note = planNotes(noted);
    expect(note(rowOf('a'))).toEqual({ origin: 'keep', words: 'Keep · drafting · Bram, Jr · 1 Jan 2020' });
    expect(note(rowOf('b'))!.words).toBe('New · importance 1 · 1 Jan 2099 · 1 question');
    expect(note(rowOf('top'))).toBeNull();
  });

  it('says how important a page is, and that there are notes', () => {
    const noteworthy = siteAfter(
      [{ name: 'page.set', page: toPageId('b'), fields: { plan: { importance: 1, notes: 'notes001' as never } } }],
      site,
    );
    const note = planNotes({ ...noted, site: noteworthy, derived: derivedOf(noteworthy) });
    expect(note(rowOf('b'))!.words).toBe('New · importance 1 · 1 Jan 2099 · notes · 1 question');
  });

  it('leaves the year out of days of this one', () =>
    expect(dayWords('2026-12-03', new Date('2026-11-25T12:00:00'))).toBe('3 Dec'));
});

describe('the lists of the carry-over', () => {
  const old = (address: string, visits: number | null, title = ''): OldPageWire => ({
    address,
    title,
    description: '',
    headings: [],
    words: null,
    linksIn: null,
    linksOut: null,
    status: null,
    visits,
  });
  const pages = [old('/1', 5), old('/2', null), old('/3', 90)];
  const partners: Readonly<Record<string, PageId>> = { '/1': id('c'), '/3': id('a') };
  const orderOf = (order: 'plan' | 'visits' | 'address') =>
    inOrder(pages, order, (address) => partners[address], derived.outline.rowOf).map(({ address }) => address);

  it('stand as the plan does, by visits, or by address', () => {
    expect(orderOf('plan')).toEqual(['/3', '/1', '/2']);
    expect(orderOf('visits')).toEqual(['/3', '/1', '/2']);
    expect(orderOf('address')).toEqual(['/1', '/2', '/3']);
  });

  it('have their lines by either side', () => {
    const line = (from: string, to: string): Line => ({ old: from, planned: id(to), look: 'accepted', pair: null });
    const { ofOld, ofPlanned } = linesBySide([line('/1', 'a'), line('/1', 'b'), line('/3', 'a')]);
    expect(ofOld.get('/1')!.map(({ planned }) => planned)).toEqual(['a', 'b']);
    expect(ofPlanned.get(id('a'))!.map((one) => one.old)).toEqual(['/1', '/3']);
  });

  it('call an old page by its title without the name of the site, or by its address', () => {
    expect(titleOfOld(old('https://old.example/x', null, 'Oars :: The School'))).toBe('Oars');
    expect(titleOfOld(old('https://old.example/x?y=1', null))).toBe('/x?y=1');
  });
});
