import type { Request } from 'express';
import { gzipSync, constants } from 'node:zlib';
import type { Knex } from 'knex';
import { type PageId, pageIdSchema, type SiteKey, siteKeySchema } from '#core/model/ids.ts';
import { makeSite } from '#core/model/site.ts';
import { planRelease, waitingPages } from '#core/changes/release-plan.ts';
import type { Account, SessionAnswer } from '#contract/api.ts';
import { packSite } from '#contract/packed-site.ts';
import { authenticate, makeFirstAccount } from './accounts/account-service.ts';
import { SESSION_COOKIE } from './accounts/remembered-sessions.ts';
import type { Attempts } from './accounts/attempts.ts';
import type { EditService } from './edits/edit-service.ts';
import { streamEdits } from './events/event-stream.ts';
import {
  historyBefore,
  lastRemovals,
  latestChanges,
  latestReleaseNumber,
  listReleases,
} from './history/history-repository.ts';
import { makeOpenApi } from './open-api.ts';
import { ProblemError } from './problem.ts';
import type { Handlers } from './routing.ts';
import { PREFERENCE_NAME, preferencesOf, setPreference } from './preferences/preference-repository.ts';
import { siteAt } from './history/site-at.ts';
import { describePage } from './sites/describe-page.ts';
import { removedBranches } from './sites/removed-branches.ts';
import type { SiteCache } from './sites/site-cache.ts';
import { contentAt, insertSite, listSites, pagesWithText } from './sites/site-repository.ts';

export interface Services {
  readonly database: Knex;
  readonly cache: SiteCache;
  readonly edits: EditService;
  readonly attempts: Attempts;
  readonly liveOrigin: string;
  readonly now: () => Date;
}

/** Keys that the visitors' side or the workbench needs for itself. */
const RESERVED_KEYS: ReadonlySet<string> = new Set(['api', 'assets', 'sites', 'sign-in', 'welcome', 'problems']);
const UNIQUE_VIOLATION = '23505';
/** Longer words to find are cut. */
const LONGEST_QUERY = 300;

