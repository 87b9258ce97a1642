import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fieldContextOf } from '../fields/context.ts';
import { FIELD_TYPE } from '../fields/all-types.ts';
import { detailOf, maybeField } from '../fields/values.ts';
import { EVERYONE } from '../model/audience.ts';
import type { PageId } from '../model/ids.ts';
import type { FieldId, KindField } from '../model/kind-field.ts';
import { kindAmong } from '../model/page-label.ts';
import { type Site, ancestorsOf, branchOf, nodeAt } from '../model/site.ts';
import {
  CONDITION_TESTS,
  type ListCondition,
  type PageListSetting,
  PLAIN_PAGE_LIST,
  THIS_PAGE,
  TODAY,
} from '../sections/page-list.ts';
import { Draw } from '../testing/draw.ts';
import { drawDetails } from '../testing/draw-field-edits.ts';
import { holds } from '../testing/holds.ts';
import { anyPlantedSite, siteAfter } from '../testing/random-site.ts';
import type { Operation } from '../operations/operation.ts';
import { type Membership, accessReason } from './access.ts';
import { namedBy } from './named-by.ts';
import { holds as isAsAsked, listedPages } from './page-list.ts';
import { outlineOf } from './outline.ts';
import { visitorView } from './visitor-view.ts';

const AT = Date.parse('2026-11-26T12:00:00Z');
const DAYS = ['2026-11-01', '2027-03-05', '2027-03-07', '2028-01-01'];

/** A site in which half of the pages are of a kind with fields, and say something in these. */
function withDetails(site: Site, seed: number): Site {
  const draw = new Draw(seed);
  const kinds = site.settings.labels.filter(({ about }) => about !== undefined);
  const pages = branchOf(site, null).filter((id) => nodeAt(site, id).type === 'page');
  return siteAfter(
    pages.flatMap((page): Operation[] => {
      const kind = draw.maybeOf(kinds);
      const details = drawDetails(site, draw);
      return [
        ...(kind ? [{ name: 'page.set', page, fields: { access: { labels: [kind.id] } } } as Operation] : []),
        ...(details ? [{ name: 'page.set', page, fields: { details } } as Operation] : []),
      ];
    }),
    site,
  );
}

const fieldsOf = (site: Site): KindField[] => site.settings.labels.flatMap(({ fields }) => fields ?? []);

/** Most ask of a page what it says. */
function drawCondition(site: Site, pages: readonly PageId[], draw: Draw): ListCondition {
  const filled = pages.filter((id) => fieldsOfPage(site, id).length > 0);
  const like = draw.chance(0.8) ? draw.maybeOf(filled) : undefined;
  const field = draw.maybeOf(like === undefined ? fieldsOf(site).map(({ id }) => id) : fieldsOfPage(site, like));
  const said = like === undefined || field === undefined ? '' : nodeAt(site, like).details![field]!;
  return {
    field: field ?? ('gone' as FieldId),
    test: draw.of(CONDITION_TESTS),
    value: draw.chance(0.7) ? said : draw.of([TODAY, THIS_PAGE, 'yes', ...DAYS, draw.maybeOf(pages) ?? 'p0']),
  };
}

/** The fields of its kind in which a page says something. */
function fieldsOfPage(site: Site, page: PageId): FieldId[] {
  const { access, details } = nodeAt(site, page);
  const fields = kindAmong(access?.labels ?? [], site.settings.labels)?.fields ?? [];
  return fields.map(({ id }) => id).filter((id) => details?.[id] !== undefined);
}

function drawSetting(site: Site, draw: Draw): PageListSetting {
  const fields = fieldsOf(site);
  const field = () => draw.maybeOf(fields)?.id ?? ('gone' as FieldId);
  const pages = branchOf(site, null);
  return {
    ...PLAIN_PAGE_LIST,
    of: draw.chance(0.5) ? null : (draw.maybeOf(pages) ?? null),
    from: draw.of(['branch', 'site', 'site', 'chosen'] as const),
    chosen: draw.some(pages, 0, 6),
    kind: draw.chance(0.6) ? null : (draw.maybeOf(site.settings.labels)?.id ?? null),
    where: Array.from({ length: draw.of([0, 1, 1, 2]) }, () => drawCondition(site, pages, draw)),
    order: draw.of(['tree', 'field'] as const),
    by: field(),
    isReversed: draw.chance(0.3),
    most: draw.of([0, 0, 3]),
  };
}

const above = (site: Site, id: PageId): PageId[] => ancestorsOf(site, id).map((node) => node.id);

