import fc from 'fast-check';
import { type ContentId, type PageId, toPageId, toSiteKey } from '../model/ids.ts';
import { HIDDEN, NODE_TYPES } from '../model/node.ts';
import { type Site, makeSite } from '../model/site.ts';
import { applyOperation } from '../operations/apply.ts';
import type { Operation } from '../operations/operation.ts';

/** An empty site, for tests. */
export const emptySite = (): Site =>
  makeSite(toSiteKey('test-site'), { name: 'Test site', language: 'en', home: null }, []);

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
    arbitrary: fc.record({
      name: fc.constant('site.set' as const),
      fields: fc.record({ name: fc.constantFrom('Pellow', ' ', 'Tern'), home: maybeId }, { requiredKeys: [] }),
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

/** A random site: what comes of random edits. */
export const anySite: fc.Arbitrary<Site> = fc
  .array(anyEdit, { minLength: 5, maxLength: 60, size: 'max' })
  .map((edits) => siteAfter(edits));

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
      nodes: sorted(site.nodes.entries()),
      children: sorted(site.children.entries()),
      live: sorted(site.live.entries()),
    }),
  );
}
