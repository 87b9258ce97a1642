import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { giveAudience, giveGoal, giveLabel, giveLayout, giveMenu } from '../arrange/give.ts';
import { ruleOf } from '../model/access.ts';
import { closureOf } from '../model/audience.ts';
import type { PageId } from '../model/ids.ts';
import { isKind } from '../model/page-label.ts';
import { type Site, ancestorsOf, nodeAt } from '../model/site.ts';
import { applyOperations } from '../operations/apply.ts';
import type { Operation } from '../operations/operation.ts';
import { holds } from '../testing/holds.ts';
import { anySite } from '../testing/random-site.ts';
import { NOBODY_KNOWN, accessReason } from './access.ts';
import { menuTableOf } from './menu-table.ts';
import { layoutWithReason } from './layouts.ts';
import { outlineOf } from './outline.ts';
import {
  type Touched,
  touchedByAudience,
  touchedByGoal,
  touchedByLabel,
  touchedByLayout,
  touchedByOpening,
} from './touched.ts';

const pagesIn = (site: Site) => outlineOf(site).nodes.filter(({ type }) => type === 'page');

describe('what a setting touches', () => {
  it('is for a layout the pages that take it, each with who names it', () => {
    let touched = 0;
    holds(
      fc.property(anySite, (site) => {
        for (const { id: layout } of site.settings.layouts) {
          const found = touchedByLayout(site, outlineOf(site), layout);
          for (const { id } of pagesIn(site)) {
            const by = layoutWithReason(site, id);
            const through = by.namedBy === null ? 'site' : by.namedBy === id ? 'itself' : by.namedBy;
            expect(found.get(id)).toBe(by.layout.id === layout ? through : undefined);
            touched += found.has(id) ? 1 : 0;
          }
        }
      }),
    );
    expect(touched).toBeGreaterThan(100);
  });

  it('is for a label the pages that bear it and those below, as far as none stands alone', () =>
    holds(
      fc.property(anySite, (site) => {
        for (const label of site.settings.labels) {
          const found = touchedByLabel(site, outlineOf(site), label.id);
          const isOfOwn = isKind(label) && Object.keys(label.rule).length === 0;
          for (const node of pagesIn(site)) {
            const chain = [node, ...ancestorsOf(site, node.id)];
            const end = chain.findIndex((one) => ruleOf(one).labels.includes(label.id) || ruleOf(one).standsAlone);
            const bearer = end === -1 ? undefined : chain[end]!;
            const isReached = bearer !== undefined && ruleOf(bearer).labels.includes(label.id);
            const through = end === 0 ? 'itself' : isOfOwn ? undefined : bearer?.id;
            expect(found.get(node.id)).toBe(isReached ? through : undefined);
          }
        }
      }),
    ));

  it('is for an audience what is below a page that names it too', () =>
    holds(
      fc.property(anySite, (site) => {
        for (const { id } of site.settings.audiences)
          for (const [page, through] of touchedByAudience(site, outlineOf(site), id)) {
            if (through !== 'itself') expect(ancestorsOf(site, page).map((above) => above.id)).toContain(through);
          }
      }),
    ));
});

describe('what a visitor can open', () => {
  it('is what access says page by page, as everyone or by the nearest page that keeps others out', () => {
    const met = { everyone: 0, itself: 0, above: 0 };
    holds(
      fc.property(anySite, (site) => {
        const at = Date.parse('2026-05-01T00:00:00Z');
        for (const { id: audience } of site.settings.audiences) {
          const visitor = closureOf(site.settings.audiences, [audience]);
          const found = touchedByOpening(site, outlineOf(site), visitor, at);
          for (const { id } of pagesIn(site)) {
            const reason = accessReason(site, id, visitor, at);
            const everyones = accessReason(site, id, NOBODY_KNOWN, at);
            const nearest = everyones.chain.findLast(({ by, keepsOut }) => by === 'audiences' && keepsOut)?.page;
            const through = everyones.opens ? 'everyone' : nearest === id ? 'itself' : nearest;
            expect(found.get(id)).toBe(reason.opens ? through : undefined);
            if (reason.opens) met[everyones.opens ? 'everyone' : nearest === id ? 'itself' : 'above']++;
          }
        }
      }),
    );
    for (const times of Object.values(met)) expect(times).toBeGreaterThan(50);
  });
});

