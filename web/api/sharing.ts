import { useMemo } from 'react';
import useSWR, { mutate } from 'swr';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import type { BodyOf } from '#contract/routes.ts';
import type { FeedbackAnswer, MailAnswer, ShareAnswer } from '#contract/sharing.ts';
import { call } from './client.ts';
import type { SiteStore } from './site-store.ts';

const sharesKey = (site: SiteKey): string => `/sites/${site}/shares`;
const feedbackKey = (site: SiteKey): string => `/sites/${site}/feedback`;

/** The links of a site, newest first; undefined until they are known. */
export function useShares(site: SiteKey): readonly ShareAnswer[] | undefined {
  return useSWR(sharesKey(site), () => call('listShares', { site }).then((answer) => answer.shares)).data;
}

/** @throws ServerProblem, NoAnswer */
export async function makeShare(site: SiteKey, given: BodyOf<'makeShare'>): Promise<ShareAnswer> {
  const made = await call('makeShare', { site }, given);
  await mutate(sharesKey(site));
  return made;
}

/** @throws ServerProblem, NoAnswer */
export async function withdrawShare(site: SiteKey, share: string): Promise<void> {
  await call('withdrawShare', { site, share });
  await mutate(sharesKey(site));
}

/** @throws ServerProblem, NoAnswer */
export async function inviteToShare(site: SiteKey, share: string, given: BodyOf<'inviteToShare'>): Promise<void> {
  await call('inviteToShare', { site, share }, given);
}

/** A list of mail addresses as it is typed: with commas, semicolons, spaces or lines between. */
export const addressesIn = (text: string): string[] => text.split(/[\s,;]+/).filter((one) => one !== '');

/** What was said of the plan of a site; undefined until it is known. */
export function useFeedback(site: SiteKey): FeedbackAnswer | undefined {
  return useSWR(feedbackKey(site), () => call('showFeedback', { site })).data;
}

/** Fetches what was said again: the server has told that there is something new. */
export const refreshFeedback = (site: SiteKey): Promise<unknown> => mutate(feedbackKey(site));

/** Settles all that waits on these pages, or opens it again. @throws ServerProblem, NoAnswer */
export async function settleFeedback(site: SiteKey, pages: PageId[], isSettled: boolean): Promise<void> {
  await call('settleFeedback', { site }, { pages, isSettled });
  await refreshFeedback(site);
}

/** @throws ServerProblem, NoAnswer */
export async function answerComment(site: SiteKey, comment: string, given: BodyOf<'answerComment'>): Promise<void> {
  await call('answerComment', { site, comment }, given);
  await refreshFeedback(site);
}

/** Makes a page what is proposed for it. @throws ServerProblem, NotKnown */
export async function acceptProposal(store: SiteStore, comment: string): Promise<void> {
  await store.accept(comment);
  await refreshFeedback(store.key);
}

/** The mails that Spur has sent, newest first; undefined until they are known. */
export function useOutbox(): readonly MailAnswer[] | undefined {
  return useSWR('/outbox', () => call('listOutbox').then((answer) => answer.mails)).data;
}

/** What was said, in the shape that it is counted in. */
export const useCountable = (said: FeedbackAnswer | undefined) =>
  useMemo(() => {
    if (said === undefined) return null;
    const isSettled = ({ settledBy }: { settledBy: string | null }) => settledBy !== null;
    return {
      verdicts: said.verdicts.map((one) => ({ page: one.page, verdict: one.verdict, isSettled: isSettled(one) })),
      comments: said.comments.map((one) => ({ page: one.page, isSettled: isSettled(one) })),
    };
  }, [said]);
