import type { IncomingMessage, RequestListener, ServerResponse } from 'node:http';
import express, { type ErrorRequestHandler } from 'express';
import type { Logger } from 'pino';
import type { Assets } from './assets.ts';
import type { LiveSites } from './live-sites.ts';
import { ReadyAnswer } from './ready-answer.ts';

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

/**
 * The visitors' side as a request listener: what is ready in memory is answered at once, before Express, which
 * does the rest.
 */
export function makeLiveHandler(sites: LiveSites, assets: Assets, log: Logger): RequestListener {
  const rest = makeExpress(sites, assets, log);
  return (request: IncomingMessage, response: ServerResponse) => {
    if (request.method === 'GET' || request.method === 'HEAD') {
      const answer = sites.ready(request.url!);
      if (answer) return answer.send(request, response);
    }
    rest(request, response);
  };
}

function makeExpress(sites: LiveSites, assets: Assets, log: Logger): express.Express {
  const app = express();
  app.disable('x-powered-by');
  app.disable('etag');
  app.use((request, response, next) => {
    if (request.method !== 'GET' && request.method !== 'HEAD') return ONLY_READING.send(request, response);
    next();
  });
  app.get('/robots.txt', async (request, response) => (await sites.robots()).send(request, response));
  app.use('/assets', (request, response) => (assets.get(request.path) ?? NO_SITE).send(request, response));
  app.use(async (request, response) => {
    const [, key = '', path = ''] = /^\/([^/]*)(.*)$/s.exec(request.path) ?? [];
    if (key === '') return NO_SITE.send(request, response);
    const answer = await sites.answer(key, path === '' ? '/' : path);
    if (!answer) return NO_SITE.send(request, response);
    if (answer instanceof ReadyAnswer && path !== '') return answer.send(request, response);
    response
      .status(308)
      .set({ Location: answer instanceof ReadyAnswer ? `/${key}/` : answer.moved, 'Cache-Control': 'no-cache' })
      .end();
  });
  const fail: ErrorRequestHandler = (fault: unknown, request, response, next) => {
    if (response.headersSent) return next(fault);
    if ((fault as { status?: number }).status === 400) return NO_SITE.send(request, response);
    log.error({ err: fault, url: request.url }, 'a page could not be shown');
    FAULT.send(request, response);
  };
  app.use(fail);
  return app;
}
