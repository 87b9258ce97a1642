import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { readCsvTable } from '../formats/csv-table.ts';
import { readOpml, writeOpml } from '../formats/opml.ts';
import { readSiteCsv, writeSiteCsv } from '../formats/site-csv.ts';
import { readSiteJson, writeSiteJson } from '../formats/site-json.ts';
import { readIndentedTree, readSitemapTree, writeIndentedTree, writeSitemapFile } from '../formats/tree-lists.ts';
import { derivedOf } from '../derive/derived.ts';
import { type PageId, toPageId } from '../model/ids.ts';
import { planOf } from '../model/plan.ts';
import { type Site, branchOf, nodeAt } from '../model/site.ts';
import { textIn } from '../model/texts.ts';
import type { Operation } from '../operations/operation.ts';
import { anySite, emptySite, siteAfter } from '../testing/random-site.ts';
import { Draw } from '../testing/draw.ts';
import { drawDetails } from '../testing/draw-field-edits.ts';
import { isKind } from '../model/page-label.ts';
import { fieldContextOf } from '../fields/context.ts';
import { fieldsFor, maybeField, valueAs } from '../fields/values.ts';
import type { BroughtTree } from './brought-page.ts';
import { operationsOf, planImport } from './import-plan.ts';
import { planSiteFile } from './site-file-plan.ts';

const TODAY = '2026-11-26';
const newIds = () => {
  let count = 0;
  return (): PageId => toPageId(`new${++count}`);
};
const csv = (text: string, site: Site): BroughtTree => {
  const table = readCsvTable(text);
  if (!table.ok) throw new Error(table.detail);
  return readSiteCsv(table, site, TODAY);
};
const pagesOf = (tree: BroughtTree) => {
  if (!tree.ok) throw new Error(JSON.stringify(tree.faults));
  return tree.pages;
};
const itemsFor = (tree: BroughtTree, site: Site) => planImport(site, pagesOf(tree), newIds());
const imported = (tree: BroughtTree, site: Site): Site =>
  siteAfter(operationsOf(site, itemsFor(tree, site), 'all'), site);

/** What a format is to keep of a site, in tree order. */
const shape = (site: Site, withPlan = true) =>
  branchOf(site, null).map((id) => {
    const node = nodeAt(site, id);
    const { origin, purpose, owner, due, readiness, importance, oldAddresses } = planOf(node);
    return JSON.stringify({
      id,
      parent: node.parent,
      type: node.type,
      title: node.title,
      label: node.label,
      slug: node.slug.en?.text,
      description: node.description,
      inMenus: node.inMenus,
      hidden: node.hidden,
      target: node.target,
      ...(withPlan && { origin, purpose, owner, due, readiness, importance, oldAddresses }),
    });
  });

const NOT_HERE = { de: '', 'cy-GB': '' };
/**
 * A site of one language, without links, without headings that add a step and without menus that begin below a page,
 * which may have been removed: files say nothing of these.
 */
const plainSite = anySite.map((site) =>
  siteAfter(
    [
      { name: 'site.set', fields: { language: 'en' } },
      ...site.settings.menus.map((menu): Operation => ({ name: 'menu.set', menu: menu.id, fields: { root: 'site' } })),
      ...branchOf(site, null).map((page): Operation =>
        nodeAt(site, page).type === 'link'
          ? { name: 'page.remove', page }
          : {
              name: 'page.set',
              page,
              fields: {
                title: { en: textIn(nodeAt(site, page).title, 'en'), ...NOT_HERE },
                label: NOT_HERE,
                description: NOT_HERE,
                ...(nodeAt(site, page).type === 'heading' && { inAddress: false }),
                ...(nodeAt(site, page).slug.en?.text === 'search' && { slug: { en: { text: 'found', own: true } } }),
              },
            },
      ),
    ],
    site,
  ),
);

