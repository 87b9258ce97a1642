import useSWR, { mutate } from 'swr';
import type { SiteKey } from '#core/model/ids.ts';
import type { ApprovalAnswer, ChangedSince } from '#contract/approval.ts';
import type { BodyOf } from '#contract/routes.ts';
import { call, callUntilKnown } from './client.ts';

const keyOf = (site: SiteKey): string => `/sites/${site}/approval`;

/** Which branches need approval, and what is proposed; undefined until it is known. */
export const useApproval = (site: SiteKey): ApprovalAnswer | undefined =>
  useSWR(keyOf(site), () => call('showApproval', { site })).data;

/** Fetches it again: the server has told that something was proposed or decided. */
export const refreshApproval = (site: SiteKey): Promise<unknown> => mutate(keyOf(site));

const keep = (site: SiteKey, answer: ApprovalAnswer): Promise<unknown> =>
  mutate(keyOf(site), answer, { revalidate: false });

/** @throws ServerProblem, NoAnswer */
export const setApprovalRule = async (site: SiteKey, rule: BodyOf<'setApprovalRule'>): Promise<unknown> =>
  keep(site, await call('setApprovalRule', { site }, rule));

/** @throws ServerProblem, NoAnswer */
export const removeApprovalRule = async (site: SiteKey, rule: BodyOf<'removeApprovalRule'>): Promise<unknown> =>
  keep(site, await call('removeApprovalRule', { site }, rule));

/** @throws ServerProblem, NotKnown */
export const propose = async (site: SiteKey, proposal: Omit<BodyOf<'propose'>, 'id'>): Promise<string> => {
  const id = crypto.randomUUID();
  await keep(site, await callUntilKnown('propose', { site }, { ...proposal, id }));
  return id;
};

/** @throws ServerProblem, NotKnown */
export const decide = async (
  site: SiteKey,
  proposal: string,
  decision: Omit<BodyOf<'decide'>, 'id'>,
): Promise<unknown> =>
  keep(site, await callUntilKnown('decide', { site, proposal }, { ...decision, id: crypto.randomUUID() }));

/** @throws ServerProblem, NoAnswer */
export const withdrawProposal = async (site: SiteKey, proposal: string): Promise<unknown> =>
  keep(site, await call('withdrawProposal', { site, proposal }));

/** What was changed on the pages of a proposal since they were approved, as the site is at a revision; undefined until it is known. */
export const useChangedSince = (site: SiteKey, proposal: string | null, revision: number): ChangedSince | undefined =>
  useSWR(proposal === null ? null : `${keyOf(site)}/${proposal}?revision=${revision}`, () =>
    call('showChangedSince', { site, proposal: proposal! }),
  ).data;
