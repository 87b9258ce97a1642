import { roleIdSchema, type RoleId } from '#core/people/role.ts';
import { placeOf } from '../accounts/start-session.ts';
import type { AccountLinks } from '../accounts/account-links.ts';
import type { Services } from '../handlers.ts';
import { ProblemError } from '../problem.ts';
import { countIn, siteOf, uuidOf } from '../route-parameters.ts';
import type { Call, Handlers } from '../routing.ts';
import { securityLog } from '../security/security-log-repository.ts';
import { ColleagueService, type Doer } from './colleague-service.ts';
import { colleaguesOf } from './people-repository.ts';
import { MANAGER } from '#core/people/role.ts';

type Names =
  | 'showOwnRoles'
  | 'listColleagues'
  | 'inviteColleague'
  | 'setColleague'
  | 'removeColleague'
  | 'inviteAgain'
  | 'setRole'
  | 'removeRole'
  | 'showSiteSecurity'
  | 'setSiteSecurity'
  | 'showSecurityLog';

/** Colleagues of a site and their roles. */
export function makePeopleHandlers(
  { database, cache, people, now }: Pick<Services, 'database' | 'cache' | 'people' | 'now'>,
  links: AccountLinks,
): Pick<Handlers, Names> {
  const service = new ColleagueService({ database, cache, people, links, now });
  const doerOf = ({ request, account }: Pick<Call<Names>, 'request' | 'account'>): Doer => ({
    account,
    place: placeOf(request),
  });
  const colleagueIn = ({ request }: Pick<Call<Names>, 'request'>): string =>
    uuidOf(request.params.colleague, 'colleague-unknown');
  const list = async ({ request, account }: Pick<Call<Names>, 'request' | 'account'>) => {
    const key = siteOf(request);
    return service.list(key, await people.powersOf(key, account));
  };

  return {
    showOwnRoles: async ({ request, account }) => {
      const key = siteOf(request);
      await cache.current(key);
      const roles = await people.rolesOf(key);
      if (account.looksAfterAll) return { roles: [...roles], rolesAt: [{ page: null, role: MANAGER.id }] };
      const [own] = await colleaguesOf(database, key, account.id);
      return { roles: [...roles], rolesAt: [...(own?.roles ?? [])] };
    },
    listColleagues: async (call) => {
      await cache.current(siteOf(call.request));
      return list(call);
    },
    inviteColleague: async (call) => {
      await service.invite(siteOf(call.request), doerOf(call), call.body);
      return list(call);
    },
    setColleague: async (call) => {
      const [key, id] = [siteOf(call.request), colleagueIn(call)];
      const { roles, isSuspended } = call.body;
      if (roles) await service.setRoles(key, doerOf(call), id, roles);
      if (isSuspended !== undefined) await service.setSuspended(key, doerOf(call), id, isSuspended);
      return list(call);
    },
    removeColleague: async (call) => {
      await service.remove(siteOf(call.request), doerOf(call), colleagueIn(call));
      return list(call);
    },
    inviteAgain: async (call) => {
      await service.inviteAgain(siteOf(call.request), doerOf(call), colleagueIn(call));
      return { ok: true };
    },
    setRole: async (call) => {
      const key = siteOf(call.request);
      await service.setRole(key, doerOf(call), { id: roleIn(call.request.params.role), ...call.body });
      return { roles: [...(await people.rolesOf(key))] };
    },
    removeRole: async (call) => {
      const key = siteOf(call.request);
      await service.removeRole(key, doerOf(call), roleIn(call.request.params.role));
      return { roles: [...(await people.rolesOf(key))] };
    },
    showSiteSecurity: async ({ request }) => {
      const { site } = await cache.current(siteOf(request));
      return service.security(site.key);
    },
    setSiteSecurity: async (call) => {
      const key = siteOf(call.request);
      await service.setNeedsSecondStep(key, doerOf(call), call.body.needsSecondStep);
      return service.security(key);
    },
    showSecurityLog: ({ request }) =>
      securityLog(database, { site: siteOf(request) }, countIn(request.query.skip) ?? 0),
  };
}

/** @throws ProblemError where it can be no role's id */
function roleIn(text: unknown): RoleId {
  const parsed = roleIdSchema.safeParse(text);
  if (!parsed.success) throw new ProblemError('role-unknown', { role: String(text).slice(0, 40) });
  return parsed.data;
}