describe('what is put into a menu', () => {
  it('is not left out any more, once and for all', () => {
    const met = { given: 0, byHand: 0 };
    holds(
      fc.property(anySite, fc.nat(), fc.array(fc.nat(), { minLength: 1, maxLength: 4 }), (site, which, places) => {
        const { menus } = site.settings;
        const { nodes, rowOf } = outlineOf(site);
        if (menus.length === 0 || nodes.length === 0) return;
        const { id } = menus[which % menus.length]!;
        const chosen = [...new Set(places.map((at) => nodes[at % nodes.length]!.id))];
        const edits = giveMenu(site, chosen, id);
        const outcome = applyOperations(site, edits);
        expect(outcome.ok).toBe(true);
        if (!outcome.ok) return;
        const menu = outcome.site.settings.menus.find((one) => one.id === id)!;
        const { answerAt } = menuTableOf(outcome.site, menu);
        for (const page of chosen)
          expect(['off menus', 'left out here', 'not arranged', 'proposed']).not.toContain(answerAt(rowOf.get(page)!));
        expect(giveMenu(outcome.site, chosen, id)).toEqual([]);
        if (edits.length > 0) met.given++;
        if (edits.length > 0 && menu.isByHand) met.byHand++;
      }),
    );
    expect(Math.min(met.given, met.byHand)).toBeGreaterThan(5);
  });
});

describe('what is given to pages', () => {
  const given: readonly {
    readonly what: string;
    readonly ids: (site: Site) => readonly string[];
    readonly give: (site: Site, pages: readonly PageId[], id: never) => Operation[];
    readonly touched: (site: Site, id: never) => Touched;
  }[] = [
    {
      what: 'a layout',
      ids: (site) => site.settings.layouts.map(({ id }) => id),
      give: giveLayout,
      touched: (site, id) => touchedByLayout(site, outlineOf(site), id),
    },
    {
      what: 'a label',
      ids: (site) => site.settings.labels.map(({ id }) => id),
      give: giveLabel,
      touched: (site, id) => touchedByLabel(site, outlineOf(site), id),
    },
    {
      what: 'an audience',
      ids: (site) => site.settings.audiences.map(({ id }) => id),
      give: giveAudience,
      touched: (site, id) => touchedByAudience(site, outlineOf(site), id),
    },
    {
      what: 'a goal',
      ids: (site) => site.goals.map(({ id }) => id),
      give: giveGoal,
      touched: (site, id) => touchedByGoal(outlineOf(site), id),
    },
  ];
  it.each(given)('touches them by themselves, and is given once: $what', ({ ids, give, touched }) => {
    let count = 0;
    holds(
      fc.property(anySite, fc.nat(), fc.array(fc.nat(), { minLength: 1, maxLength: 4 }), (site, which, places) => {
        const [all, pages] = [ids(site), pagesIn(site)];
        if (all.length === 0 || pages.length === 0) return;
        const id = all[which % all.length] as never;
        const chosen = [...new Set(places.map((at) => pages[at % pages.length]!.id))];
        const outcome = applyOperations(site, give(site, chosen, id));
        expect(outcome.ok).toBe(true);
        if (!outcome.ok) return;
        for (const page of chosen) expect(touched(outcome.site, id).get(page)).toBe('itself');
        expect(give(outcome.site, chosen, id)).toEqual([]);
        for (const page of chosen) {
          const borne = ruleOf(nodeAt(outcome.site, page)).labels;
          expect(
            outcome.site.settings.labels.filter((one) => isKind(one) && borne.includes(one.id)).length,
          ).toBeLessThan(2);
        }
        count += 1;
      }),
    );
    expect(count).toBeGreaterThan(5);
  });
});
