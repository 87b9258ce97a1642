import type { EditKind } from '#core/people/edit-kinds.ts';
import useSWR, { mutate } from 'swr';
import useSWRImmutable from 'swr/immutable';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { readTree } from '#contract/sent-tree.ts';
import type { DeletedSite } from '#contract/deleted-sites.ts';
import type { HistoryEntry, RemovedBranch, SiteSummary } from '#contract/api.ts';
import { call, refuse } from './client.ts';
import { changesHeld } from './held-changes.ts';

const SITES = '/sites';
const DELETED_SITES = '/deleted-sites';

export function useSites(): { sites: SiteSummary[] | undefined; fault: unknown } {
  const { data, error } = useSWR(SITES, () => call('listSites').then((answer) => answer.sites));
  return { sites: data, fault: error };
}

export async function makeSite(given: { key: SiteKey; name: string }): Promise<SiteSummary> {
  const site = await call('makeSite', {}, given);
  await mutate(SITES);
  return site;
}

/** Makes a site of an archive. @param called its name; '' for the one that it has there @throws ServerProblem, NoAnswer */
export async function restoreSite(key: SiteKey, called: string, file: File): Promise<SiteSummary> {
  const query = new URLSearchParams({ name: file.name, ...(called.trim() !== '' && { called: called.trim() }) });
  const site = await call('restoreArchive', { site: key }, file, `?${query.toString()}`);
  await mutate(SITES);
  return site;
}

/** Deletes a site whose name was typed. @throws ServerProblem, NoAnswer */
export async function deleteSite(key: SiteKey, name: string): Promise<void> {
  await call('deleteSite', { site: key }, { name });
  await Promise.all([mutate(SITES), mutate(DELETED_SITES)]);
}

/** The sites that were deleted and are kept still; nothing is asked for somebody who may not bring them back. */
export const useDeletedSites = (mayBringBack: boolean): DeletedSite[] =>
  useSWR(mayBringBack ? DELETED_SITES : null, () => call('listDeletedSites').then((answer) => answer.sites)).data ?? [];

/** Brings a deleted site back. @throws ServerProblem, NoAnswer */
export async function bringBackSite(id: string, given: { key: SiteKey; name: string }): Promise<void> {
  await call('bringBackSite', { deleted: id }, given);
  await Promise.all([mutate(SITES), mutate(DELETED_SITES)]);
}

/** Deletes a deleted site for good. @throws ServerProblem, NoAnswer */
export async function eraseSite(id: string): Promise<void> {
  await call('eraseSite', { deleted: id });
  await mutate(DELETED_SITES);
}

/** @throws ServerProblem, NoAnswer */
export async function renameSite(key: SiteKey, name: string): Promise<void> {
  refuse(changesHeld());
  await call('applyOperations', { site: key }, { operations: [{ name: 'site.set', fields: { name } }] });
  await mutate(SITES);
}

/** For trees that SWR keeps: each that is fetched is another one. Left alone it would compare them field by field, and their maps have no fields. */
export const EACH_IS_NEW = { compare: Object.is };

/** A site's tree as it is now, or as it was at a revision. @throws ServerProblem, NoAnswer */
export const fetchSite = async (key: SiteKey, revision?: number): Promise<Site> =>
  readTree(await call('showTree', { site: key }, undefined, revision === undefined ? '' : `?revision=${revision}`));

/** The tree as it was at a revision, the one asked for before while it is fetched; undefined where none is asked for. */
export function useTreeAt(key: SiteKey, revision: number | null): { revision: number; site: Site } | undefined {
  return useSWRImmutable(
    revision === null ? null : [`/sites/${key}/tree`, revision],
    async () => ({ revision: revision!, site: await fetchSite(key, revision!) }),
    { ...EACH_IS_NEW, keepPreviousData: true },
  ).data;
}

/** A site's tree as it is now, for a screen that does not edit it. */
export function useTreeOf(key: SiteKey): { site: Site | undefined; fault: unknown } {
  const { data, error } = useSWR(`/sites/${key}/tree`, () => fetchSite(key), EACH_IS_NEW);
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

/** Puts removed pages of a site back that is not on the screen, each with what was removed with it. @throws ServerProblem, NoAnswer */
export async function putBackPages(key: SiteKey, pages: readonly PageId[]): Promise<void> {
  await call(
    'applyOperations',
    { site: key },
    { operations: pages.map((page) => ({ name: 'page.putBack' as const, page })) },
  );
}

/** Which edits of a history are looked for: by whom, of which kind, in which branch; '' for any. */
export interface HistoryOf {
  readonly by: string;
  readonly of: EditKind | 'release' | '';
  readonly page: PageId | '';
}

/** All edits. */
export const ALL_EDITS: HistoryOf = { by: '', of: '', page: '' };

/** The history of a site, newest first; fetched again at another revision. */
export function useHistory(key: SiteKey, revision: number, asked: HistoryOf): HistoryEntry[] | undefined {
  return useSWR(
    [`/sites/${key}/history`, revision, asked.by, asked.of, asked.page],
    () => call('showHistory', { site: key }, undefined, historyQuery(asked)).then((answer) => answer.entries),
    { keepPreviousData: true },
  ).data;
}

export const olderHistory = (
  key: SiteKey,
  before: number,
  asked: HistoryOf,
): Promise<{ entries: HistoryEntry[]; more: boolean }> =>
  call('showHistory', { site: key }, undefined, historyQuery(asked, before));

function historyQuery(asked: HistoryOf, before?: number): string {
  const parameters = new URLSearchParams();
  for (const [name, value] of Object.entries(asked)) if (value !== '') parameters.set(name, value as string);
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
