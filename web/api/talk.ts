import useSWR, { mutate } from 'swr';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import type { About, MailWish } from '#core/talk/thread.ts';
import type { AnswerOf, BodyOf } from '#contract/routes.ts';
import type { ConcernsAnswer, Thread, ThreadsAnswer } from '#contract/talk.ts';
import { call, callUntilKnown } from './client.ts';

const openKey = (site: SiteKey): string => `/sites/${site}/threads`;
const ofPageKey = (site: SiteKey, page: PageId): string => `/sites/${site}/threads?page=${page}`;
const concernsKey = (site: SiteKey): string => `/sites/${site}/concerns`;
/** Edits to somebody's pages are no news that cannot wait. */
const LOOK_EVERY_MS = 60_000;

/** What colleagues say of the pages of a site and is not settled; undefined until it is known. */
export const useOpenThreads = (site: SiteKey): ThreadsAnswer | undefined =>
  useSWR(openKey(site), () => call('listThreads', { site })).data;

/** All that colleagues said of a page; undefined until it is known, and where no page is given. */
export const usePageThreads = (site: SiteKey, page: PageId | null): readonly Thread[] | undefined =>
  useSWR(page === null ? null : ofPageKey(site, page), () =>
    call('listThreads', { site }, undefined, `?page=${page!}`).then(({ threads }) => threads),
  ).data;

/** What concerns whoever is signed in; undefined until it is known. */
export const useConcerns = (site: SiteKey): ConcernsAnswer | undefined =>
  useSWR(concernsKey(site), () => call('showConcerns', { site }), { refreshInterval: LOOK_EVERY_MS }).data;

/** Fetches again what was said: the server has told that there is something new. */
export const refreshTalk = (site: SiteKey): Promise<unknown> =>
  mutate((key) => typeof key === 'string' && (key.startsWith(openKey(site)) || key === concernsKey(site)));

const refreshConcerns = (site: SiteKey): Promise<unknown> => mutate(concernsKey(site));

/** The requests bear an id of their own, so that none is done twice, however often it is sent. @throws ServerProblem, NotKnown */
export async function startThread(site: SiteKey, page: PageId, about: About, text: string): Promise<void> {
  await callUntilKnown('startThread', { site, page }, { id: crypto.randomUUID(), about, text });
  await refreshTalk(site);
}

/** @throws ServerProblem, NotKnown */
export async function answerThread(site: SiteKey, thread: string, text: string): Promise<void> {
  await callUntilKnown('answerThread', { site, thread }, { id: crypto.randomUUID(), text });
  await refreshTalk(site);
}

/** Hands over somebody's open conversations, and gives how many. @throws ServerProblem, NoAnswer */
export async function handOverTalk(site: SiteKey, colleague: string, to: string): Promise<AnswerOf<'handOverTalk'>> {
  const answer = await call('handOverTalk', { site, colleague }, { to });
  await refreshTalk(site);
  return answer;
}

/** @throws ServerProblem, NoAnswer */
export async function changeThreadComment(site: SiteKey, thread: string, comment: string, text: string): Promise<void> {
  await call('changeThreadComment', { site, thread, comment }, { text });
  await refreshTalk(site);
}

/** @throws ServerProblem, NoAnswer */
export async function deleteThreadComment(site: SiteKey, thread: string, comment: string): Promise<void> {
  await call('deleteThreadComment', { site, thread, comment });
  await refreshTalk(site);
}

/** @throws ServerProblem, NoAnswer */
export async function settleThread(site: SiteKey, thread: string, isSettled: boolean): Promise<void> {
  await call('settleThread', { site, thread }, { isSettled });
  await refreshTalk(site);
}

/** @throws ServerProblem, NoAnswer */
export async function followPage(site: SiteKey, page: PageId, isFollowing: boolean): Promise<void> {
  await call('followPage', { site, page }, { isFollowing });
  await refreshConcerns(site);
}

/** @throws ServerProblem, NoAnswer */
export async function readConcerns(site: SiteKey, read: BodyOf<'readConcerns'>): Promise<void> {
  await call('readConcerns', { site }, read);
  await refreshConcerns(site);
}

/** @throws ServerProblem, NoAnswer */
export async function setMails(site: SiteKey, mails: MailWish): Promise<void> {
  await call('setMails', {}, { mails });
  await refreshConcerns(site);
}
