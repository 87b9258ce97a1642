import { withoutTrailing } from '#core/model/cut-text.ts';
import { planRelease, waitingPages } from '#core/changes/release-plan.ts';
import { sendZip } from '../exports/zip-stream.ts';
import { staticFiles } from '../exports/static-site.ts';
import { Assets } from '../live/assets.ts';
import { htmlOfAll, loadRelease } from '../live/live-repository.ts';
import { textNeeds } from './text-needs-repository.ts';
import type { Services } from '../handlers.ts';
import { ProblemError } from '../problem.ts';
import { countIn, pageOf, siteOf, uuidOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';
import { setWorks, worksOf } from '../sites/site-repository.ts';
import { listReleases } from './release-repository.ts';
import { listScheduled, waitingRelease } from './schedule-repository.ts';

type Releases =
  | 'showReleasePlan'
  | 'makeRelease'
  | 'listReleases'
  | 'showTakeBack'
  | 'takeBackRelease'
  | 'listScheduled'
  | 'scheduleRelease'
  | 'callOffRelease'
  | 'showWorks'
  | 'setWorks'
  | 'takeStaticSite';

/** What goes live, when, and how it is taken back. */
export function makeReleaseHandlers({
  database,
  cache,
  releases,
  schedule,
  people,
  visitorsSide,
  liveOrigin,
  library,
  now,
}: Pick<
  Services,
  'database' | 'cache' | 'people' | 'releases' | 'schedule' | 'visitorsSide' | 'liveOrigin' | 'library' | 'now'
>): Pick<Handlers, Releases> {
  const releaseOf = (text: unknown): number => {
    const number = countIn(text);
    if (number === null || number < 1) throw new ProblemError('release-unknown', { release: String(text) });
    return number;
  };
  return {
    showReleasePlan: async ({ request }) => {
      const { site, revision } = await cache.current(siteOf(request));
      const asked = request.query.pages;
      const pages = typeof asked === 'string' ? asked.split(',').map(pageOf) : waitingPages(site);
      const unknown = pages.find((page) => !site.nodes.has(page));
      if (unknown !== undefined) throw new ProblemError('page-unknown', { page: unknown });
      const { operation, along, parts, addresses } = planRelease(site, {
        pages,
        retire: [],
        needs: await textNeeds(database, site),
      });
      return { revision, pages: operation.pages, retire: operation.retire, along, parts, addresses };
    },
    makeRelease: async ({ request, body, account }) => {
      const made = await releases.make(siteOf(request), account, body);
      return { ...made, unconfirmed: await visitorsSide.hasTaken(siteOf(request)) };
    },
    listReleases: async ({ request }) => {
      const { site } = await cache.current(siteOf(request));
      return { releases: await listReleases(database, site.key) };
    },
    showTakeBack: async ({ request }) => {
      const { plan, revision } = await releases.takeBackPlan(siteOf(request), releaseOf(request.params.release));
      const { pages, settings, left, leftSettings, addresses } = plan;
      return { revision, pages, settings, left, leftSettings, addresses };
    },
    takeBackRelease: async ({ request, body, account }) => {
      const made = await releases.takeBack(siteOf(request), account, releaseOf(request.params.release), body);
      return { ...made, unconfirmed: await visitorsSide.hasTaken(siteOf(request)) };
    },

    listScheduled: async ({ request }) => {
      const { site } = await cache.current(siteOf(request));
      return { scheduled: await listScheduled(database, site.key) };
    },
    scheduleRelease: async ({ request, body, account }) => {
      const { site } = await cache.current(siteOf(request));
      await releases.requireAllowed(site.key, account, await people.powersOf(site.key, account), body);
      await schedule.set(site.key, account, body);
      return { scheduled: await listScheduled(database, site.key) };
    },
    callOffRelease: async ({ request, account }) => {
      const { site } = await cache.current(siteOf(request));
      const id = uuidOf(request.params.scheduled, 'schedule-unknown');
      // Whoever publishes in a branch calls off what they have set themselves.
      const set = await waitingRelease(database, id);
      if (set?.site === site.key && set.account !== account.id)
        await people.require(site.key, account, 'publish', null);
      await schedule.callOff(site.key, id);
      return { scheduled: await listScheduled(database, site.key) };
    },

    takeStaticSite: async ({ request, response }) => {
      const { site } = await cache.current(siteOf(request));
      const release = await loadRelease(database, site.key);
      if (!release) throw new ProblemError('nothing-live');
      const { address } = request.query;
      const files = staticFiles({
        release,
        address:
          typeof address === 'string' && /^https?:\/\/[^\s"'<>]+$/.test(address)
            ? withoutTrailing(address, '/')
            : `${liveOrigin}/${site.key}`,
        assets: await Assets.load(),
        textsOf: (contents) => htmlOfAll(database, release.site, contents),
        store: library.store,
        isWithoutHost: request.query.opens === 'files',
        now: now().getTime(),
      });
      response.set({
        'Content-Type': 'application/zip',
        'Content-Disposition': `attachment; filename="${site.key}.zip"`,
        'Cache-Control': 'no-store',
      });
      await sendZip(files, response);
    },

    showWorks: async ({ request }) => {
      const { site } = await cache.current(siteOf(request));
      return { works: await worksOf(database, site.key) };
    },
    setWorks: async ({ request, body }) => {
      const { site } = await cache.current(siteOf(request));
      await setWorks(database, site.key, body.works);
      return { works: body.works, unconfirmed: await visitorsSide.hasTaken(site.key) };
    },
  };
}
