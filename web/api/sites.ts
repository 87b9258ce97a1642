import useSWR, { mutate } from 'swr';
import type { SiteKey } from '#core/model/ids.ts';
import type { HistoryEntry, RemovedBranch, SiteSummary } from '#contract/api.ts';
import { call } from './client.ts';

const SITES = '/sites';

export function useSites(): { sites: SiteSummary[] | undefined; fault: unknown } {
  const { data, error } = useSWR(SITES, () => call('listSites').then((answer) => answer.sites));
  return { sites: data, fault: error };
}

export async function makeSite(given: { key: SiteKey; name: string }): Promise<SiteSummary> {
  const site = await call('makeSite', {}, given);
  await mutate(SITES);
  return site;
}

export async function renameSite(key: SiteKey, name: string): Promise<void> {
  await call('applyOperations', { site: key }, { operations: [{ name: 'site.set', fields: { name } }] });
  await mutate(SITES);
}

/** The history of a site, newest first; fetched again when the revision is another one. */
export function useHistory(key: SiteKey, revision: number): HistoryEntry[] | undefined {
  return useSWR(
    [`/sites/${key}/history`, revision],
    () => call('showHistory', { site: key }).then((answer) => answer.entries),
    {
      keepPreviousData: true,
    },
  ).data;
}

export const olderHistory = (key: SiteKey, before: number): Promise<{ entries: HistoryEntry[]; more: boolean }> =>
  call('showHistory', { site: key }, undefined, `?before=${before}`);

export function useRemoved(key: SiteKey, revision: number): RemovedBranch[] | undefined {
  return useSWR(
    [`/sites/${key}/removed`, revision],
    () => call('listRemoved', { site: key }).then((answer) => answer.branches),
    {
      keepPreviousData: true,
    },
  ).data;
}
