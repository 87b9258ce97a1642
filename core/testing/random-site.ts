import fc from 'fast-check';
import type { AccessChange, LabelId, PassphraseId } from '../model/access.ts';
import { type AudienceId, EVERYONE } from '../model/audience.ts';
import { type ContentId, type PageId, toPageId, toSiteKey } from '../model/ids.ts';
import { factIdSchema } from '../model/fact.ts';
import { STANDARD_LAYOUT, layoutIdSchema } from '../model/layout.ts';
import { entryIdSchema, entryOf, toMenuId } from '../model/menu.ts';
import { HIDDEN, NODE_TYPES } from '../model/node.ts';
import { ABOUT, type LabelRule } from '../model/page-label.ts';
import { type GoalId, ORIGINS, type PlanChange, READINESS } from '../model/plan.ts';
import { type Site, makeSite, newSettings } from '../model/site.ts';
import { applyOperation } from '../operations/apply.ts';
import type { Operation } from '../operations/operation.ts';
import { anyRedirectEdit } from './random-redirects.ts';

/** An empty site, for tests. */
export const emptySite = (): Site => makeSite(toSiteKey('test-site'), newSettings('Test site', 'en'), []);

/** Ids from a small pool, so that operations meet each other. */
export const IDS: readonly PageId[] = Array.from({ length: 14 }, (_, n) => toPageId(`p${n}`));
const id = fc.constantFrom(...IDS);
const maybeId = fc.option(id, { nil: null, freq: 3 });
const place = fc.record({ parent: maybeId, after: fc.option(maybeId, { nil: undefined }) });
const title = fc.constantFrom(
  'Courses',
  'Evening classes',
  'courses',
  'Search',
  'Ökonomie & Übung',
  '工房',
  '…',
  'Apply',
);
const slug = fc.oneof(
  fc.record({
    text: fc.constantFrom('courses', 'apply', 'evening-classes', 'werk', 'search', 'Ünder', 'no slug!'),
    own: fc.constant(true),
  }),
  fc.constant({ text: '', own: false }),
);
const target = fc.oneof(fc.record({ page: id }), fc.constant({ url: 'https://ferry.example/timetable' }));
const content = fc.constantFrom(...['aaaaaaaaaaaa', 'bbbbbbbbbbbb']) as fc.Arbitrary<ContentId>;

const optional = <T>(value: fc.Arbitrary<T>) => fc.option(value, { nil: undefined, freq: 2 });

const goal = fc.constantFrom(...(['g1', 'g2', 'g3'] as GoalId[]));
const question = fc.record({
  text: fc.constantFrom('Who writes it?', 'Is it needed?'),
  by: fc.constant('Ines'),
  at: fc.constantFrom('2026-11-25T09:00:00Z', '2026-11-25T10:00:00Z'),
  answer: fc.constantFrom('', 'Yes.'),
  settledBy: fc.constantFrom(null, 'Ines'),
});
const planChange: fc.Arbitrary<PlanChange> = fc.record(
  {
    origin: fc.constantFrom(...ORIGINS, null),
    purpose: fc.constantFrom('', ' For the curious. '),
    owner: fc.constantFrom('', 'Bram  Hollis'),
    due: fc.constantFrom(null, '2027-03-01'),
    readiness: fc.constantFrom(...READINESS),
    importance: fc.constantFrom(1, 2, 3, null),
    words: fc.constantFrom(0, 300, null),
    goals: fc.array(goal, { maxLength: 3 }),
    oldAddresses: fc.array(fc.constantFrom('/old', '/older'), { maxLength: 3 }),
    references: fc.array(id, { maxLength: 2 }),
    notes: fc.option(content, { nil: null }),
    questions: fc.dictionary(fc.constantFrom('q1', 'q2'), fc.option(question, { nil: null }), { maxKeys: 2 }),
  },
  { requiredKeys: [] },
);

