import type { Request } from 'express';
import { sharedIdSchema } from '#core/model/shared-section.ts';
import { formIdSchema } from '#core/model/site-form.ts';
import { factIdSchema } from '#core/model/fact.ts';
import type { ContentId, PageId, SiteKey } from '#core/model/ids.ts';
import { forbiddenWords } from '#core/people/forbidden.ts';
import { mayReadText, readableOf } from '#core/people/reading.ts';
import { EDIT_KINDS } from '#core/people/edit-kinds.ts';
import { branchOf } from '#core/model/site.ts';
import { EXPORTS, type ExportName } from '#contract/exports.ts';
import { sendTree } from '#contract/sent-tree.ts';
import type { ReleaseProgress } from '#contract/releases.ts';
import { type Database, isThere } from './database/connect.ts';
import { makeAccountHandlers } from './accounts/account-handlers.ts';
import type { IdentityProvider } from './accounts/identity-provider.ts';
import { makeProviderHandlers } from './accounts/provider-handlers.ts';
import { makeSignInHandlers } from './accounts/sign-in-handlers.ts';
import { AccountLinks } from './accounts/account-links.ts';
import type { Attempts } from './security/attempts.ts';
import type { EditService } from './edits/edit-service.ts';
import { streamEdits } from './events/event-stream.ts';
import type { RememberedSessions } from './accounts/remembered-sessions.ts';
import type { VisitorsSide } from './events/visitors-side.ts';
import type { SiteNews } from './events/site-news.ts';
import { historyBefore, lastRemovals, latestChanges } from './history/history-repository.ts';
import type { Mailer } from './mail/mailer.ts';
import { type People, notAllowed } from './people/people.ts';
import { makePeopleHandlers } from './people/people-handlers.ts';
import { sitesOfColleague } from './people/people-repository.ts';
import { makeOpenApi } from './open-api.ts';
import { exportSite } from './exports/export-site.ts';
import { ImportService } from './imports/import-service.ts';
import { ProblemError } from './problem.ts';
import type { Handlers } from './routing.ts';
import { makeReplacingHandlers } from './replacing/replacing-handlers.ts';
import { makeCarryOverHandlers } from './carry-over/carry-over-handlers.ts';
import type { CarryOverService } from './carry-over/carry-over-service.ts';
import type { OldTextService } from './old-site/old-text-service.ts';
import type { CrawlService } from './old-site/crawl-service.ts';
import { makeOldSiteHandlers } from './old-site/old-site-handlers.ts';
import { makeStarterHandlers } from './starters/starter-handlers.ts';
import { countIn, pageOf, siteOf, textPlaceOf } from './route-parameters.ts';
import { PREFERENCE_NAME, preferencesOf, setPreference } from './preferences/preference-repository.ts';
import { makeGuestHandlers } from './sharing/guest-handlers.ts';
import { makeSharingHandlers } from './sharing/sharing-handlers.ts';
import { makeApprovalHandlers } from './approval/approval-handlers.ts';
import type { ApprovalService } from './approval/approval-service.ts';
import { makeTalkHandlers } from './talk/talk-handlers.ts';
import { storedAddresses } from './redirects/redirect-repository.ts';
import { liveRedirects, makeRedirectHandlers } from './redirects/redirect-handlers.ts';
import { makeReleaseHandlers } from './releases/release-handlers.ts';
import type { ReleaseService } from './releases/release-service.ts';
import type { ScheduleService } from './releases/schedule-service.ts';
import { siteAt } from './history/site-at.ts';
import { makeFrameHandlers } from './sites/frame-handlers.ts';
import { describePage } from './sites/describe-page.ts';
import { PackedTrees } from './sites/packed-trees.ts';
import { removedBranches } from './sites/removed-branches.ts';
import type { SiteCache } from './sites/site-cache.ts';
import { makeWalkHandlers } from './visitors/walk-handlers.ts';
import { makeArchiveHandlers } from './archives/archive-handlers.ts';
import { makeDeletedSiteHandlers } from './sites/deleted-site-handlers.ts';
import { makeLinkHandlers } from './checks/link-handlers.ts';
import { makeLibraryHandlers } from './library/library-handlers.ts';
import type { LibraryService } from './library/library-service.ts';
import type { LinkService } from './checks/link-service.ts';
import { makeEngineHandlers } from './engine/engine-handlers.ts';
import type { EngineService } from './engine/engine-service.ts';
import { makeAnswerHandlers } from './answers/answer-handlers.ts';
import { makeJoiningHandlers } from './visitors/joining-handlers.ts';
import { makeDirectoryHandlers } from './directory/directory-handlers.ts';
import type { ColleagueSync } from './directory/colleague-sync.ts';
import type { DirectoryService } from './directory/directory-service.ts';
import { makePassphraseHandlers } from './visitors/passphrase-handlers.ts';
import { makeVisitorHandlers } from './visitors/visitor-handlers.ts';
import {
  contentAt,
  contentsOf,
  insertSite,
  listSites,
  pagesWithFact,
  plannedTexts,
  pagesWithForm,
  pagesWithShared,
  pagesWithText,
} from './sites/site-repository.ts';
import { asNewSite, siteToBegin } from './sites/new-site.ts';
import type { WritingNews } from '#contract/writing.ts';
import { tellWriting } from './events/writing.ts';
import { type Presence, tellHere } from './events/presence.ts';
import type { JointTexts } from './joint/joint-texts.ts';

