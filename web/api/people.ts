import useSWR, { mutate } from 'swr';
import type { SiteKey } from '#core/model/ids.ts';
import { type Permission, has } from '#core/model/permission.ts';
import { type Powers, powersOf } from '#core/people/powers.ts';
import type { Role, RoleId } from '#core/people/role.ts';
import type { ColleaguesAnswer, SecurityEntry, SiteSecurity } from '#contract/people.ts';
import type { BodyOf } from '#contract/routes.ts';
import { call } from './client.ts';

const keyOf = (site: SiteKey): string => `/sites/${site}/colleagues`;
const ownKeyOf = (site: SiteKey): string => `/sites/${site}/roles/own`;

/** What whoever is signed in may do on a site; undefined until it is known. The workbench asks its store instead. */
export function useOwnPowers(site: SiteKey): Powers | undefined {
  return useSWR(ownKeyOf(site), () =>
    call('showOwnRoles', { site }).then(({ roles, rolesAt }) => powersOf(roles, rolesAt)),
  ).data;
}

/** Whether a permission is held on the whole site; false until that is known. */
export function useMayOnSite(site: SiteKey, permission: Permission): boolean {
  const onSite = useOwnPowers(site)?.onSite;
  return onSite != null && has(onSite.permissions, permission);
}

/** The colleagues of a site and its roles; undefined until they are known, and where no site is given. */
export const useColleagues = (site: SiteKey | null): ColleaguesAnswer | undefined =>
  useSWR(site === null ? null : keyOf(site), () => call('listColleagues', { site: site! })).data;

export const refreshColleagues = (site: SiteKey): Promise<unknown> => mutate(keyOf(site));

/** @throws ServerProblem, NoAnswer */
export const inviteColleague = async (site: SiteKey, given: BodyOf<'inviteColleague'>): Promise<ColleaguesAnswer> => {
  const answer = await call('inviteColleague', { site }, given);
  await mutate(keyOf(site), answer, { revalidate: false });
  return answer;
};

/** @throws ServerProblem, NoAnswer */
export const setColleague = async (site: SiteKey, colleague: string, given: BodyOf<'setColleague'>): Promise<void> => {
  await mutate(keyOf(site), await call('setColleague', { site, colleague }, given), { revalidate: false });
};

/** @throws ServerProblem, NoAnswer */
export const removeColleague = async (site: SiteKey, colleague: string): Promise<void> => {
  await mutate(keyOf(site), await call('removeColleague', { site, colleague }), { revalidate: false });
};

/** @throws ServerProblem, NoAnswer */
export const inviteAgain = async (site: SiteKey, colleague: string): Promise<void> => {
  await call('inviteAgain', { site, colleague });
};

/** @throws ServerProblem, NoAnswer */
export const setRole = async (site: SiteKey, { id, name, permissions }: Role): Promise<void> => {
  await call('setRole', { site, role: id }, { name, permissions });
  await refreshColleagues(site);
};

/** @throws ServerProblem, NoAnswer */
export const removeRole = async (site: SiteKey, role: RoleId): Promise<void> => {
  await call('removeRole', { site, role });
  await refreshColleagues(site);
};

const securityKeyOf = (site: SiteKey): string => `/sites/${site}/security`;

/** Whether a site asks for a second step, and who has none; undefined until it is known. */
export const useSiteSecurity = (site: SiteKey): SiteSecurity | undefined =>
  useSWR(securityKeyOf(site), () => call('showSiteSecurity', { site })).data;

/** @throws ServerProblem, NoAnswer */
export const setSiteSecurity = async (site: SiteKey, needsSecondStep: boolean): Promise<void> => {
  await mutate(securityKeyOf(site), await call('setSiteSecurity', { site }, { needsSecondStep }), {
    revalidate: false,
  });
  await mutate(`${securityKeyOf(site)}-log`);
};

/** What has concerned the security of a site, the latest first; undefined until it is known. */
export const useSecurityLog = (site: SiteKey): readonly SecurityEntry[] | undefined =>
  useSWR(`${securityKeyOf(site)}-log`, () => call('showSecurityLog', { site }).then(({ entries }) => entries)).data;
