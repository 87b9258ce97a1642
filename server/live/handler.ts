import { fromFirst, upTo } from '#core/model/cut-text.ts';
import type { IncomingMessage, RequestListener, ServerResponse } from 'node:http';
import express, { type ErrorRequestHandler } from 'express';
import type { Logger } from 'pino';
import type { Database } from '../database/connect.ts';
import { type Assets, LOOK_STEP } from './assets.ts';
import type { Attempts } from '../security/attempts.ts';
import { STRICT_TRANSPORT, isSecure } from '../security/own-origin.ts';
import type { Letters } from '../visitors/letters.ts';
import type { VisitorSessions } from '../visitors/visitor-sessions.ts';
import { ANYBODY, Askers } from './asking.ts';
import type { LiveSites } from './live-sites.ts';
import type { FileStore } from '../library/file-store.ts';
import type { LibraryService } from '../library/library-service.ts';
import type { Mailer } from '../mail/mailer.ts';
import { PREVIEW_STEP } from './page-previews.ts';
import { PreviewPictures, previewHash } from './preview-picture.ts';
import { mountFiles, noFile } from './file-answers.ts';
import { mountFormAnswers } from './form-answers.ts';
import { mountJoiningPages } from './joining-pages.ts';
import { mountWalks } from './walks.ts';
import { mountPassphrasePages } from './passphrase-pages.ts';
import { mountVisitorPages } from './visitor-pages.ts';
import { ReadyAnswer } from './ready-answer.ts';

const TEXT = 'text/plain; charset=utf-8';
const NO_SITE = new ReadyAnswer(404, TEXT, 'There is no site at this address.\n', [
  'Cache-Control',
  'no-cache',
  'X-Robots-Tag',
  'noindex',
]);
const FAULT = new ReadyAnswer(500, TEXT, 'The page cannot be shown right now. Try again later.\n', [
  'Cache-Control',
  'no-store',
]);
const ONLY_READING = new ReadyAnswer(405, TEXT, 'This address can only be read.\n', [
  'Allow',
  'GET, HEAD',
  'Cache-Control',
  'no-store',
]);

export interface LiveParts {
  readonly sites: LiveSites;
  readonly sessions: VisitorSessions;
  readonly attempts: Attempts;
  readonly letters: Letters;
  readonly assets: Assets;
  readonly database: Database;
  /** Where the bytes of files lie. */
  readonly store: FileStore;
  /** Where the files go that come with forms. */
  readonly library: LibraryService;
  readonly mailer: Mailer;
  /** The outside address of the workbench. */
  readonly workbenchOrigin: string;
  /** What passphrases that were given are signed with. */
  readonly secret: string;
  /** The outside address of the visitors' side; null where none was named. */
  readonly ownOrigin: string | null;
  /** The proxies in front that are believed when they say for whom they ask, as Express takes them. */
  readonly proxies: readonly string[];
  readonly log: Logger;
}

/**
 * The visitors' side as a request listener: what is ready in memory is answered at once, before Express, which
 * does the rest.
 */
export function makeLiveHandler(parts: LiveParts): RequestListener {
  const { sites } = parts;
  const askers = new Askers(parts.sessions, parts.secret);
  const rest = makeExpress(parts, askers);
  const hasHttps = isSecure(parts.ownOrigin);
  return (request: IncomingMessage, response: ServerResponse) => {
    if (hasHttps) response.setHeader(...STRICT_TRANSPORT);
    if (request.method === 'GET' || request.method === 'HEAD') {
      const asking = askers.remembered(request);
      const answer = asking && sites.ready(request.url!, asking);
      if (answer) return answer.send(request, response);
    }
    rest(request, response);
  };
}