export interface Services {
  readonly database: Database;
  readonly cache: SiteCache;
  readonly people: People;
  readonly edits: EditService;
  readonly releases: ReleaseService;
  readonly approval: ApprovalService;
  readonly schedule: ScheduleService;
  readonly attempts: Attempts;
  readonly crawls: CrawlService;
  readonly oldTexts: OldTextService;
  readonly carryOver: CarryOverService;
  /** Hosts that may be read though they are not in the public net. */
  readonly crawlHosts: ReadonlySet<string>;
  readonly mailer: Mailer;
  /** By which people sign in besides; null where there is none. */
  readonly identityProvider: IdentityProvider | null;
  /** The workbench's outside address; null where none was named. */
  readonly ownOrigin: string | null;
  /** Told when colleagues or roles of a site have changed. */
  readonly peopleNews: SiteNews;
  /** Told when something was said of a site's plan. */
  readonly feedbackNews: SiteNews;
  /** Told when visitors have sent forms of a site. */
  readonly answerNews: SiteNews;
  /** Told how far a release is. */
  readonly releaseNews: SiteNews<ReleaseProgress>;
  /** Told who writes in which text. */
  readonly writingNews: SiteNews<WritingNews>;
  /** Who is on which page. */
  readonly presence: Presence;
  readonly jointTexts: JointTexts;
  readonly visitorsSide: VisitorsSide;
  readonly sessions: RememberedSessions;
  /** What walks are signed with. */
  readonly directory: DirectoryService;
  readonly colleagueSync: ColleagueSync;
  readonly engine: EngineService;
  readonly links: LinkService;
  readonly library: LibraryService;
  /** Where links to the workbench lead. */
  readonly origin: string;
  readonly liveOrigin: string;
  readonly now: () => Date;
}

/** Longer words to find are cut. */
const MAX_QUERY_LENGTH = 300;

