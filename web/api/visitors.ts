import useSWR, { mutate } from 'swr';
import type { PassphraseId } from '#core/model/access.ts';
import type { AudienceId } from '#core/model/audience.ts';
import type { SiteKey } from '#core/model/ids.ts';
import type { Look, Screen } from '#core/model/look.ts';
import type { BodyOf } from '#contract/routes.ts';
import type { BringVisitorsAnswer, JoiningLinkAnswer, VisitorAnswer } from '#contract/visitors.ts';
import { call } from './client.ts';

const keyOf = (site: SiteKey): string => `/sites/${site}/visitors`;

/** The accounts of a site's visitors, by name; undefined until they are known, and where no site is given. */
export function useVisitors(site: SiteKey | null): readonly VisitorAnswer[] | undefined {
  return useSWR(site === null ? null : keyOf(site), () =>
    call('listVisitors', { site: site! }).then((answer) => answer.visitors),
  ).data;
}

/** @throws ServerProblem, NoAnswer */
export async function makeVisitor(site: SiteKey, given: BodyOf<'makeVisitor'>): Promise<void> {
  await call('makeVisitor', { site }, given);
  await mutate(keyOf(site));
}

/** @throws ServerProblem, NoAnswer */
export async function setVisitor(site: SiteKey, visitor: string, fields: BodyOf<'setVisitor'>): Promise<void> {
  await call('setVisitor', { site, visitor }, fields);
  await mutate(keyOf(site));
}

/** @throws ServerProblem, NoAnswer */
export async function removeVisitor(site: SiteKey, visitor: string): Promise<void> {
  await call('removeVisitor', { site, visitor });
  await mutate(keyOf(site));
}

/** Keeps the words of a passphrase, and gives the id by which a rule names it. @throws ServerProblem, NoAnswer */
export const makePassphrase = async (site: SiteKey, words: string): Promise<PassphraseId> =>
  (await call('makePassphrase', { site }, { words })).id;

/** Starts a walk as an audience or a visitor, and gives where it begins. @throws ServerProblem, NoAnswer */
export async function startWalk(
  site: SiteKey,
  {
    isDraft,
    release,
    who,
    moment,
    hasPassphrases,
    look = null,
    screen = null,
  }: {
    readonly isDraft: boolean;
    readonly release: number | null;
    readonly who: string;
    readonly moment: string;
    readonly hasPassphrases: boolean;
    /** What is not that of the site, and of whoever looks. */
    readonly look?: Look | null;
    readonly screen?: Screen | null;
  },
): Promise<string> {
  // Ids of accounts have hyphens; those of audiences have none.
  const whom = who.includes('-') ? { visitor: who } : { audiences: [who as AudienceId] };
  const at = moment === '' ? null : new Date(moment).toISOString();
  return (await call('startWalk', { site }, { isDraft, release, who: whom, at, hasPassphrases, look, screen })).address;
}

/** What a list of visitors as CSV would change; with `apply` it does, all of it or nothing. @throws ServerProblem, NoAnswer */
export async function bringVisitors(site: SiteKey, text: string, apply: boolean): Promise<BringVisitorsAnswer> {
  const answer = await call('bringVisitors', { site }, { text, apply });
  if (apply) await mutate(keyOf(site));
  return answer;
}

const linksKey = (site: SiteKey): string => `/sites/${site}/joining-links`;

/** The links by which visitors join; undefined until they are known. */
export function useJoiningLinks(site: SiteKey): readonly JoiningLinkAnswer[] | undefined {
  return useSWR(linksKey(site), () => call('listJoiningLinks', { site }).then((answer) => answer.links)).data;
}

/** @throws ServerProblem, NoAnswer */
export async function makeJoiningLink(site: SiteKey, given: BodyOf<'makeJoiningLink'>): Promise<void> {
  await call('makeJoiningLink', { site }, given);
  await mutate(linksKey(site));
}

/** @throws ServerProblem, NoAnswer */
export async function removeJoiningLink(site: SiteKey, link: string): Promise<void> {
  await call('removeJoiningLink', { site, link });
  await mutate(linksKey(site));
}
