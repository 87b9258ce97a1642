import type { IncomingMessage, RequestListener, ServerResponse } from 'node:http';
import express, { type ErrorRequestHandler } from 'express';
import type { Knex } from 'knex';
import type { Logger } from 'pino';
import type { Assets } from './assets.ts';
import type { Attempts } from '../security/attempts.ts';
import type { Letters } from '../visitors/letters.ts';
import type { SignedIn, VisitorSessions } from '../visitors/visitor-sessions.ts';
import type { Asking, LiveSites } from './live-sites.ts';
import { mountJoiningPages } from './joining-pages.ts';
import { mountWalks } from './walks.ts';
import { mountVisitorPages, visitorToken } from './visitor-pages.ts';
import { ReadyAnswer, headerOf } from './ready-answer.ts';

const TEXT = 'text/plain; charset=utf-8';
const NO_SITE = new ReadyAnswer(404, TEXT, 'There is no site at this address.\n', [
  'Cache-Control',
  'no-cache',
  'X-Robots-Tag',
  'noindex',
]);
const FAULT = new ReadyAnswer(500, TEXT, 'The page cannot be shown at the moment. Try again a little later.\n', [
  'Cache-Control',
  'no-store',
]);
const ONLY_READING = new ReadyAnswer(405, TEXT, 'This site is for reading.\n', [
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
  readonly database: Knex;
  /** What walks are signed with. */
  readonly walkSecret: string;
  readonly log: Logger;
}

/**
 * The visitors' side as a request listener: what is ready in memory is answered at once, before Express, which
 * does the rest.
 */
export function makeLiveHandler(parts: LiveParts): RequestListener {
  const { sites, sessions } = parts;
  const rest = makeExpress(parts);
  return (request: IncomingMessage, response: ServerResponse) => {
    if (request.method === 'GET' || request.method === 'HEAD') {
      const token = visitorToken(headerOf(request, 'cookie'));
      const signedIn = token === null ? null : sessions.remembered(token);
      // Who has a token that is not known yet is looked up first.
      const answer =
        signedIn === undefined ? undefined : sites.ready(request.url!, signedIn && askingBy(signedIn, request.url!));
      if (answer) return answer.send(request, response);
    }
    rest(request, response);
  };
}

/** The audiences of somebody who is signed in to the site that a path is of; a session of another site counts for nothing. */
const askingBy = (signedIn: SignedIn, url: string): Asking =>
  url.startsWith(`/${signedIn.site}/`) ? signedIn.audiences : null;

function makeExpress({
  sites,
  sessions,
  attempts,
  letters,
  assets,
  database,
  walkSecret,
  log,
}: LiveParts): express.Express {
  const app = express();
  const askingOf = async (request: IncomingMessage): Promise<Asking> => {
    const token = visitorToken(request.headers.cookie);
    const signedIn = token === null ? null : await sessions.find(token);
    return signedIn && askingBy(signedIn, request.url!);
  };
  app.disable('x-powered-by');
  app.disable('etag');
  mountWalks(app, database, walkSecret, { stylesheet: assets.stylesheet, origin: sites.origin }, Date.now);
  mountJoiningPages(app, { sites, letters, attempts });
  mountVisitorPages(app, sites, sessions, attempts, askingOf);
  app.use((request, response, next) => {
    if (request.method !== 'GET' && request.method !== 'HEAD') return ONLY_READING.send(request, response);
    next();
  });
  app.get('/robots.txt', async (request, response) => (await sites.robots()).send(request, response));
  app.use('/assets', (request, response) => (assets.get(request.path) ?? NO_SITE).send(request, response));
  app.use(async (request, response) => {
    const [, key = '', path = ''] = /^\/([^/]*)(.*)$/s.exec(request.path) ?? [];
    if (key === '') return NO_SITE.send(request, response);
    const answer = await sites.answer(
      key,
      path === '' ? '/' : path,
      /\?.*$/s.exec(request.originalUrl)?.[0],
      await askingOf(request),
    );
    if (!answer) return NO_SITE.send(request, response);
    if (answer instanceof ReadyAnswer && path !== '') return answer.send(request, response);
    response
      .status(answer instanceof ReadyAnswer ? 308 : answer.status)
      .set({
        Location: answer instanceof ReadyAnswer ? `/${key}/` : answer.moved,
        'Cache-Control': 'no-cache',
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
        .end('This form cannot be taken.\n');
    log.error({ err: fault, url: request.url }, 'a page could not be shown');
    FAULT.send(request, response);
  };
  app.use(fail);
  return app;
}
