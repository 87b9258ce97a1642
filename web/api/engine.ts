import useSWR, { mutate } from 'swr';
import type { SiteKey } from '#core/model/ids.ts';
import type { EngineAnswer } from '#contract/engine.ts';
import { call } from './client.ts';

const LOOK_EVERY_MS = 500;
const keyOf = (site: SiteKey): string => `/sites/${site}/engine-look`;

/** How a search engine's robot saw the live site, or how far it is; undefined until it is known. */
export const useEngineLook = (site: SiteKey): EngineAnswer | undefined =>
  useSWR(keyOf(site), () => call('showEngineLook', { site }), {
    refreshInterval: (latest) => (latest?.state === 'running' ? LOOK_EVERY_MS : 0),
  }).data;

/** Lets the robot read the live site. @throws ServerProblem, NoAnswer */
export const lookAsEngine = async (site: SiteKey): Promise<void> =>
  void (await mutate(keyOf(site), call('lookAsEngine', { site }), { revalidate: false }));

/** Stops the robot. @throws ServerProblem, NoAnswer */
export const stopEngine = async (site: SiteKey): Promise<void> =>
  void (await mutate(keyOf(site), call('stopEngineLook', { site }), { revalidate: false }));
