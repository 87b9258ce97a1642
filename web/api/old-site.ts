import { useEffect, useState } from 'react';
import useSWR, { mutate } from 'swr';
import type { SiteKey } from '#core/model/ids.ts';
import type {
  BringOldPagesAnswer,
  BringOldPagesBody,
  CarryOverAnswer,
  CrawlBody,
  CrawlSummary,
  OldSiteAnswer,
  OldTextAnswer,
} from '#contract/old-site.ts';
import { call } from './client.ts';

const oldSiteKey = (site: SiteKey) => `/sites/${site}/old-site`;
const crawlKey = (site: SiteKey) => `/sites/${site}/crawl`;
const CRAWL_EVERY_MS = 1000;
/** So long after the last change the pairs are asked for again. */
const SETTLES_MS = 700;

/** The inventory of the old site; undefined until it is here. */
export function useOldSite(site: SiteKey): OldSiteAnswer | undefined {
  return useSWR(oldSiteKey(site), () => call('showOldSite', { site })).data;
}

/** The proposed pairs, asked for again when the plan or the inventory has changed; the ones before until they are here. */
export function useCarryOver(
  site: SiteKey,
  revision: number,
  version: number | undefined,
): { answer: CarryOverAnswer | undefined; isMatching: boolean; fault: unknown } {
  const settled = useSettledRevision(revision);
  const { data, isLoading, error } = useSWR(
    version === undefined ? null : [`/sites/${site}/carry-over`, settled, version],
    () => call('showCarryOver', { site }),
    { keepPreviousData: true, revalidateOnFocus: false },
  );
  return { answer: data, isMatching: isLoading || settled !== revision, fault: error as unknown };
}

function useSettledRevision(revision: number): number {
  const [settled, setSettled] = useState(revision);
  useEffect(() => {
    const timer = window.setTimeout(() => setSettled(revision), SETTLES_MS);
    return () => window.clearTimeout(timer);
  }, [revision]);
  return settled;
}

/** Brings old pages, or only says what would come of it. @throws ServerProblem, NoAnswer */
export async function bringOldPages(site: SiteKey, body: BringOldPagesBody): Promise<BringOldPagesAnswer> {
  const answer = await call('bringOldPages', { site }, body);
  if (body.apply) await mutate(oldSiteKey(site));
  return answer;
}

/** @throws ServerProblem, NoAnswer */
export async function removeOldPages(site: SiteKey, addresses: 'all' | string[]): Promise<number> {
  const { removed } = await call('removeOldPages', { site }, { addresses });
  await mutate(oldSiteKey(site));
  return removed;
}

interface Crawl {
  readonly crawl: CrawlSummary | null;
  readonly faults: readonly { readonly address: string; readonly fault: string }[];
}

/** How the latest crawl stands, followed while it runs; the inventory is fetched again as it grows. */
export function useCrawl(site: SiteKey): Crawl | undefined {
  const { data } = useSWR(crawlKey(site), () => call('showCrawl', { site }), {
    refreshInterval: (latest) => (latest?.crawl?.state === 'running' ? CRAWL_EVERY_MS : 0),
  });
  const read = data?.crawl?.read;
  const state = data?.crawl?.state;
  useEffect(() => {
    if (state !== undefined) void mutate(oldSiteKey(site));
  }, [site, read, state]);
  return data;
}

/** The main text of an old page, read now, with its files in the library. @throws ServerProblem, NoAnswer */
export const takeOldText = (site: SiteKey, address: string): Promise<OldTextAnswer> =>
  call('takeOldText', { site }, { address });

/** @throws ServerProblem, NoAnswer */
export const startCrawl = async (
  site: SiteKey,
  given: Pick<CrawlBody, 'start' | 'mostPages' | 'files'>,
): Promise<void> => void (await mutate(crawlKey(site), call('startCrawl', { site }, given), { revalidate: false }));
export const stopCrawl = async (site: SiteKey): Promise<void> =>
  void (await mutate(crawlKey(site), call('stopCrawl', { site }), { revalidate: false }));
export const resumeCrawl = async (site: SiteKey): Promise<void> =>
  void (await mutate(crawlKey(site), call('resumeCrawl', { site }), { revalidate: false }));