const audience = fc.constantFrom(...(['staff', 'students', 'governors'] as AudienceId[]));
const anyAudience = fc.oneof(audience, fc.constant(EVERYONE));
const moment = fc.constantFrom('2026-11-01T00:00:00Z', '2026-12-01T00:00:00Z', '2027-01-01T00:00:00Z');
const passphrase = fc.constantFrom(...(['passphraseOfTests1', 'passphraseOfTests2'] as PassphraseId[]));
const label = fc.constantFrom(...(['handbook', 'archive'] as LabelId[]));
const about = fc.constantFrom(...ABOUT);
const labelRule: fc.Arbitrary<LabelRule> = fc.record(
  {
    only: fc.option(fc.array(anyAudience, { minLength: 1, maxLength: 2 }), { nil: null }),
    except: fc.array(audience, { maxLength: 1 }),
    closedLook: fc.constantFrom('out-of-sight' as const, 'locked' as const, null),
    from: fc.option(moment, { nil: null }),
    search: fc.constantFrom('no' as const, 'page' as const, 'branch' as const),
    engines: fc.constantFrom('no' as const, 'branch' as const),
  },
  { requiredKeys: [] },
);
const accessChange: fc.Arbitrary<AccessChange> = fc.record(
  {
    only: fc.option(fc.array(anyAudience, { minLength: 1, maxLength: 2 }), { nil: null }),
    except: fc.array(audience, { maxLength: 2 }),
    standsAlone: fc.boolean(),
    closedLook: fc.constantFrom('out-of-sight' as const, 'locked' as const, null),
    from: fc.option(moment, { nil: null }),
    until: fc.option(moment, { nil: null }),
    engines: fc.constantFrom('no' as const, 'page' as const, 'branch' as const),
    search: fc.constantFrom('no' as const, 'page' as const, 'branch' as const),
    standsIn: fc.constantFrom('sign-in' as const, 'not-found' as const, null),
    menuFor: fc.constantFrom('signed-in' as const, 'signed-out' as const, null),
    passphrase: fc.option(passphrase, { nil: null, freq: 2 }),
    labels: fc.array(label, { maxLength: 2 }),
  },
  { requiredKeys: [] },
);