describe('what is taken along and brought back', () => {
  it('asks for nothing where the site is the same: CSV, OPML, JSON', () => {
    holds(
      fc.property(anySite, (site) => {
        expect(itemsFor(csv(writeSiteCsv(site, TODAY), site), site)).toEqual([]);
        expect(itemsFor(readOpml(writeOpml(site)), site)).toEqual([]);
        const json = readSiteJson(writeSiteJson(site, []));
        if (!('tree' in json)) throw new Error(JSON.stringify(json.faults));
        expect(planSiteFile(site, json.file, pagesOf(json.tree), newIds())).toEqual([]);
      }),
      { numRuns: 100 },
    );
  });

  it('gives back by CSV what pages of a kind say, where somebody took all of it away', () => {
    let said = 0;
    holds(
      fc.property(anySite, fc.nat(), (grown, seed) => {
        const draw = new Draw(seed);
        const pages = branchOf(grown, null).filter((page) => nodeAt(grown, page).type === 'page');
        const kinds = grown.settings.labels.filter(isKind);
        const filled = siteAfter(
          pages.flatMap((page): Operation[] => {
            const kind = draw.maybeOf(kinds);
            const details = drawDetails(grown, draw);
            return kind && details
              ? [{ name: 'page.set', page, fields: { access: { labels: [kind.id] }, details } } as Operation]
              : [];
          }),
          grown,
        );
        const cleared = siteAfter(
          pages.map((page): Operation => {
            const details = Object.fromEntries(Object.keys(nodeAt(filled, page).details ?? {}).map((id) => [id, null]));
            return { name: 'page.set', page, fields: { details } };
          }),
          filled,
        );
        const again = imported(csv(writeSiteCsv(filled, TODAY), cleared), cleared);
        for (const page of pages) {
          const { access, details } = nodeAt(filled, page);
          for (const { id, type } of fieldsFor(access?.labels ?? [], filled.settings.labels)) {
            const value = details?.[id];
            if (
              value === undefined ||
              valueAs(maybeField(filled.settings.labels, id)!.field, value, fieldContextOf(filled, TODAY)) !== value
            )
              continue;
            said++;
            expect([page, type, nodeAt(again, page).details?.[id]]).toEqual([page, type, value]);
          }
        }
      }),
      { numRuns: 80 },
    );
    expect(said).toBeGreaterThan(40);
  });

  it('gives back the same site in an empty one', () => {
    holds(
      fc.property(plainSite, (site) => {
        expect(shape(imported(csv(writeSiteCsv(site, TODAY), emptySite()), emptySite()))).toEqual(shape(site));
        expect(shape(imported(readOpml(writeOpml(site)), emptySite()), false)).toEqual(shape(site, false));
        const json = readSiteJson(writeSiteJson(site, []));
        if (!('tree' in json)) throw new Error(JSON.stringify(json.faults));
        const items = planSiteFile(emptySite(), json.file, pagesOf(json.tree), newIds());
        const again = siteAfter(operationsOf(emptySite(), items, 'all'), emptySite());
        expect(shape(again)).toEqual(shape(site));
        expect(again.settings.audiences.length).toBe(site.settings.audiences.length);
        const { labels, trail, timeZone } = site.settings;
        expect(again.settings).toMatchObject({ labels, trail, timeZone });
        for (const part of ['facts', 'menus', 'layouts', 'redirects'] as const)
          expect(again.settings[part]).toEqual(expect.arrayContaining([...site.settings[part]]));
        for (const id of branchOf(site, null)) expect(nodeAt(again, id).frame).toEqual(nodeAt(site, id).frame);
      }),
      { numRuns: 100 },
    );
  });

  it('keeps titles and depths as an indented list', () => {
    const site = siteAfter([
      ...(['a', 'b', 'c'] as const).map((page, at): Operation => ({
        name: 'page.add',
        page: toPageId(page),
        place: { parent: at === 0 ? null : toPageId('a') },
        title: { en: `Page ${page}` },
      })),
    ]);
    const again = imported(readIndentedTree(writeIndentedTree(site)), emptySite());
    expect(writeIndentedTree(again)).toBe('- Page a\n  - Page b\n  - Page c\n');
    expect(
      derivedOf(imported(readSitemapTree(writeSitemapFile(site, 'https://x.example')), emptySite())).addresses,
    ).toEqual(['/', '/page-b', '/page-c']);
  });
});

