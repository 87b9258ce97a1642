import useSWR, { mutate } from 'swr';
import type { SiteKey } from '#core/model/ids.ts';
import type {
  ColleagueDirectoryAnswer,
  ColleagueSyncAnswer,
  DirectoryAnswer,
  SyncAnswer,
} from '#contract/directory.ts';
import type { BodyOf } from '#contract/routes.ts';
import { call } from './client.ts';
import { refreshColleagues } from './people.ts';

const keyOf = (site: SiteKey): string => `/sites/${site}/directory`;

/** The organisation's directory as a site takes it; undefined until it is known. */
export function useDirectory(site: SiteKey): DirectoryAnswer | undefined {
  return useSWR(keyOf(site), () => call('showDirectory', { site })).data;
}

/** @throws ServerProblem, NoAnswer */
export async function setDirectory(site: SiteKey, settings: BodyOf<'setDirectory'>): Promise<void> {
  await call('setDirectory', { site }, settings);
  await mutate(keyOf(site));
}

/** What a synchronisation would change; with `apply` it does, all of it or nothing. @throws ServerProblem, NoAnswer */
export async function syncDirectory(site: SiteKey, apply: boolean): Promise<SyncAnswer> {
  const answer = await call('syncDirectory', { site }, { apply });
  if (apply) await Promise.all([mutate(keyOf(site)), mutate(`/sites/${site}/visitors`)]);
  return answer;
}

const colleaguesKeyOf = (site: SiteKey): string => `/sites/${site}/colleague-directory`;

/** The organisation's directory as a site takes it for its colleagues; undefined until it is known. */
export function useColleagueDirectory(site: SiteKey): ColleagueDirectoryAnswer | undefined {
  return useSWR(colleaguesKeyOf(site), () => call('showColleagueDirectory', { site })).data;
}

/** @throws ServerProblem, NoAnswer */
export async function setColleagueDirectory(site: SiteKey, settings: BodyOf<'setColleagueDirectory'>): Promise<void> {
  await call('setColleagueDirectory', { site }, settings);
  await mutate(colleaguesKeyOf(site));
}

/** What a synchronisation would change for colleagues; with `apply` it does, all of it or nothing. @throws ServerProblem, NoAnswer */
export async function syncColleagues(site: SiteKey, apply: boolean): Promise<ColleagueSyncAnswer> {
  const answer = await call('syncColleagues', { site }, { apply });
  if (apply) await Promise.all([mutate(colleaguesKeyOf(site)), refreshColleagues(site)]);
  return answer;
}