const menu = fc.constantFrom(...['main', 'footer'].map(toMenuId));
const entry = fc.constantFrom(...[...IDS.map(entryOf), ...['e1', 'e2'].map((one) => entryIdSchema.parse(one))]);
const only = fc.option(fc.array(audience, { minLength: 1, maxLength: 2 }), { nil: null, freq: 4 });
/** A new entry: of a page, under the page's id, or one of another kind under an id that no page has. */
const newEntry = fc.oneof(
  id.map((page) => ({ entry: entryOf(page), target: { page } })),
  fc.record({
    entry: fc.constantFrom(...['e1', 'e2'].map((one) => entryIdSchema.parse(one))),
    target: fc.constantFrom({ url: 'https://ferry.example/' }, { does: 'sign-in' as const }, null),
  }),
);
const anyMenuEdit = fc.oneof(
  fc.record({
    name: fc.constant('menu.add' as const),
    menu,
    after: fc.option(fc.option(menu, { nil: null }), { nil: undefined }),
    title: fc.constantFrom('Footer', ' '),
  }),
  fc.record({
    name: fc.constant('menu.set' as const),
    menu,
    fields: fc.record(
      {
        title: fc.constantFrom('Below', ''),
        root: fc.oneof(fc.constantFrom('site' as const, 'section' as const), fc.record({ page: id })),
        levels: fc.integer({ min: 1, max: 3 }),
        order: fc.constantFrom('tree' as const, 'alphabet' as const),
        withRoot: fc.boolean(),
        headings: fc.constantFrom('text' as const, 'first page' as const),
        isByHand: fc.boolean(),
        takesSafe: fc.boolean(),
      },
      { requiredKeys: [] },
    ),
  }),
  fc.record({ name: fc.constant('menu.remove' as const), menu }),
  fc.record({
    name: fc.constant('layout.set' as const),
    layout: fc.constant(STANDARD_LAYOUT.id),
    fields: fc.record(
      {
        title: fc.constantFrom('Pages', ''),
        menus: fc.record({
          utility: fc.constant(null),
          header: fc.option(menu, { nil: null }),
          side: fc.option(menu, { nil: null }),
          footer: fc.option(menu, { nil: null }),
        }),
      },
      { requiredKeys: [] },
    ),
  }),
) as fc.Arbitrary<Operation>;
const trailSetting = fc.record({
  isShown: fc.boolean(),
  start: fc.oneof(
    fc.constant('top' as const),
    fc.record({ page: id }),
    fc.record({ up: fc.integer({ min: 1, max: 3 }) }),
  ),
  withHome: fc.boolean(),
  homeLabel: fc.constantFrom({}, { en: 'Start' }),
  leadIn: fc.constantFrom({}, { en: 'You are here:' }),
  current: fc.constantFrom('shown' as const, 'linked' as const, 'left out' as const),
  separator: fc.constant('/'),
  most: fc.constantFrom(null, 3),
});
const layout = fc.constantFrom(...['standard', 'bare'].map((one) => layoutIdSchema.parse(one)));
const frameChange = fc.record(
  {
    layout: fc.option(layout, { nil: null }),
    trail: fc.option(fc.record({ setting: trailSetting, reach: fc.constantFrom('page' as const, 'branch' as const) }), {
      nil: null,
    }),
    listing: fc.constantFrom(null, { look: 'cards' as const, levels: 2, order: 'date' as const }),
    date: fc.constantFrom(null, '2026-11-01', '2026-12-24'),
  },
  { requiredKeys: [] },
);
const fact = fc.constantFrom(...['telephone', 'ferry'].map((one) => factIdSchema.parse(one)));
const anyFrameEdit = fc.oneof(
  fc.record({
    name: fc.constant('layout.add' as const),
    layout,
    after: fc.option(fc.option(layout, { nil: null }), { nil: undefined }),
    title: fc.constantFrom('Bare', ' '),
    fields: optional(fc.record({ header: fc.constantFrom('none' as const, 'tall' as const) })),
  }),
  fc.record({
    name: fc.constant('layout.set' as const),
    layout,
    fields: fc.record(
      { hasTurns: fc.boolean(), hasFooter: fc.boolean(), trail: fc.option(trailSetting, { nil: null }) },
      { requiredKeys: [] },
    ),
  }),
  fc.record({ name: fc.constant('layout.remove' as const), layout }),
  fc.record({
    name: fc.constant('fact.add' as const),
    fact,
    after: fc.option(fc.option(fact, { nil: null }), { nil: undefined }),
    title: fc.constantFrom('Ferry', ''),
  }),
  fc.record({
    name: fc.constant('fact.set' as const),
    fact,
    fields: fc.record({ text: fc.constantFrom('01632 960 001', ''), inFooter: fc.boolean() }, { requiredKeys: [] }),
  }),
  fc.record({ name: fc.constant('fact.remove' as const), fact }),
  fc.record({ name: fc.constant('site.set' as const), fields: fc.record({ trail: trailSetting }) }),
  fc.record({ name: fc.constant('page.set' as const), page: id, fields: fc.record({ frame: frameChange }) }),
) as fc.Arbitrary<Operation>;
const anyEntryEdit = fc.oneof(
  fc
    .tuple(
      newEntry,
      fc.record({
        name: fc.constant('entry.add' as const),
        menu,
        label: fc.constantFrom({ en: 'Words' }, {}),
        only,
        under: fc.option(entry, { nil: null }),
        after: fc.option(fc.option(entry, { nil: null }), { nil: undefined }),
      }),
    )
    .map(([one, others]) => ({ ...others, ...one })),
  fc.record({
    name: fc.constant('entry.set' as const),
    menu,
    entry,
    fields: fc.record(
      {
        label: fc.record({ en: fc.constantFrom('Own words', '') }),
        only,
        isLeftOut: fc.boolean(),
        pin: fc.constantFrom('first' as const, 'last' as const, null),
      },
      { requiredKeys: [] },
    ),
  }),
  fc.record({
    name: fc.constant('entry.move' as const),
    menu,
    entry,
    under: fc.option(entry, { nil: null }),
    after: fc.option(fc.option(entry, { nil: null }), { nil: undefined }),
  }),
  fc.record({ name: fc.constant('entry.remove' as const), menu, entry }),
) as fc.Arbitrary<Operation>;

