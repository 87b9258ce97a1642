import type { SyncItem } from '#core/visitors/directory-sync.ts';
import type { Services } from '../handlers.ts';
import { ProblemError } from '../problem.ts';
import { siteOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';
import { requireAudiences } from '../visitors/visitor-handlers.ts';
import type { DirectoryContents } from './scim-client.ts';

/** The organisation's directory, for the manager of a site: what it has, whom it lets in, and synchronising. */
export function makeDirectoryHandlers({
  cache,
  directory,
  visitorsSide,
}: Pick<Services, 'cache' | 'directory' | 'visitorsSide'>): Pick<
  Handlers,
  'showDirectory' | 'setDirectory' | 'syncDirectory'
> {
  return {
    showDirectory: async ({ request }) => {
      const { site } = await cache.current(siteOf(request));
      const settings = await directory.settings(site.key);
      const told = { ...settings, groupAudiences: { ...settings.groupAudiences }, isConnected: directory.isConnected };
      if (!directory.isConnected) return { ...told, fault: null, groups: [] };
      try {
        return { ...told, fault: null, groups: groupsWithMembers(await directory.read()) };
      } catch (fault) {
        if (!(fault instanceof ProblemError)) throw fault;
        return { ...told, fault: fault.message, groups: [] };
      }
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
  };
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
