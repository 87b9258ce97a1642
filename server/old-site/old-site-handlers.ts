import type { SiteKey } from '#core/model/ids.ts';
import { MAX_OLD_PAGES, type OldPage } from '#core/carryover/inventory.ts';
import type { OldSiteAnswer } from '#contract/old-site.ts';
import type { Services } from '../handlers.ts';
import { ProblemError } from '../problem.ts';
import { siteOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';
import { bringPages } from './bring-pages.ts';
import { countAddresses, faultsOf, latestCrawl } from './crawl-repository.ts';
import {
  countOldPages,
  countOldSiteChange,
  loadOldSite,
  oldAddressesThere,
  putOldPages,
  removeOldPages,
} from './old-site-repository.ts';

type OldSiteRoutes =
  | 'showOldSite'
  | 'takeOldText'
  | 'bringOldPages'
  | 'removeOldPages'
  | 'startCrawl'
  | 'showCrawl'
  | 'stopCrawl'
  | 'resumeCrawl';
/** How many pages and faults of what would be brought are shown. */
const SHOWN = 20;
const SHOWN_FAULTS = 200;

/** The inventory of the old site, and the crawls that fill it. */
export function makeOldSiteHandlers({
  database,
  crawls,
  crawlHosts,
  oldTexts,
}: Pick<Services, 'database' | 'crawls' | 'crawlHosts' | 'oldTexts'>): Pick<Handlers, OldSiteRoutes> {
  const there = async (key: SiteKey) => {
    const oldSite = await loadOldSite(database, key);
    if (!oldSite) throw new ProblemError('site-unknown', { site: key });
    return oldSite;
  };
  const showCrawl = async (key: SiteKey) => {
    const crawl = await latestCrawl(database, key);
    if (!crawl) return { crawl: null, faults: [] };
    return {
      crawl: {
        start: crawl.start,
        state: crawl.state,
        why: crawl.why,
        mostPages: crawl.most_pages,
        beganAt: crawl.began_at.toISOString(),
        endedAt: crawl.ended_at?.toISOString() ?? null,
        ...(await countAddresses(database, crawl.id)),
      },
      faults: await faultsOf(database, crawl.id),
    };
  };

  return {
    showOldSite: async ({ request }) => {
      const { version, pages } = await there(siteOf(request));
      return { version, pages: pages.map(toWire) };
    },
    takeOldText: async ({ request, response, body, account }) => {
      const site = siteOf(request);
      await there(site);
      const leaving = new AbortController();
      response.once('close', () => leaving.abort());
      return oldTexts.take({ site, ...body, account: account.id }, leaving.signal);
    },
    bringOldPages: async ({ request, body }) => {
      const key = siteOf(request);
      await there(key);
      const brought = await bringPages(body.from, crawlHosts);
      const known = new Set(await oldAddressesThere(database, key));
      const updated = brought.pages.filter((page) => known.has(page.address)).length;
      const added = brought.pages.length - updated;
      if (known.size + added > MAX_OLD_PAGES) throw new ProblemError('too-many-old-pages', { limit: MAX_OLD_PAGES });
      if (body.apply) {
        await database.transaction(async (trx) => {
          await putOldPages(trx, key, brought.pages);
          await countOldSiteChange(trx, key);
        });
      }
      return {
        columns: brought.columns,
        taken: brought.taken,
        found: brought.pages.length,
        added,
        updated,
        sample: brought.pages.slice(0, SHOWN).map(toWire),
        faults: brought.faults.slice(0, SHOWN_FAULTS),
        faultCount: brought.faults.length,
      };
    },
    removeOldPages: async ({ request, body }) => {
      const key = siteOf(request);
      await there(key);
      const removed = await removeOldPages(database, key, body.addresses === 'all' ? null : body.addresses);
      await countOldSiteChange(database, key);
      return { removed };
    },

    startCrawl: async ({ request, body }) => {
      const key = siteOf(request);
      await there(key);
      if ((await countOldPages(database, key)) >= MAX_OLD_PAGES)
        throw new ProblemError('too-many-old-pages', { limit: MAX_OLD_PAGES });
      await crawls.start(key, body);
      return showCrawl(key);
    },
    showCrawl: ({ request }) => showCrawl(siteOf(request)),
    stopCrawl: async ({ request }) => {
      const key = siteOf(request);
      await crawls.stop(key);
      return showCrawl(key);
    },
    resumeCrawl: async ({ request }) => {
      const key = siteOf(request);
      await crawls.resume(key);
      return showCrawl(key);
    },
  };
}

function toWire({ text, ...page }: OldPage): OldSiteAnswer['pages'][number] {
  void text;
  return { ...page, headings: [...page.headings] };
}