/** What each route does. */
export function makeHandlers(services: Services): Handlers {
  const { database, cache, people, edits, jointTexts, liveOrigin, now } = services;
  const imports = new ImportService(cache, edits);
  const trees = new PackedTrees();
  const links = new AccountLinks(services);
  let openApi: object | undefined;

  return {
    health: async () => {
      await isThere(database);
      return { ok: true };
    },
    openapi: () => (openApi ??= makeOpenApi()),

    showPreferences: async ({ account }) => ({ preferences: await preferencesOf(database, account.id) }),
    setPreference: async ({ request, body, account }) => {
      const name = String(request.params.preference);
      if (!PREFERENCE_NAME.test(name)) throw new ProblemError('preference-name', { name: name.slice(0, 60) });
      await setPreference(database, account.id, name, body.value);
      return { ok: true };
    },

    listSites: async ({ account }) => {
      const sites = await listSites(database, liveOrigin);
      if (account.looksAfterAll) return { sites };
      const own = new Set(await sitesOfColleague(database, account.id));
      return { sites: sites.filter(({ key }) => own.has(key)) };
    },
    makeSite: async ({ body, account }) => {
      const { site, contents } = siteToBegin(body);
      await asNewSite(body.key, () => insertSite(database, site, account.id, contents));
      return (await listSites(database, liveOrigin, body.key))[0];
    },
    showSite: async ({ request }) => {
      const key = siteOf(request);
      const [summary] = await listSites(database, liveOrigin, key);
      if (!summary) throw new ProblemError('site-unknown', { site: key });
      return summary;
    },

    showTree: async ({ request, response }) => {
      const key = siteOf(request);
      const { site, revision } = await cache.current(key);
      if (request.query.revision !== undefined) {
        const asked = countIn(request.query.revision) ?? Number.NaN;
        return sendTree(await siteAt(database, { site, revision }, asked), asked);
      }
      return trees.send(request, response, { site, revision });
    },
    applyOperations: async ({ request, body, account }) => {
      const { revision, applied, inverse } = await edits.apply(siteOf(request), account, body);
      return { revision, applied, inverse };
    },
    whatChanges: ({ request, body }) => edits.preview(siteOf(request), body),
    undo: ({ request, body, account }) =>
      edits.turn(siteOf(request), account, 'undo', body).then(({ revision, words }) => ({ revision, words })),
    redo: ({ request, body, account }) =>
      edits.turn(siteOf(request), account, 'redo', body).then(({ revision, words }) => ({ revision, words })),
    showTurns: async ({ request, account }) => {
      const key = siteOf(request);
      await cache.current(key);
      return edits.turns(key, account);
    },
    tellWriting: async ({ request, body, account }) => {
      await tellWriting(database, siteOf(request), { ...body, by: account.name });
      return {};
    },
    writeTogether: ({ request, body, account }) =>
      jointTexts.exchange(siteOf(request), account, textPlaceOf(request), body),
    tellHere: async ({ request, body, account }) => {
      await tellHere(database, siteOf(request), { ...body, by: account.name, isHere: true });
      return {};
    },
    streamEvents: async ({ request, response }) => {
      const key = siteOf(request);
      const { revision } = await cache.current(key);
      const since = countIn(request.get('last-event-id') ?? request.query.since) ?? revision;
      await streamEdits(request, response, services, key, since);
    },

    showHistory: async ({ request }) => {
      const { site } = await cache.current(siteOf(request));
      const { by, of, page } = request.query;
      return historyBefore(database, site.key, countIn(request.query.before) || null, {
        by: typeof by === 'string' && by !== '' ? by : null,
        of: [...EDIT_KINDS, 'release' as const].find((kind) => kind === of) ?? null,
        pages: page === undefined ? null : branchOf(site, pageOf(page)),
      });
    },
    goBack: ({ request, body, account }) =>
      edits.goBack(siteOf(request), account, body).then(({ revision, words }) => ({ revision, words })),
    listLatestChanges: async ({ request }) => {
      const key = siteOf(request);
      await cache.current(key);
      const { of } = request.query;
      const changes = await latestChanges(database, key, of === 'access' || of === 'live' ? of : 'all');
      return {
        pages: changes.map((one) => one.page),
        by: changes.map((one) => one.by),
        at: changes.map((one) => one.at),
      };
    },
    findTexts: async ({ request, account }) => {
      const key = siteOf(request);
      const { site } = await cache.current(key);
      const found = await pagesWithTexts(database, key, request.query);
      return { pages: readableOf(site, await people.powersOf(key, account), found) };
    },
    listPlannedTexts: async ({ request }) => {
      const key = siteOf(request);
      await cache.current(key);
      return { pages: await plannedTexts(database, key) };
    },
    listRemoved: async ({ request }) => {
      const key = siteOf(request);
      const { site } = await cache.current(key);
      const branches = removedBranches(site);
      const when = await lastRemovals(
        database,
        key,
        branches.map((branch) => branch.page),
      );
      return {
        branches: branches
          .map((branch) => ({ ...branch, at: null, by: null, ...when.get(branch.page) }))
          .sort((a, b) => (b.at ?? '').localeCompare(a.at ?? '')),
      };
    },
    showPage: async ({ request }) => describePage(await cache.current(siteOf(request)), pageOf(request.params.page)),
    showContent: async ({ request, account }) => {
      const id = String(request.params.content) as ContentId;
      const { site } = await cache.current(siteOf(request));
      const powers = await people.powersOf(site.key, account);
      if (!mayReadText(site, powers, id))
        throw notAllowed(forbiddenWords(powers, { permission: 'read', at: null, site }));
      const found = await contentAt(database, site.key, id);
      if (!found) throw new ProblemError('content-unknown', { content: id });
      return found;
    },

    ...makeSignInHandlers(services),
    ...makeProviderHandlers(services),
    ...makeAccountHandlers(services, links),
    ...makePeopleHandlers(services, links),
    ...makeReleaseHandlers(services),
    ...makeRedirectHandlers(services),
    ...makeOldSiteHandlers(services),
    ...makeCarryOverHandlers(services),
    ...makeStarterHandlers(services),
    ...makeSharingHandlers(services),
    ...makeGuestHandlers(services),
    ...makeTalkHandlers(services),
    ...makeApprovalHandlers(services),
    ...makeVisitorHandlers(services),
    ...makeJoiningHandlers(services),
    ...makeAnswerHandlers(services),
    ...makePassphraseHandlers(services),
    ...makeDirectoryHandlers(services),
    ...makeEngineHandlers(services),
    ...makeArchiveHandlers(services),
    ...makeDeletedSiteHandlers(services),
    ...makeLinkHandlers(services),
    ...makeLibraryHandlers(services),
    ...makeFrameHandlers(services),
    ...makeReplacingHandlers(services),
    ...makeWalkHandlers(services),
    importPages: ({ request, body, account }) => imports.bring(siteOf(request), account, body),
    exportSite: async ({ request, response }) => {
      const key = siteOf(request);
      const name = String(request.params.format);
      if (!Object.hasOwn(EXPORTS, name)) throw new ProblemError('format-unknown', { format: name.slice(0, 60) });
      const { site } = await cache.current(key);
      const { file, type } = EXPORTS[name as ExportName];
      const live = name.startsWith('redirects.') ? liveRedirects(site, await storedAddresses(database, key)) : [];
      const text = await exportSite(name as ExportName, site, `${liveOrigin}/${key}`, now(), live, (ids) =>
        contentsOf(database, key, ids),
      );
      response
        .set({
          'Content-Type': `${type}; charset=utf-8`,
          'Content-Disposition': `attachment; filename="${key}-${file}"`,
        })
        .end(text);
    },
  };
}

/** The pages whose texts hold a fact, a shared section, a form, or words. */
async function pagesWithTexts(database: Database, key: SiteKey, query: Request['query']): Promise<PageId[]> {
  const fact = factIdSchema.safeParse(query.fact);
  if (fact.success) return pagesWithFact(database, key, fact.data);
  const shared = sharedIdSchema.safeParse(query.shared);
  if (shared.success) return pagesWithShared(database, key, shared.data);
  const form = formIdSchema.safeParse(query.form);
  if (form.success) return pagesWithForm(database, key, form.data);
  const asked = typeof query.text === 'string' ? query.text : '';
  const words = asked.slice(0, MAX_QUERY_LENGTH).split(/\s+/).filter(Boolean);
  return words.length === 0 ? [] : pagesWithText(database, key, words);
}