/** What each route does. */
export function makeHandlers({ database, cache, edits, attempts, liveOrigin, now }: Services): Handlers {
  const packedTrees = new Map<SiteKey, { revision: number; body: Buffer }>();
  const sessionOf = (account: Account | undefined): SessionAnswer => ({ account: account ?? null, liveOrigin });
  let openApi: object | undefined;

  return {
    health: async () => {
      await database.raw('SELECT 1');
      return { ok: true };
    },
    openapi: () => (openApi ??= makeOpenApi()),

    showSession: ({ request }) => sessionOf(request.session.account),
    signIn: async ({ request, body }) => {
      const account = await attempts.guard(request.ip ?? 'unknown', body.email, () =>
        authenticate(database, body.email, body.password),
      );
      await startSession(request, account);
      return sessionOf(account);
    },
    signOut: async ({ request, response }) => {
      await new Promise<void>((resolve, reject) =>
        request.session.destroy((fault) => (fault ? reject(fault) : resolve())),
      );
      response.clearCookie(SESSION_COOKIE);
      return sessionOf(undefined);
    },
    makeFirstAccount: async ({ request, body }) => {
      const account = await attempts.guard(request.ip ?? 'unknown', 'first-account', () =>
        makeFirstAccount(database, now(), body),
      );
      await startSession(request, account);
      return sessionOf(account);
    },

    showPreferences: async ({ account }) => ({ preferences: await preferencesOf(database, account.id) }),
    setPreference: async ({ request, body, account }) => {
      const name = String(request.params.preference);
      if (!PREFERENCE_NAME.test(name)) throw new ProblemError('preference-name', { name: name.slice(0, 60) });
      await setPreference(database, account.id, name, body.value);
      return { ok: true };
    },

    listSites: async () => ({ sites: await listSites(database, liveOrigin) }),
    makeSite: async ({ body, account }) => {
      if (RESERVED_KEYS.has(body.key)) throw new ProblemError('site-exists', { site: body.key });
      const site = makeSite(body.key, { name: body.name, language: body.language, home: null }, []);
      try {
        await insertSite(database, site, account.id);
      } catch (fault) {
        if ((fault as { code?: string }).code === UNIQUE_VIOLATION)
          throw new ProblemError('site-exists', { site: body.key });
        throw fault;
      }
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
        const asked = Number(request.query.revision);
        return packSite(await siteAt(database, { site, revision }, asked), asked);
      }
      const tag = `"${revision}"`;
      response.set({ ETag: tag, 'Cache-Control': 'private, no-cache', Vary: 'Accept-Encoding' });
      if (request.get('if-none-match') === tag) return void response.status(304).end();
      let packed = packedTrees.get(key);
      if (packed?.revision !== revision) {
        const json = JSON.stringify(packSite(site, revision));
        packed = { revision, body: gzipSync(json, { level: constants.Z_BEST_SPEED + 3 }) };
        packedTrees.set(key, packed);
      }
      if (!/\bgzip\b/.test(request.get('accept-encoding') ?? '')) return packSite(site, revision);
      response.set({ 'Content-Encoding': 'gzip', 'Content-Type': 'application/json; charset=utf-8' }).end(packed.body);
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
    streamEvents: async ({ request, response }) => {
      const key = siteOf(request);
      const { revision } = await cache.current(key);
      const last = Number(request.get('last-event-id') ?? request.query.since);
      await streamEdits(request, response, database, cache, key, Number.isInteger(last) && last >= 0 ? last : revision);
    },

    showHistory: async ({ request }) => {
      const key = siteOf(request);
      await cache.current(key);
      const before = Number(request.query.before);
      const { by } = request.query;
      return historyBefore(
        database,
        key,
        Number.isInteger(before) && before > 0 ? before : null,
        typeof by === 'string' && by !== '' ? by : null,
      );
    },
    goBack: ({ request, body, account }) =>
      edits.goBack(siteOf(request), account, body).then(({ revision, words }) => ({ revision, words })),
    listLatestChanges: async ({ request }) => {
      const key = siteOf(request);
      await cache.current(key);
      const changes = await latestChanges(database, key);
      return {
        pages: changes.map((one) => one.page),
        by: changes.map((one) => one.by),
        at: changes.map((one) => one.at),
      };
    },
    findTexts: async ({ request }) => {
      const key = siteOf(request);
      await cache.current(key);
      const asked = String(request.query.text ?? '');
      const words = asked.slice(0, LONGEST_QUERY).split(/\s+/).filter(Boolean);
      return { pages: words.length === 0 ? [] : await pagesWithText(database, key, words) };
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
    showContent: async ({ request }) => {
      const id = String(request.params.content);
      const found = await contentAt(database, siteOf(request), id);
      if (!found) throw new ProblemError('content-unknown', { content: id });
      return found;
    },

    showReleasePlan: async ({ request }) => {
      const { site, revision } = await cache.current(siteOf(request));
      const asked = request.query.pages;
      const pages = typeof asked === 'string' ? asked.split(',').map(pageOf) : waitingPages(site);
      const unknown = pages.find((page) => !site.nodes.has(page));
      if (unknown !== undefined) throw new ProblemError('page-unknown', { page: unknown });
      const plan = planRelease(site, { pages, retire: [] });
      return {
        revision,
        pages: plan.operation.pages,
        retire: plan.operation.retire,
        along: plan.along,
        addresses: plan.addresses,
      };
    },
    makeRelease: async ({ request, body, account }) => {
      const key = siteOf(request);
      const done = await edits.release(key, account, body);
      return {
        number: await latestReleaseNumber(database, key),
        revision: done.revision,
        pages: done.pages,
        retired: done.retired,
      };
    },
    listReleases: async ({ request }) => {
      const key = siteOf(request);
      await cache.current(key);
      return { releases: await listReleases(database, key) };
    },
  };
}

/** Starts the session under a new id, so that an id known from before signing in is worth nothing. */
async function startSession(request: Request, account: Account): Promise<void> {
  await new Promise<void>((resolve, reject) =>
    request.session.regenerate((fault) => (fault ? reject(fault) : resolve())),
  );
  request.session.account = account;
}

function siteOf(request: Request): SiteKey {
  const parsed = siteKeySchema.safeParse(request.params.site);
  if (!parsed.success) throw new ProblemError('site-unknown', { site: String(request.params.site) });
  return parsed.data;
}

function pageOf(text: unknown): PageId {
  const parsed = pageIdSchema.safeParse(text);
  if (!parsed.success) throw new ProblemError('page-unknown', { page: String(text).slice(0, 60) });
  return parsed.data;
}