/** Any edit, valid for the site at hand or not. */
export const anyEdit: fc.Arbitrary<Operation> = fc.oneof(
  {
    weight: 5,
    arbitrary: fc.record({
      name: fc.constant('page.add' as const),
      page: id,
      place,
      type: fc.constantFrom(...NODE_TYPES, 'page' as const, 'page' as const),
      title: fc.record({ en: title }),
      slug: optional(fc.record({ en: slug })),
      inMenus: fc.boolean(),
      hidden: fc.constantFrom(...HIDDEN, 'no' as const, 'no' as const),
      inAddress: fc.boolean(),
      target: optional(target),
      access: optional(accessChange),
      frame: optional(frameChange),
      plan: optional(planChange),
    }) as fc.Arbitrary<Operation>,
  },
  { weight: 4, arbitrary: fc.record({ name: fc.constant('page.move' as const), page: id, place }) },
  {
    weight: 4,
    arbitrary: fc.record({
      name: fc.constant('page.set' as const),
      page: id,
      fields: fc.record(
        {
          type: fc.constantFrom(...NODE_TYPES),
          title: fc.record({ en: fc.oneof(title, fc.constant('')) }),
          label: fc.record({ en: fc.constantFrom('', 'Short') }),
          slug: fc.record({ en: slug }),
          description: fc.record({ en: fc.constantFrom('', 'About this.') }),
          inMenus: fc.boolean(),
          hidden: fc.constantFrom(...HIDDEN),
          inAddress: fc.boolean(),
          target: fc.option(target, { nil: null }),
          content: fc.option(content, { nil: null }),
          access: accessChange,
          plan: planChange,
        },
        { requiredKeys: [] },
      ),
    }) as fc.Arbitrary<Operation>,
  },
  { weight: 2, arbitrary: fc.record({ name: fc.constant('page.remove' as const), page: id }) },
  { weight: 2, arbitrary: fc.record({ name: fc.constant('page.putBack' as const), page: id }) },
  {
    weight: 2,
    arbitrary: fc.record({
      name: fc.constant('page.copy' as const),
      page: id,
      place,
      ids: fc.dictionary(id, id, { minKeys: 1, maxKeys: 8 }),
    }) as fc.Arbitrary<Operation>,
  },
  { weight: 2, arbitrary: fc.record({ name: fc.constant('page.erase' as const), page: id }) },
  {
    weight: 1,
    arbitrary: fc.oneof(
      fc.record({
        name: fc.constant('goal.add' as const),
        goal,
        after: fc.option(fc.option(goal, { nil: null }), { nil: undefined }),
        statement: fc.constantFrom('More applicants', ' '),
      }),
      fc.record({
        name: fc.constant('goal.set' as const),
        goal,
        fields: fc.record(
          { statement: fc.constantFrom('More', ''), measure: fc.constant('20 a year') },
          { requiredKeys: [] },
        ),
      }),
      fc.record({ name: fc.constant('goal.remove' as const), goal }),
    ),
  },
  {
    weight: 3,
    arbitrary: fc.oneof(
      fc.record({
        name: fc.constant('audience.add' as const),
        audience,
        after: fc.option(fc.option(audience, { nil: null }), { nil: undefined }),
        title: fc.constantFrom('Staff', 'Readers', ' '),
        includes: optional(fc.array(audience, { maxLength: 2 })),
      }),
      fc.record({
        name: fc.constant('audience.set' as const),
        audience,
        fields: fc.record(
          {
            title: fc.constantFrom('People', ''),
            includes: fc.array(audience, { maxLength: 2 }),
            landing: fc.option(id, { nil: null }),
          },
          { requiredKeys: [] },
        ),
      }),
      fc.record({ name: fc.constant('audience.remove' as const), audience }),
      fc.record({
        name: fc.constant('label.add' as const),
        label,
        after: fc.option(fc.option(label, { nil: null }), { nil: undefined }),
        title: fc.constantFrom('Handbook', ' '),
        rule: optional(labelRule),
        about: optional(about),
      }),
      fc.record({
        name: fc.constant('label.set' as const),
        label,
        fields: fc.record(
          {
            title: fc.constantFrom('Handbook', 'Old papers', ''),
            rule: labelRule,
            about: fc.option(about, { nil: null }),
          },
          { requiredKeys: [] },
        ),
      }),
      fc.record({ name: fc.constant('label.remove' as const), label }),
    ) as fc.Arbitrary<Operation>,
  },
  { weight: 3, arbitrary: fc.oneof(anyMenuEdit, anyEntryEdit, anyFrameEdit) },
  { weight: 1, arbitrary: anyRedirectEdit(id) },
  {
    weight: 1,
    arbitrary: fc.record({
      name: fc.constant('oldPage.decide' as const),
      address: fc.constantFrom('/old', '/older'),
      fields: fc.record(
        {
          letGo: fc.oneof(fc.constant(null), fc.constant('gone' as const), fc.record({ page: id })),
          declined: fc.array(id, { maxLength: 3 }),
        },
        { requiredKeys: [] },
      ),
    }),
  },
  {
    weight: 1,
    arbitrary: fc.record({
      name: fc.constant('site.set' as const),
      fields: fc.record(
        {
          name: fc.constantFrom('Pellow', ' ', 'Tern'),
          home: maybeId,
          timeZone: fc.constantFrom('Europe/London', 'Quay/Side'),
        },
        { requiredKeys: [] },
      ),
    }),
  },
);

