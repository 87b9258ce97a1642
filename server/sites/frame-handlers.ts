import { logosOf } from '#core/model/look.ts';
import { fileAddress } from '#contract/files.ts';
import type { Services } from '../handlers.ts';
import { Assets } from '../live/assets.ts';
import { liveFiles } from '../live/live-file-repository.ts';
import { NO_FILES } from '../live/live-files.ts';
import { pageFrame } from '../live/page-frame.ts';
import { ProblemError } from '../problem.ts';
import { pageOf, siteOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';

/** What stands around the text of a page, so that it can be written in its place. */
export function makeFrameHandlers({
  cache,
  database,
  now,
}: Pick<Services, 'cache' | 'database' | 'now'>): Pick<Handlers, 'showPageFrame' | 'showLook'> {
  return {
    showPageFrame: async ({ request }) => {
      const { site } = await cache.current(siteOf(request));
      const page = pageOf(request.params.page);
      const node = site.nodes.get(page);
      if (!node || node.removedWith !== null) throw new ProblemError('page-unknown', { page });
      if (node.type !== 'page') throw new ProblemError('page-unknown', { page });
      const { look } = site.settings;
      // Of the library a frame shows the logo alone.
      const files = logosOf(look).length === 0 ? NO_FILES : await liveFiles(database, site.key, true);
      return { html: pageFrame(site, page, now().getTime(), files, (file) => fileAddress(site.key, file)) };
    },
    showLook: async () => {
      const { css, fonts } = await Assets.load();
      return { css, fonts };
    },
  };
}
