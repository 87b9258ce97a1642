import useSWR, { mutate } from 'swr';
import type { SiteKey } from '#core/model/ids.ts';
import type { DirectoryAnswer, SyncAnswer } from '#contract/directory.ts';
import type { BodyOf } from '#contract/routes.ts';
import { call } from './client.ts';

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