/** The site that comes of the operations that are not refused. */
export function siteAfter(operations: readonly Operation[], site = emptySite()): Site {
  let at = site;
  for (const operation of operations) {
    const outcome = applyOperation(at, operation);
    if (outcome.ok) at = outcome.site;
  }
  return at;
}

/** An empty site, or one that has the audiences and labels already that edits name. */
const anyStart: fc.Arbitrary<Site> = fc.oneof(
  fc.constant(emptySite()),
  fc.tuple(labelRule, labelRule).map(([first, second]) =>
    siteAfter([
      ...['staff', 'students', 'governors'].map((one): Operation => ({
        name: 'audience.add',
        audience: one as AudienceId,
        title: one,
        includes: one === 'students' ? ['staff' as AudienceId] : [],
      })),
      { name: 'label.add', label: 'handbook' as LabelId, title: 'Handbook', rule: first },
      { name: 'label.add', label: 'archive' as LabelId, title: 'Old papers', rule: second, about: 'article' },
    ]),
  ),
);

/** A random site: what comes of random edits. */
export const anySite: fc.Arbitrary<Site> = fc
  .tuple(anyStart, fc.array(anyEdit, { minLength: 5, maxLength: 60, size: 'max' }))
  .map(([start, edits]) => siteAfter(edits, start));

/** A site as plain data, for comparing. Lists of children are in it, so that a broken index shows. */
export function plain(site: Site): unknown {
  const sorted = <V>(entries: Iterable<[string | null, V]>) =>
    Object.fromEntries(
      [...entries].map(([key, value]) => [key ?? '', value] as const).sort(([a], [b]) => (a < b ? -1 : 1)),
    );
  return JSON.parse(
    JSON.stringify({
      settings: site.settings,
      liveSettings: site.liveSettings,
      goals: site.goals,
      oldPages: sorted(site.oldPages.entries()),
      nodes: sorted(site.nodes.entries()),
      children: sorted(site.children.entries()),
      live: sorted(site.live.entries()),
    }),
  );
}