describe('an import', () => {
  const add = (page: string, title: string, parent: string | null = null): Operation => ({
    name: 'page.add',
    page: toPageId(page),
    place: { parent: parent === null ? null : toPageId(parent) },
    title: { en: title },
  });
  const site = siteAfter([add('home', 'Home'), add('a', 'Apply'), add('b', 'Boats'), add('c', 'Crew', 'b')]);
  const titles = (of: Site) => branchOf(of, null).map((id) => textIn(nodeAt(of, id).title, 'en'));

  it('matches by id, then by address, and says what is added, moved, changed and removed', () => {
    const items = itemsFor(
      csv('id,parent,title,slug\nhome,,Home,home\nb,,Ships,boats\n,b,Crew,crew\n,b,New one,\n', site),
      site,
    );
    expect(items.map(({ kind, title }) => [kind, title])).toEqual([
      ['changed', 'Boats'],
      ['added', 'New one'],
      ['removed', 'Apply'],
    ]);
  });

  it('of a site file names pages by the ids that they have here: in menus, in redirects, and of their entries', () => {
    const there = siteAfter([
      add('h', 'Home'),
      add('x', 'Apply'),
      { name: 'menu.add', menu: 'foot' as never, title: 'Foot', fields: { root: { page: toPageId('x') } } },
      {
        name: 'menu.set',
        menu: 'foot' as never,
        fields: {
          isByHand: true,
          arranged: {
            settled: [],
            entries: [{ id: 'x', label: {}, target: { page: toPageId('x') }, only: null, below: [] }],
          } as never,
        },
      },
      { name: 'redirect.add', redirect: 'r1' as never, from: '/join', to: { page: toPageId('x') } },
    ]);
    const json = readSiteJson(writeSiteJson(there, []));
    if (!('tree' in json)) throw new Error(JSON.stringify(json.faults));
    const after = siteAfter(
      operationsOf(site, planSiteFile(site, json.file, pagesOf(json.tree), newIds()), 'all'),
      site,
    );
    expect(after.settings.menus.find(({ id }) => id === 'foot')).toMatchObject({
      root: { page: 'a' },
      arranged: { entries: [{ id: 'a', target: { page: 'a' } }] },
    });
    expect(after.settings.redirects).toMatchObject([{ from: '/join', to: { page: 'a' } }]);
  });

  it('moves as few pages as can be', () => {
    const items = itemsFor(csv('id,parent,title\nhome,,Home\nb,,Boats\nc,,Crew\na,,Apply\n', site), site);
    expect(items.map(({ key }) => key)).toEqual(['moved b', 'moved c']);
    expect(titles(siteAfter(operationsOf(site, items, 'all'), site))).toEqual(['Home', 'Boats', 'Crew', 'Apply']);
  });

  it('can be taken in part: what hangs on something that was left is left too', () => {
    const items = itemsFor(csv('id,parent,title\nx,,Extra\ny,x,Below it\n', site), site);
    const chosen = new Set(['added y', 'removed a']);
    expect(titles(siteAfter(operationsOf(site, items, chosen), site))).toEqual(['Home', 'Boats', 'Crew']);
  });

  it.each([
    ['parents in a circle', 'id,parent,title\na1,b1,A\nb1,a1,B\n', [2]],
    ['an id that stands twice', 'id,parent,title\nx,,A\nx,,B\n', [3]],
    ['a parent that is nowhere', 'id,parent,title\nx,nowhere,A\n', [2]],
    ['a row that is its own parent', 'id,parent,title\nx,x,A\n', [2, 2]],
  ])('refuses %s, with the lines', (_, text, lines) => {
    const tree = csv(text, site);
    expect(tree.ok ? [] : tree.faults.map(({ line }) => line)).toEqual(lines);
  });

  it('names columns that it does not know, and leaves out values that cannot be', () => {
    const tree = csv('title,mood,due,origin\nA,sunny,soon,keep\n', site);
    expect(tree.ok && tree.notes.map(({ line, detail }) => [line, /mood|due/.exec(detail)?.[0]])).toEqual([
      [1, 'mood'],
      [2, 'due'],
    ]);
    expect(pagesOf(tree)[0]!.fields.plan).toEqual({ origin: 'keep' });
  });

  it('takes addresses as parents', () => {
    const tree = csv('parent,title\n/boats,Oars\n', site);
    expect(pagesOf(tree)[0]!.parent).toEqual({ page: 'b' });
  });

  it('refuses OPML with a document type, and JSON that is no site', () => {
    expect(readOpml('<!DOCTYPE opml [<!ENTITY a "a">]><opml><body/></opml>')).toMatchObject({ ok: false });
    expect(readSiteJson('{"format":"other"}')).toMatchObject({ ok: false });
    expect(readSiteJson('{')).toMatchObject({ ok: false });
  });
});
