import { planRelease, waitingPages } from '#core/changes/release-plan.ts';
import { derivedOf } from '#core/derive/derived.ts';
import { liveSiteOf } from '#core/derive/live-site.ts';
import { addressesLeft, resolveRedirect } from '#core/derive/redirects.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { applyOperation } from '#core/operations/apply.ts';
import type { Operation } from '#core/operations/operation.ts';
import { generateSite } from './generate-site.ts';
import type { Result } from './measure.ts';

const PAGES = 1_000;
const RELEASES = 100;
const EDITS_A_RELEASE = 40;

/**
 * A long random history: moves, renames, removals, swaps of two addresses and come-backs, with a release after each handful. Every address
 * that was ever live is asked for after each release: it answers, leads in one hop to a page that is live, or is gone.
 */
export function benchHistories(): Result[] {
  let seed = 20261126;
  const random = (below: number) => {
    seed = (seed * 1103515245 + 12345) % 2147483648;
    return Math.floor((seed / 2147483648) * below);
  };
  const drafted = generateSite(PAGES, 'histories');
  let site: Site = planRelease(drafted, { pages: waitingPages(drafted), retire: [] }).after;
  const ids = [...site.nodes.keys()];
  const any = (): PageId => ids[random(ids.length)]!;
  const slugOf = (page: PageId, text: string): Operation => ({
    name: 'page.set',
    page,
    fields: { slug: { en: { text, own: true } } },
  });
  const former = new Map<string, PageId>();
  const everLive = new Set<string>();
  const remember = () => {
    for (const address of derivedOf(liveSiteOf(site)).addresses) if (address !== null) everLive.add(address);
  };
  remember();
  const apply = (operation: Operation) => {
    const outcome = applyOperation(site, operation);
    if (outcome.ok) site = outcome.site;
  };
  let asked = 0;
  let broken = 0;
  for (let release = 0; release < RELEASES; release++) {
    for (let edit = 0; edit < EDITS_A_RELEASE; edit++) {
      const page = any();
      const kind = random(10);
      if (kind < 3) apply(slugOf(page, `name-${random(400)}`));
      else if (kind < 6) apply({ name: 'page.move', page, place: { parent: random(8) === 0 ? null : any() } });
      else if (kind === 6) apply({ name: 'page.remove', page });
      else if (kind < 9) apply({ name: 'page.putBack', page });
      else {
        const other = any();
        const [one, two] = [page, other].map((id) => site.nodes.get(id)?.slug.en?.text ?? 'x');
        for (const operation of [slugOf(page, 'between'), slugOf(other, one!), slugOf(page, two!)]) apply(operation);
      }
    }
    const comesBack = ids.filter((id) => site.live.get(id)?.retired && site.nodes.get(id)?.removedWith === null);
    const { after } = planRelease(site, { pages: [...waitingPages(site), ...comesBack], retire: [] });
    for (const [address, page] of addressesLeft(site, after)) former.set(address, page);
    site = after;
    remember();
    const { rowAt, outline, addresses } = derivedOf(liveSiteOf(site));
    for (const address of everLive) {
      asked++;
      if (rowAt.has(address)) continue;
      const to = resolveRedirect(site, { former, ofOldSite: new Map() }, address)?.to;
      const lands = to === 'gone' || (to && 'page' in to && addresses[outline.rowOf.get(to.page) ?? -1] != null);
      if (!lands) broken++;
    }
  }
  return [
    {
      what: `Addresses of a history of ${RELEASES} releases and ${PAGES.toLocaleString('en')} pages that lead nowhere (${everLive.size.toLocaleString('en')} addresses, asked for ${asked.toLocaleString('en')} times)`,
      ours: String(broken),
      limit: '0',
      ratio: Number.NaN,
      aim: '0',
      isMet: broken === 0,
    },
  ];
}
