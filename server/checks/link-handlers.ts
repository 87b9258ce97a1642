import type { Site } from '#core/model/site.ts';
import type { Database } from '../database/connect.ts';
import { textNeeds } from '../releases/text-needs-repository.ts';
import type { Services } from '../handlers.ts';
import { siteOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';
import { outsideTextLinks, textLinks } from './link-repository.ts';
import { textFaults } from './text-fault-repository.ts';

type Links = 'listTextLinks' | 'showLinkLook' | 'askOutsideLinks' | 'stopLinkLook';

const needsOf = async (database: Database, site: Site) => {
  const { forms = [], shared = [] } = await textNeeds(database, site);
  return { ...(forms.length > 0 && { forms: [...forms] }), ...(shared.length > 0 && { shared: [...shared] }) };
};

/** Where the links of texts lead, and whether outside addresses are there still. */
export function makeLinkHandlers({
  database,
  cache,
  links,
}: Pick<Services, 'database' | 'cache' | 'links'>): Pick<Handlers, Links> {
  return {
    listTextLinks: async ({ request }) => {
      const { site } = await cache.current(siteOf(request));
      return {
        draft: await textLinks(database, site.key, 'node'),
        live: await textLinks(database, site.key, 'live_node'),
        outside: await outsideTextLinks(database, site.key),
        draftFaults: await textFaults(database, site.key, 'node'),
        liveFaults: await textFaults(database, site.key, 'live_node'),
        needs: await needsOf(database, site),
      };
    },
    showLinkLook: async ({ request }) => {
      const { site } = await cache.current(siteOf(request));
      return links.look.show(site.key);
    },
    askOutsideLinks: async ({ request }) => {
      const { site } = await cache.current(siteOf(request));
      await links.start(site.key);
      return links.look.show(site.key);
    },
    stopLinkLook: async ({ request }) => {
      const { site } = await cache.current(siteOf(request));
      await links.look.stop(site.key);
      return links.look.show(site.key);
    },
  };
}
