import useSWR, { mutate } from 'swr';
import useSWRImmutable from 'swr/immutable';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { unpackSite } from '#contract/packed-site.ts';
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

/** Makes a site of an archive. @throws ServerProblem, NoAnswer */
export async function restoreSite(key: SiteKey, file: File): Promise<SiteSummary> {
  const site = await call('restoreArchive', { site: key }, file, `?name=${encodeURIComponent(file.name)}`);
  await mutate(SITES);
  return site;
}

export async function renameSite(key: SiteKey, name: string): Promise<void> {
  await call('applyOperations', { site: key }, { operations: [{ name: 'site.set', fields: { name } }] });
  await mutate(SITES);
}

/** A site's tree as it is now, or as it was at a revision. @throws ServerProblem, NoAnswer */
export const fetchSite = async (key: SiteKey, revision?: number): Promise<Site> =>
  unpackSite(await call('showTree', { site: key }, undefined, revision === undefined ? '' : `?revision=${revision}`));

/** The tree as it was at a revision, the one asked for before while it is fetched; undefined where none is asked for. */
export function useTreeAt(key: SiteKey, revision: number | null): { revision: number; site: Site } | undefined {
  return useSWRImmutable(
    revision === null ? null : [`/sites/${key}/tree`, revision],
    async () => ({ revision: revision!, site: await fetchSite(key, revision!) }),
    { keepPreviousData: true },
  ).data;
}

/** A site's tree as it is now, for a screen that does not edit it. */
export function useTreeOf(key: SiteKey): { site: Site | undefined; fault: unknown } {
  const { data, error } = useSWR(`/sites/${key}/tree`, () => fetchSite(key));
  return { site: data, fault: error };
}

/** Removes pages of a site that is not on the screen. @throws ServerProblem, NoAnswer */
export async function removePages(key: SiteKey, pages: readonly PageId[]): Promise<void> {
  await call(
    'applyOperations',
    { site: key },
    { operations: pages.map((page) => ({ name: 'page.remove' as const, page })) },
  );
}

/** The history of a site, newest first, of one person where `by` names one; fetched again at another revision. */
export function useHistory(key: SiteKey, revision: number, by = ''): HistoryEntry[] | undefined {
  return useSWR(
    [`/sites/${key}/history`, revision, by],
    () => call('showHistory', { site: key }, undefined, historyQuery(by)).then((answer) => answer.entries),
    { keepPreviousData: true },
  ).data;
}

export const olderHistory = (
  key: SiteKey,
  before: number,
  by = '',
): Promise<{ entries: HistoryEntry[]; more: boolean }> =>
  call('showHistory', { site: key }, undefined, historyQuery(by, before));

function historyQuery(by: string, before?: number): string {
  const parameters = new URLSearchParams();
  if (by !== '') parameters.set('by', by);
  if (before !== undefined) parameters.set('before', String(before));
  return parameters.size === 0 ? '' : `?${parameters.toString()}`;
}

export function useRemoved(key: SiteKey, revision: number): RemovedBranch[] | undefined {
  return useSWR(
    [`/sites/${key}/removed`, revision],
    () => call('listRemoved', { site: key }).then((answer) => answer.branches),
    {
      keepPreviousData: true,
    },
  ).data;
}
