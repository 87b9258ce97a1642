import useSWR, { mutate } from 'swr';
import type { SiteKey } from '#core/model/ids.ts';
import type { AnswerOf } from '#contract/routes.ts';
import { call } from './client.ts';

const LOOK_EVERY_MS = 500;
const keyOf = (site: SiteKey): string => `/sites/${site}/link-look`;

/** The links within texts at a revision; undefined until they are known. */
export const useTextLinks = (key: SiteKey, revision: number): AnswerOf<'listTextLinks'> | undefined =>
  useSWR([`/sites/${key}/text-links`, revision], () => call('listTextLinks', { site: key }), {
    keepPreviousData: true,
  }).data;

/** What outside addresses answered, or how far asking them is; undefined until it is known. */
export const useLinkLook = (site: SiteKey): AnswerOf<'showLinkLook'> | undefined =>
  useSWR(keyOf(site), () => call('showLinkLook', { site }), {
    refreshInterval: (latest) => (latest?.state === 'running' ? LOOK_EVERY_MS : 0),
  }).data;

/** Lets the outside addresses be asked that the site links to. @throws ServerProblem, NoAnswer */
export const askOutsideLinks = async (site: SiteKey): Promise<void> =>
  void (await mutate(keyOf(site), call('askOutsideLinks', { site }), { revalidate: false }));

/** Stops that. @throws ServerProblem, NoAnswer */
export const stopLinkLook = async (site: SiteKey): Promise<void> =>
  void (await mutate(keyOf(site), call('stopLinkLook', { site }), { revalidate: false }));
