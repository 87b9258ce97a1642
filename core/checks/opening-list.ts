import type { PageId } from '../model/ids.ts';
import type { Site } from '../model/site.ts';
import { accessTable, membershipsOf } from '../derive/access.ts';
import { derivedOf } from '../derive/derived.ts';
import { menuTableOf } from '../derive/menu-table.ts';
import { type TextLink, linkFindings } from './link-findings.ts';
import { type PageFault, pageFindings } from './page-checks.ts';

/** What a site needs before visitors come, in the order in which it is told. */
export const OPENING_POINTS = [
  'name',
  'home',
  'home open',
  'not-found page',
  'menu',
  'texts',
  'descriptions',
  'closed',
  'links',
] as const;
export type OpeningPoint = (typeof OPENING_POINTS)[number];

export interface OpeningLine {
  readonly point: OpeningPoint;
  /** Whether it is there. Points that are a matter of taste are never missing: their pages are to be looked at. */
  readonly state: 'there' | 'missing' | 'to look at';
  /** The pages that it concerns. */
  readonly pages: readonly PageId[];
}

/**
 * What is still missing in a draft before the site is opened; of what pages lack and of their links, what the checks find. @param at the moment, in milliseconds since 1970: pages open by the clock @param textLinks of the draft
 */
export function openingList(site: Site, at: number, textLinks: readonly TextLink[]): OpeningLine[] {
  const { outline, home, hiddenBy } = derivedOf(site);
  const { audiences, menus, layouts, name } = site.settings;
  const { open } = accessTable(outline, site.settings, membershipsOf(audiences), at);
  const everyone = 0;
  const isOpen = (row: number) => hiddenBy[row] === -1 && ((open[row]! >>> everyone) & 1) === 1;
  const rowsWhere = (holds: (row: number) => boolean): PageId[] =>
    outline.nodes.flatMap((node, row) => (holds(row) ? [node.id] : []));
  const isPage = (row: number) => outline.nodes[row]!.type === 'page';
  const standsIn = (row: number) => outline.nodes[row]!.access?.standsIn ?? null;
  const homeRow = home === null ? undefined : outline.rowOf.get(home);
  const placed = new Set(layouts.flatMap((layout) => Object.values(layout.menus)));
  const hasMenu = menus.some(
    (menu) =>
      placed.has(menu.id) &&
      menuTableOf(site, menu).sections.some((top) => menuTableOf(site, menu).entries(top).length > 0),
  );
  const must = (point: OpeningPoint, isThere: boolean, pages: readonly PageId[] = []): OpeningLine => ({
    point,
    state: isThere ? 'there' : 'missing',
    pages,
  });
  const look = (point: OpeningPoint, pages: readonly PageId[]): OpeningLine => ({
    point,
    state: pages.length === 0 ? 'there' : 'to look at',
    pages,
  });
  const findings = pageFindings(site, at, textLinks);
  const lacking = (lacks: PageFault) => findings.filter(({ fault }) => fault === lacks).map(({ page }) => page);
  const astray = new Set(linkFindings(site, at, textLinks).map(({ page }) => page));
  return [
    must('name', name.trim() !== '' && name !== site.key),
    must('home', homeRow !== undefined, home === null ? [] : [home]),
    must('home open', homeRow !== undefined && isOpen(homeRow), home === null ? [] : [home]),
    must(
      'not-found page',
      outline.ruled.some((row) => standsIn(row) === 'not-found' && isOpen(row)),
    ),
    must('menu', hasMenu),
    look('texts', lacking('no text')),
    look('descriptions', lacking('no description')),
    look(
      'closed',
      rowsWhere((row) => isPage(row) && standsIn(row) === null && !isOpen(row)),
    ),
    look('links', [...astray]),
  ];
}
