import type { SiteKey } from '#core/model/ids.ts';
import { HERE_FOR_MS, type HereNews, hereNews } from '#contract/presence.ts';
import { HERE_CHANNEL, tell } from '../database/channels.ts';
import type { Database } from '../database/connect.ts';
import { SiteNews } from './site-news.ts';

/** Tells all processes who is on which page. Nothing of it is kept in the database. */
export const tellHere = (database: Database, site: SiteKey, news: HereNews): Promise<unknown> =>
  tell(database, HERE_CHANNEL, [JSON.stringify({ site, ...news })]);

/** So many tabs of one site are known at a time. */
const MAX_TABS = 1000;

/** Who is on which page now, as far as this process has heard; it passes on what it hears. */
export class Presence {
  readonly news = new SiteNews<HereNews>();
  readonly #now: () => Date;
  readonly #sites = new Map<string, Map<string, { readonly news: HereNews; readonly until: number }>>();

  constructor(now: () => Date) {
    this.#now = now;
  }

  /** Takes what another process, or this one, told. */
  hear(told: string): void {
    const { site, ...rest } = JSON.parse(told) as HereNews & { site: SiteKey };
    const news = hereNews.parse(rest);
    const tabs = this.#sites.get(site) ?? new Map<string, { readonly news: HereNews; readonly until: number }>();
    tabs.delete(news.tab);
    if (news.isHere) tabs.set(news.tab, { news, until: this.#now().getTime() + HERE_FOR_MS });
    const now = this.#now().getTime();
    // The first ones were heard of longest ago.
    for (const [tab, { until }] of tabs) {
      if (until >= now && tabs.size <= MAX_TABS) break;
      tabs.delete(tab);
    }
    this.#sites.set(site, tabs);
    this.news.tell(site, news);
  }

  /** Everybody who is on a site now, for somebody who comes. */
  on(site: SiteKey): HereNews[] {
    const tabs = this.#sites.get(site);
    if (!tabs) return [];
    const now = this.#now().getTime();
    for (const [tab, { until }] of tabs) if (until < now) tabs.delete(tab);
    if (tabs.size === 0) this.#sites.delete(site);
    return [...tabs.values()].map(({ news }) => news);
  }
}
