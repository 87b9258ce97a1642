import { oldRedirects } from '#core/carryover/old-redirects.ts';
import { NOBODY_KNOWN } from '#core/derive/access.ts';
import { type Derived, derivedOf } from '#core/derive/derived.ts';
import { visitorView } from '#core/derive/visitor-view.ts';
import { liveSiteOf } from '#core/derive/live-site.ts';
import { scheduleOf } from '#core/derive/schedule.ts';
import { writeOpml } from '#core/formats/opml.ts';
import { type RedirectRule, writeRedirects } from '#core/formats/redirect-rules.ts';
import { writeScheduleCalendar, writeScheduleCsv } from '#core/formats/schedule-files.ts';
import { dayIn } from '#core/model/moment-words.ts';
import { writeSiteCsv } from '#core/formats/site-csv.ts';
import { writeSiteJson } from '#core/formats/site-json.ts';
import { writeIndentedTree, writeSitemapFile } from '#core/formats/tree-lists.ts';
import type { TextDocument } from '#core/model/content.ts';
import type { ContentId } from '#core/model/ids.ts';
import { type Site, branchOf } from '#core/model/site.ts';
import { leadingRules } from './leading-rules.ts';
import type { LiveRedirect } from '#contract/releases.ts';
import type { ExportName } from '#contract/exports.ts';

/**
 * What is taken along of a site. `base` is the live address of the site, `now` the moment at which it is written, `live` the
 * addresses of the live site that lead elsewhere; `textsOf` fetches texts.
 */
export async function exportSite(
  name: ExportName,
  site: Site,
  base: string,
  now: Date,
  live: readonly LiveRedirect[],
  textsOf: (ids: readonly ContentId[]) => Promise<{ id: ContentId; document: TextDocument }[]>,
): Promise<string> {
  switch (name) {
    case 'site.csv':
      return writeSiteCsv(site, dayIn(site.settings.timeZone, now));
    case 'site.opml':
      return writeOpml(site);
    case 'site.md':
      return writeIndentedTree(site);
    case 'sitemap.xml':
      return writeSitemapFile(site, base);
    case 'site.json':
      return writeSiteJson(site, await textsOf(textsIn(site)));
    case 'redirects.csv':
    case 'redirects.nginx':
    case 'redirects.apache':
      return writeRedirects(name, redirectRules(site, base, live, now.getTime()));
    case 'schedule.csv':
      return writeScheduleCsv(tasksOf(site, now));
    case 'schedule.ics':
      return writeScheduleCalendar(tasksOf(site, now), { key: site.key, name: site.settings.name }, now.toISOString());
  }
}

/** The texts of pages that stand in the tree, of their notes, of shared sections, and the outlines of kinds. */
const textsIn = (site: Site): ContentId[] => [
  ...new Set(
    branchOf(site, null)
      .flatMap((id) => [site.nodes.get(id)!.content, site.nodes.get(id)!.plan?.notes])
      .concat(site.settings.shared.map(({ content }) => content))
      .concat(site.settings.labels.map(({ pageOutline }) => pageOutline))
      .filter((id) => id != null),
  ),
];

const tasksOf = (site: Site, now: Date) => scheduleOf(site, derivedOf(site), now.toISOString().slice(0, 10)).tasks;

/**
 * Where each address leads that no page has, as whole addresses: those of the live site, and what the plan has for the old site
 * and no release has brought yet. What leads to a page without an address is passed over, and to one that not everyone may know of: rules
 * answer everyone.
 */
function redirectRules(site: Site, base: string, live: readonly LiveRedirect[], now: number): RedirectRule[] {
  const ofEveryone = (one: Site) => visitorView(one, NOBODY_KNOWN, now, false).derived;
  const ofPlan = planned(site, ofEveryone(site), base);
  const plannedPaths = new Set(ofPlan.map(({ path }) => path));
  // The plan has the whole address of the old site.
  const others = live.filter(({ because, path }) => because !== 'old site' || !plannedPaths.has(path));
  const ofLive = leadingRules(others, ofEveryone(liveSiteOf(site)), base);
  const known = new Set(ofLive.map(({ path }) => path));
  return [...ofLive, ...ofPlan.filter(({ path }) => !known.has(path))];
}

/** Where each address of the old site leads by the plan. */
function planned(site: Site, { outline, addresses, hiddenBy }: Derived, base: string): RedirectRule[] {
  return oldRedirects(site).flatMap(({ address, path, page }): RedirectRule[] => {
    if (page === null) return [{ address, path, to: null }];
    const row = outline.rowOf.get(page);
    const target = row === undefined || hiddenBy[row] !== -1 ? null : addresses[row]!;
    return target === null ? [] : [{ address, path, to: base + encodeURI(target) }];
  });
}
