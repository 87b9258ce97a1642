import type { z } from 'zod';
import {
  type Permission,
  consequencesAnswer,
  contentAnswer,
  firstAccountBody,
  goBackBody,
  historyAnswer,
  latestChangesAnswer,
  makeSiteBody,
  operationsAnswer,
  operationsBody,
  pageAnswer,
  preferenceBody,
  preferencesAnswer,
  releaseAnswer,
  releaseBody,
  releasePlanAnswer,
  releasesAnswer,
  removedAnswer,
  sessionAnswer,
  signInBody,
  siteSummary,
  textsFoundAnswer,
  undoAnswer,
  undoBody,
} from './api.ts';
import { packedSiteSchema } from './packed-site.ts';
import { z as zod } from 'zod';

export interface Route {
  readonly method: 'get' | 'post' | 'put' | 'delete';
  /** With Express's parameters; `:site` is a site's key, `:page` a page's id. */
  readonly path: string;
  /** What the caller's role must allow. `open` asks for no account. */
  readonly permission: Permission | 'open';
  readonly summary: string;
  readonly body?: z.ZodType;
  readonly answer?: z.ZodType;
  /** The answer's media type, where it is not JSON. */
  readonly sends?: string;
  /** The largest body in bytes, where it is not the usual one. */
  readonly largest?: number;
}

const okAnswer = zod.object({ ok: zod.literal(true) });

/** Every route of the API. The server mounts exactly these, and the OpenAPI document is made from them. */
export const ROUTES = {
  health: {
    method: 'get',
    path: '/api/health',
    permission: 'open',
    summary: 'Whether Spur and its database answer',
    answer: okAnswer,
  },
  openapi: { method: 'get', path: '/api/openapi.json', permission: 'open', summary: 'This API as OpenAPI 3.1' },
  showSession: {
    method: 'get',
    path: '/api/session',
    permission: 'open',
    summary: 'Who is signed in',
    answer: sessionAnswer,
  },
  signIn: {
    method: 'post',
    path: '/api/session',
    permission: 'open',
    summary: 'Sign in',
    body: signInBody,
    answer: sessionAnswer,
  },
  signOut: { method: 'delete', path: '/api/session', permission: 'open', summary: 'Sign out', answer: sessionAnswer },
  makeFirstAccount: {
    method: 'post',
    path: '/api/first-account',
    permission: 'open',
    summary: 'Make the first account with the one-time link',
    body: firstAccountBody,
    answer: sessionAnswer,
  },
  showPreferences: {
    method: 'get',
    path: '/api/preferences',
    permission: 'site.read',
    summary: 'Your own settings of the workbench',
    answer: preferencesAnswer,
  },
  setPreference: {
    method: 'put',
    path: '/api/preferences/:preference',
    permission: 'site.read',
    summary: 'Set one of your own settings of the workbench; null takes it away',
    body: preferenceBody,
    answer: okAnswer,
  },
  listSites: {
    method: 'get',
    path: '/api/sites',
    permission: 'site.read',
    summary: 'The sites',
    answer: zod.object({ sites: zod.array(siteSummary) }),
  },
  makeSite: {
    method: 'post',
    path: '/api/sites',
    permission: 'sites.make',
    summary: 'Make a site',
    body: makeSiteBody,
    answer: siteSummary,
  },
  showSite: {
    method: 'get',
    path: '/api/sites/:site',
    permission: 'site.read',
    summary: 'One site',
    answer: siteSummary,
  },
  showTree: {
    method: 'get',
    path: '/api/sites/:site/tree',
    permission: 'site.read',
    summary: 'The whole tree, packed by columns, with the revision; with `?revision=` as it was then',
    answer: packedSiteSchema,
  },
  applyOperations: {
    method: 'post',
    path: '/api/sites/:site/operations',
    permission: 'site.edit',
    summary: 'Apply operations: all of them or none',
    body: operationsBody,
    answer: operationsAnswer,
    largest: 4_000_000,
  },
  whatChanges: {
    method: 'post',
    path: '/api/sites/:site/what-changes',
    permission: 'site.read',
    summary: 'What operations would change; nothing is written',
    body: operationsBody,
    answer: consequencesAnswer,
    largest: 4_000_000,
  },
  undo: {
    method: 'post',
    path: '/api/sites/:site/undo',
    permission: 'site.edit',
    summary: 'Undo your last change',
    body: undoBody,
    answer: undoAnswer,
  },
  redo: {
    method: 'post',
    path: '/api/sites/:site/redo',
    permission: 'site.edit',
    summary: 'Make your last undone change again',
    body: undoBody,
    answer: undoAnswer,
  },
  streamEvents: {
    method: 'get',
    path: '/api/sites/:site/events',
    permission: 'site.read',
    summary: 'Changes as they are committed, resumable by Last-Event-ID',
    sends: 'text/event-stream',
  },
  showHistory: {
    method: 'get',
    path: '/api/sites/:site/history',
    permission: 'site.read',
    summary: 'The log in words, newest first; `?before=` a revision for older ones, `?by=` a name for one person',
    answer: historyAnswer,
  },
  goBack: {
    method: 'post',
    path: '/api/sites/:site/go-back',
    permission: 'site.edit',
    summary: 'Make the draft what it was at a revision, as one new change',
    body: goBackBody,
    answer: undoAnswer,
  },
  listLatestChanges: {
    method: 'get',
    path: '/api/sites/:site/latest-changes',
    permission: 'site.read',
    summary: 'Who changed each page last, and when',
    answer: latestChangesAnswer,
  },
  findTexts: {
    method: 'get',
    path: '/api/sites/:site/find',
    permission: 'site.read',
    summary: 'The pages whose text holds all words of `?text=`',
    answer: textsFoundAnswer,
  },
  listRemoved: {
    method: 'get',
    path: '/api/sites/:site/removed',
    permission: 'site.read',
    summary: 'Branches that were removed and can be put back',
    answer: removedAnswer,
  },
  showPage: {
    method: 'get',
    path: '/api/sites/:site/pages/:page',
    permission: 'site.read',
    summary: 'One page, with the reason of each derived answer',
    answer: pageAnswer,
  },
  showContent: {
    method: 'get',
    path: '/api/sites/:site/contents/:content',
    permission: 'site.read',
    summary: 'A text',
    answer: contentAnswer,
  },
  showReleasePlan: {
    method: 'get',
    path: '/api/sites/:site/release-plan',
    permission: 'site.read',
    summary: 'What a release would do: of all that waits, or of `?pages=` (ids with commas between)',
    answer: releasePlanAnswer,
  },
  makeRelease: {
    method: 'post',
    path: '/api/sites/:site/releases',
    permission: 'site.publish',
    summary: 'Make pages live, and take others down',
    body: releaseBody,
    answer: releaseAnswer,
    largest: 4_000_000,
  },
  listReleases: {
    method: 'get',
    path: '/api/sites/:site/releases',
    permission: 'site.read',
    summary: 'The releases, newest first',
    answer: releasesAnswer,
  },
} as const satisfies Record<string, Route>;
export type RouteName = keyof typeof ROUTES;
export type BodyOf<Name extends RouteName> = (typeof ROUTES)[Name] extends { body: infer Body extends z.ZodType }
  ? z.output<Body>
  : undefined;
export type AnswerOf<Name extends RouteName> = (typeof ROUTES)[Name] extends { answer: infer Answer extends z.ZodType }
  ? z.output<Answer>
  : unknown;
