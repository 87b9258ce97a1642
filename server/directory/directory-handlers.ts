import type { SyncItem } from '#core/visitors/directory-sync.ts';
import type { DirectoryAnswer } from '#contract/directory.ts';
import { placeOf } from '../accounts/start-session.ts';
import type { Services } from '../handlers.ts';
import { ProblemError } from '../problem.ts';
import { siteOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';
import { requireAudiences } from '../visitors/visitor-handlers.ts';
import type { DirectoryService } from './directory-service.ts';
import type { DirectoryContents } from './scim-client.ts';

/** The organisation's directory, for the manager of a site: what it has, whom it lets in, and synchronising. */
export function makeDirectoryHandlers({
  cache,
  directory,
  colleagueSync,
  visitorsSide,
}: Pick<Services, 'cache' | 'directory' | 'colleagueSync' | 'visitorsSide'>): Pick<
  Handlers,
  | 'showDirectory'
  | 'setDirectory'
  | 'syncDirectory'
  | 'showColleagueDirectory'
  | 'setColleagueDirectory'
  | 'syncColleagues'
> {
  return {
    showDirectory: async ({ request }) => {
      const { site } = await cache.current(siteOf(request));
      const settings = await directory.settings(site.key);
      return { ...settings, groupAudiences: { ...settings.groupAudiences }, ...(await groupsNow(directory)) };
    },
    setDirectory: async ({ request, body }) => {
      const { site } = await cache.current(siteOf(request));
      requireAudiences(site, Object.values(body.groupAudiences));
      await directory.set(site.key, body);
      return { ok: true };
    },
    syncDirectory: async ({ request, body, account }) => {
      const { site } = await cache.current(siteOf(request));
      const items = body.apply ? await directory.sync(site.key, account.name) : await directory.look(site.key);
      if (body.apply) await visitorsSide.hasTaken(site.key);
      return { items: items.map(told) };
    },
    showColleagueDirectory: async ({ request }) => {
      const { site } = await cache.current(siteOf(request));
      const settings = await colleagueSync.settings(site.key);
      return { ...settings, groupRoles: [...settings.groupRoles], ...(await groupsNow(directory)) };
    },
    setColleagueDirectory: async ({ request, body, account }) => {
      await colleagueSync.set(siteOf(request), { account, place: placeOf(request) }, body);
      return { ok: true };
    },
    syncColleagues: async ({ request, body, account }) => {
      const { site } = await cache.current(siteOf(request));
      const items = body.apply
        ? await colleagueSync.sync(site.key, { account, place: placeOf(request) })
        : await colleagueSync.look(site.key);
      return {
        items: items.map(({ kind, name, email, gains, loses, isTakenOver }) => ({
          kind,
          name,
          email,
          gains: [...gains],
          loses: [...loses],
          isTakenOver,
        })),
      };
    },
  };
}

/** The groups that the directory has now, or why they cannot be read. */
async function groupsNow(
  directory: DirectoryService,
): Promise<Pick<DirectoryAnswer, 'isConnected' | 'fault' | 'groups'>> {
  const { isConnected } = directory;
  if (!isConnected) return { isConnected, fault: null, groups: [] };
  try {
    return { isConnected, fault: null, groups: groupsWithMembers(await directory.read()) };
  } catch (fault) {
    if (!(fault instanceof ProblemError)) throw fault;
    return { isConnected, fault: fault.message, groups: [] };
  }
}

const told = ({ kind, name, email, gains, loses, isTakenOver }: SyncItem) => ({
  kind,
  name,
  email,
  gains: [...gains],
  loses: [...loses],
  isTakenOver,
});

const groupsWithMembers = ({ groups, people }: DirectoryContents) =>
  groups.map(({ id, name }) => ({
    id,
    name,
    members: people.filter((one) => one.isActive && one.groups.includes(id)).length,
  }));
