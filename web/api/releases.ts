import { nanoid } from 'nanoid';
import useSWR, { mutate } from 'swr';
import type { SiteKey } from '#core/model/ids.ts';
import type {
  LiveRedirect,
  MissedAddress,
  ReadRedirects,
  ReleaseSummary,
  ScheduleBody,
  ScheduledRelease,
  TakeBackAnswer,
  Works,
} from '#contract/releases.ts';
import { call, callUntilKnown } from './client.ts';

/** The releases of a site, newest first; undefined until they are known. */
export const useReleases = (key: SiteKey, revision: number): ReleaseSummary[] | undefined =>
  useSWR([`/sites/${key}/releases`, revision], () => call('listReleases', { site: key }).then((one) => one.releases), {
    keepPreviousData: true,
  }).data;

/** What taking a release back would do now; undefined until it is known, or where no release is asked about. */
export const useTakeBack = (key: SiteKey, release: number | null, revision: number): TakeBackAnswer | undefined =>
  useSWR(release === null ? null : [`/sites/${key}/take-back`, release, revision], () =>
    call('showTakeBack', { site: key, release: String(release) }),
  ).data;

const scheduledKey = (key: SiteKey): string => `/sites/${key}/scheduled-releases`;
const LOOK_EVERY_MS = 20_000;

/** The releases to come and those that came; undefined until they are known. */
export const useScheduled = (key: SiteKey): ScheduledRelease[] | undefined =>
  useSWR(scheduledKey(key), () => call('listScheduled', { site: key }).then((one) => one.scheduled), {
    refreshInterval: (latest) => (latest?.some(({ state }) => state === 'waiting') ? LOOK_EVERY_MS : 0),
  }).data;

/** Sets a release for a moment. @throws ServerProblem, NoAnswer */
export async function scheduleRelease(key: SiteKey, body: ScheduleBody): Promise<void> {
  const { scheduled } = await callUntilKnown('scheduleRelease', { site: key }, { ...body, request: nanoid() });
  await mutate(scheduledKey(key), scheduled, { revalidate: false });
}

/** Calls off a release to come. @throws ServerProblem, NoAnswer */
export async function callOffRelease(key: SiteKey, id: string): Promise<void> {
  const { scheduled } = await call('callOffRelease', { site: key, scheduled: id });
  await mutate(scheduledKey(key), scheduled, { revalidate: false });
}

/** The addresses of the live site that lead elsewhere; undefined until they are known. */
export const useRedirects = (key: SiteKey, revision: number): LiveRedirect[] | undefined =>
  useSWR(
    [`/sites/${key}/redirects`, revision],
    () => call('listRedirects', { site: key }).then((one) => one.redirects),
    { keepPreviousData: true },
  ).data;

/** Reads a table of redirects; nothing is written. @throws ServerProblem, NoAnswer */
export const readRedirects = (key: SiteKey, text: string): Promise<ReadRedirects> =>
  call('readRedirects', { site: key }, { text });

const missedKey = (key: SiteKey): string => `/sites/${key}/missed-addresses`;

/** The addresses that visitors asked for in vain; undefined until they are known. */
export const useMissed = (key: SiteKey): MissedAddress[] | undefined =>
  useSWR(missedKey(key), () => call('listMissed', { site: key }).then((one) => one.addresses)).data;

/** Lets an address be that is asked for in vain, or takes it up again. @throws ServerProblem, NoAnswer */
export async function letMissedBe(key: SiteKey, path: string, isLetBe: boolean): Promise<void> {
  await call('letMissedBe', { site: key }, { path, isLetBe });
  await mutate(missedKey(key));
}

const worksKey = (key: SiteKey): string => `/sites/${key}/works`;

/** What visitors will read while the site is closed for works, null while it is open; undefined until it is known. */
export const useWorks = (key: SiteKey): Works | null | undefined =>
  useSWR(worksKey(key), () => call('showWorks', { site: key }).then((one) => one.works)).data;

/**
 * Closes the site for works, or opens it again. Gives how many visitors' processes have not confirmed it.
 * @throws ServerProblem, NoAnswer
 */
export async function setWorks(key: SiteKey, works: Works | null): Promise<number> {
  const { unconfirmed } = await call('setWorks', { site: key }, { works });
  await mutate(worksKey(key), works, { revalidate: false });
  return unconfirmed;
}
