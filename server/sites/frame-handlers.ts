import type { Services } from '../handlers.ts';
import { Assets } from '../live/assets.ts';
import { pageFrame } from '../live/page-frame.ts';
import { ProblemError } from '../problem.ts';
import { pageOf, siteOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';

/** What stands around the text of a page, so that it can be written in its place. */
export function makeFrameHandlers({
  cache,
  now,
}: Pick<Services, 'cache' | 'now'>): Pick<Handlers, 'showPageFrame' | 'showLook'> {
  return {
    showPageFrame: async ({ request }) => {
      const { site } = await cache.current(siteOf(request));
      const page = pageOf(request.params.page);
      const node = site.nodes.get(page);
      if (!node || node.removedWith !== null) throw new ProblemError('page-unknown', { page });
      if (node.type !== 'page') throw new ProblemError('page-unknown', { page });
      return { html: pageFrame(site, page, now().getTime()) };
    },
    showLook: async () => {
      const { css, fonts } = await Assets.load();
      return { css, fonts };
    },
  };
}
