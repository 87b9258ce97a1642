import useSWR, { mutate } from 'swr';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import type { Starter } from '#core/starters/starter-file.ts';
import type { StarterAnswer } from '#contract/starters.ts';
import { call } from './client.ts';

const KEY = '/starters';

export function useStarters(): readonly StarterAnswer[] | undefined {
  return useSWR(KEY, () => call('listStarters').then((answer) => answer.starters)).data;
}

/** @throws ServerProblem, NoAnswer */
export async function bringStarter(starter: Starter): Promise<StarterAnswer> {
  const made = await call('bringStarter', {}, { starter });
  await mutate(KEY);
  return made;
}

/** @throws ServerProblem, NoAnswer */
export async function saveStarter(
  site: SiteKey,
  given: { page: PageId | null; name: string; description: string },
): Promise<StarterAnswer> {
  const made = await call('saveStarter', { site }, given);
  await mutate(KEY);
  return made;
}

/** @throws ServerProblem, NoAnswer */
export async function deleteStarter(id: string): Promise<void> {
  await call('deleteStarter', { starter: id });
  await mutate(KEY);
}