/** The same list by going through the whole tree, page by page. */
function slowList(site: Site, page: PageId, setting: PageListSetting, today: string, member: Membership): Set<PageId> {
  const context = fieldContextOf(site, today);
  const { labels } = site.settings;
  return new Set(
    branchOf(site, null).filter((id) => {
      const node = nodeAt(site, id);
      const isHidden = [id, ...above(site, id)].some((up) => {
        const { hidden } = nodeAt(site, up);
        return hidden === 'branch' || (hidden === 'page' && up === id);
      });
      if (node.type !== 'page' || id === page || isHidden || (node.access?.standsIn ?? null) !== null) return false;
      if (!accessReason(site, id, member, AT).opens) return false;
      if (setting.from === 'chosen' && !setting.chosen.includes(id)) return false;
      if (setting.from === 'branch' && !above(site, id).includes(setting.of ?? page)) return false;
      const borne = node.access?.labels ?? [];
      if (setting.kind !== null && !borne.includes(setting.kind)) return false;
      return setting.where.every((condition) => {
        // What is not yet said what to compare with asks nothing.
        if (condition.value === '' && !/said/.test(condition.test)) return true;
        const found = maybeField(labels, condition.field);
        if (!found || found.field.isRemoved || kindAmong(borne, labels)?.id !== found.label.id) return false;
        return isAsAsked(condition, found.field, detailOf(node.details, found.field, context), { page, today });
      });
    }),
  );
}

describe('a list of pages', () => {
  it('has what going through the whole tree finds, for whoever reads it, whatever it asks', () => {
    let listed = 0;
    let asked = 0;
    holds(
      fc.property(anyPlantedSite, fc.nat(), fc.constantFrom(...DAYS), (planted, seed, today) => {
        const site = withDetails(planted, seed);
        const draw = new Draw(seed + 1);
        const page = draw.maybeOf(branchOf(site, null).filter((id) => nodeAt(site, id).type === 'page'));
        if (page === undefined) return;
        const setting = drawSetting(site, draw);
        const all = site.settings.audiences.map(({ id }) => id);
        const member: Membership = new Set([EVERYONE, ...(draw.chance(0.7) ? all : [])]);
        const { derived, locked } = visitorView(site, member, AT, false);
        const groups = listedPages(
          site,
          derived,
          page,
          setting,
          fieldContextOf(site, today),
          (row) => locked[row] === 1,
        );
        const got = groups.flatMap(({ rows }) => rows.map((row) => derived.outline.nodes[row]!.id));
        const wanted = slowList(site, page, setting, today, member);
        const of = setting.of ?? page;
        const row = derived.outline.rowOf.get(of)!;
        const isShut = setting.from === 'branch' && (derived.hiddenBy[row] !== -1 || locked[row] === 1);
        if (isShut) return void expect(got).toEqual([]);
        listed += got.length;
        if (setting.where.length > 0 && got.length > 0) asked++;
        if (setting.most === 0) expect(new Set(got)).toEqual(wanted);
        else {
          expect(got).toHaveLength(Math.min(setting.most, wanted.size));
          for (const one of got) expect(wanted.has(one)).toBe(true);
        }
      }),
      { numRuns: 250 },
    );
    expect(listed).toBeGreaterThan(100);
    expect(asked).toBeGreaterThan(5);
  });
});

describe('pages that name others in their fields', () => {
  it('are found from the other side, and no others, after any edits', () => {
    let named = 0;
    holds(
      fc.property(anyPlantedSite, fc.nat(), (planted, seed) => {
        const site = withDetails(planted, seed);
        const { labels } = site.settings;
        const pairs = new Set<string>();
        for (const id of branchOf(site, null)) {
          const node = nodeAt(site, id);
          const kind = node.type === 'page' ? kindAmong(node.access?.labels ?? [], labels) : null;
          for (const field of kind?.fields ?? []) {
            const value = node.details?.[field.id];
            if (
              field.type !== 'pages' ||
              field.isRemoved ||
              value === undefined ||
              !FIELD_TYPE.pages.isValue(value, field)
            )
              continue;
            for (const other of value.split(' '))
              if (site.nodes.has(other as PageId)) pairs.add(`${id} ${field.id} ${other}`);
          }
        }
        const { nodes } = outlineOf(site);
        const got = [...site.nodes.keys()].flatMap((id) =>
          namedBy(site, id).flatMap(({ field, rows }) => rows.map((row) => `${nodes[row]!.id} ${field.id} ${id}`)),
        );
        named += got.length;
        expect(got.sort()).toEqual([...pairs].sort());
      }),
      { numRuns: 60 },
    );
    expect(named).toBeGreaterThan(20);
  });
});