/** The pictures of pages that show none, for where somebody links to them elsewhere. */
function mountPreviews(app: express.Express, sites: LiveSites, pictures: PreviewPictures): void {
  app.get(`/:site/${PREVIEW_STEP}/:hash/:page.png`, async (request, response) => {
    const { site, hash, page } = request.params as { site: string; hash: string; page: string };
    const preview = await sites.preview(site, page);
    if (!preview) return noFile(response);
    const picture = await pictures.of(preview);
    if (!picture) return void response.status(503).set({ 'Retry-After': '10', 'Cache-Control': 'no-store' }).end();
    const isOfNow = previewHash(preview) === hash;
    response
      .set({
        'Cache-Control': isOfNow ? 'public, max-age=31536000, immutable' : 'no-cache',
        'X-Content-Type-Options': 'nosniff',
      })
      .type('png')
      .end(picture);
  });
}

function makeExpress(parts: LiveParts, askers: Askers): express.Express {
  const { sites, sessions, attempts, letters, assets, database, store, secret, ownOrigin, proxies, log } = parts;
  const app = express();
  app.disable('x-powered-by');
  app.disable('etag');
  app.set('trust proxy', [...proxies]);
  // A site's key has no sign that is escaped: an escaped one would be another name for it, which only some would know.
  app.use((request, response, next) => {
    if (upTo(request.path.slice(1), '/').includes('%')) NO_SITE.send(request, response);
    else next();
  });
  app.get('/robots.txt', async (request, response) => (await sites.robots()).send(request, response));
  app.use('/assets', (request, response) => (assets.get(request.path) ?? NO_SITE).send(request, response));
  mountWalks(app, database, store, { assets, origin: sites.origin }, Date.now);
  // A site that is closed for works has its look too.
  app.get(`/:site/${LOOK_STEP}/:sheet`, async (request, response) => {
    const { site, sheet } = request.params as { site: string; sheet: string };
    ((await sites.sheet(site, `/${LOOK_STEP}/${sheet}`)) ?? NO_SITE).send(request, response);
  });
  app.use(async (request, response, next) => {
    const [, key = ''] = /^\/([^/]*)/.exec(request.path) ?? [];
    const closed = await sites.closed(key);
    if (closed) closed.send(request, response);
    else next();
  });
  mountPreviews(app, sites, new PreviewPictures(store, (family) => assets.fontBytes(family)));
  mountFiles(app, { sites, store, askers });
  mountJoiningPages(app, { sites, letters, attempts, askers, ownOrigin });
  mountPassphrasePages(app, { database, sites, askers, attempts, secret, ownOrigin });
  mountFormAnswers(app, { ...parts, askers, now: () => new Date() });
  mountVisitorPages(app, { sites, sessions, attempts, askers, ownOrigin });
  app.use((request, response, next) => {
    if (request.method !== 'GET' && request.method !== 'HEAD') return ONLY_READING.send(request, response);
    next();
  });
  app.use(async (request, response) => {
    const key = upTo(request.path.slice(1), '/');
    const path = request.path.slice(1 + key.length);
    if (key === '') return NO_SITE.send(request, response);
    const asking = await askers.find(request);
    const query = fromFirst(request.originalUrl, '?');
    const answer = await sites.answer(key, path === '' ? '/' : path, query, asking, request.get('referer'));
    if (!answer) return NO_SITE.send(request, response);
    if (answer instanceof ReadyAnswer && path !== '') return answer.send(request, response);
    response
      .status(answer instanceof ReadyAnswer ? 308 : answer.status)
      .set({
        Location: answer instanceof ReadyAnswer ? `/${key}/` : answer.moved,
        'Cache-Control': asking === ANYBODY ? 'no-cache' : 'private, no-cache',
        Vary: 'Cookie',
      })
      .end();
  });
  const fail: ErrorRequestHandler = (fault: unknown, request, response, next) => {
    if (response.headersSent) return next(fault);
    const { status = 500 } = fault as { status?: number };
    if (status === 400) return NO_SITE.send(request, response);
    // A form that is too large, or of another kind than a form.
    if (status > 400 && status < 500)
      return void response
        .status(status)
        .set('Cache-Control', 'no-store')
        .type('text')
        .end('This form cannot be accepted.\n');
    log.error({ err: fault, url: request.url }, 'a page could not be shown');
    FAULT.send(request, response);
  };
  app.use(fail);
  return app;
}
