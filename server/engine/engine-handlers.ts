import type { Services } from '../handlers.ts';
import { siteOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';

type Engine = 'showEngineLook' | 'lookAsEngine' | 'stopEngineLook';

/** What a search engine sees of the live site, next to what is intended. */
export function makeEngineHandlers({ cache, engine }: Pick<Services, 'cache' | 'engine'>): Pick<Handlers, Engine> {
  return {
    showEngineLook: async ({ request }) => {
      const { site } = await cache.current(siteOf(request));
      return engine.show(site.key);
    },
    lookAsEngine: async ({ request }) => {
      const { site } = await cache.current(siteOf(request));
      await engine.start(site.key);
      return engine.show(site.key);
    },
    stopEngineLook: async ({ request }) => {
      const { site } = await cache.current(siteOf(request));
      await engine.stop(site.key);
      return engine.show(site.key);
    },
  };
}
