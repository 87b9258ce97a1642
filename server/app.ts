import { existsSync } from 'node:fs';
import type { RequestListener } from 'node:http';
import { join } from 'node:path';
import compression from 'compression';
import express, { type Express } from 'express';
import session from 'express-session';
import expressStaticGzip from 'express-static-gzip';
import { Assets } from './live/assets.ts';
import helmet from 'helmet';
import type { Logger } from 'pino';
import type { Account } from '#contract/api.ts';
import { SESSION_COOKIE } from './accounts/remembered-sessions.ts';
import { SignedSessions, takeEdit } from './edits/edit-lane.ts';
import { type Services, makeHandlers } from './handlers.ts';
import { API_HEADERS } from './api-headers.ts';
import { mountUploads } from './library/uploads.ts';
import { placeOf } from './accounts/start-session.ts';
import type { AskedOfProvider } from './accounts/provider-handlers.ts';
import { siteOf } from './route-parameters.ts';
import { noteSecurity } from './security/security-log-repository.ts';
import { STRICT_TRANSPORT, isSecure } from './security/own-origin.ts';
import { ProblemError, handleErrors } from './problem.ts';
import { mountRoutes } from './routing.ts';

declare module 'express-session' {
  interface SessionData {
    account: Account;
    /** When it began, and with which browser, as far as that says. */
    since: string;
    browser: string;
    /** Who has given the password, and is asked for a one-time code. */
    waiting: { readonly account: string; readonly until: number };
    /** Who is at the provider of the organisation to sign in. */
    provider: AskedOfProvider;
    /** What an authenticator is to answer, or the secret that is being set up. */
    asked: { readonly kind: 'challenge' | 'secret'; readonly text: string; readonly until: number };
  }
}

export interface AppParts extends Services {
  readonly sessionSecret: string;
  /** The proxies in front that are believed when they say for whom they ask, as Express takes them. */
  readonly proxies: readonly string[];
  readonly log: Logger;
  /** The folder of the built interface, or null where only the API is wanted. */
  readonly webFolder: string | null;
  /** Where the bytes of files lie, and those that are still on their way. */
  readonly filesFolder: string;
}

const SESSION_LIVES_MS = 14 * 24 * 3600 * 1000;
const YEAR_S = 365 * 24 * 3600;

/** The headers of the interface's own pages; walks through the site stand in frames. */
const securedFor = (liveOrigin: string) =>
  helmet({
    contentSecurityPolicy: {
      directives: {
        defaultSrc: ["'self'"],
        scriptSrc: ["'self'"],
        // The dialogs and the editor set positions and sizes through style attributes.
        styleSrc: ["'self'", "'unsafe-inline'"],
        // A map becomes a PNG by way of an image that the page itself has made, with its typeface inside.
        imgSrc: ["'self'", 'data:', 'blob:'],
        fontSrc: ["'self'", 'data:'],
        frameSrc: [liveOrigin],
        objectSrc: ["'none'"],
        frameAncestors: ["'none'"],
        upgradeInsecureRequests: null,
      },
    },
    strictTransportSecurity: false,
  });

/** The workbench's server, without listening: edits take a lane of their own, Express does the rest. */
export function makeListener(parts: AppParts): RequestListener {
  const app = makeApp(parts);
  const lane = { ...parts, signed: new SignedSessions(parts.sessionSecret) };
  return (request, response) => {
    if (isSecure(parts.ownOrigin)) response.setHeader(...STRICT_TRANSPORT);
    if (!takeEdit(lane, request, response)) app(request, response);
  };
}

function makeApp(parts: AppParts): Express {
  const app = express();
  const hasHttps = isSecure(parts.ownOrigin);
  app.disable('x-powered-by');
  // The tree has a tag of its own making; other answers of the API are not kept by anybody.
  app.disable('etag');
  app.set('query parser', 'simple');
  app.set('trust proxy', [...parts.proxies]);
  const withSession = session({
    name: SESSION_COOKIE,
    secret: parts.sessionSecret,
    store: parts.sessions,
    resave: false,
    saveUninitialized: false,
    cookie: { httpOnly: true, sameSite: 'lax', maxAge: SESSION_LIVES_MS, path: '/', secure: hasHttps },
  });
  if (hasHttps)
    app.use((request, _response, next) => {
      // Whatever stands in front speaks https, as its address says: the session package asks the request.
      Object.defineProperty(request, 'secure', { value: true });
      next();
    });
  app.use('/api', (_request, response, next) => {
    response.setHeaders(new Map(Object.entries(API_HEADERS)));
    next();
  });
  app.use('/api', withSession);
  mountUploads(app, { ...parts, folder: parts.filesFolder });
  mountRoutes(app, makeHandlers(parts), {
    ...parts,
    noteExport: (request, what) =>
      noteSecurity(parts.database, {
        at: parts.now(),
        event: 'site-exported',
        site: siteOf(request),
        account: request.session.account ?? null,
        about: what,
        place: placeOf(request),
      }),
  });
  app.use('/api', (request) => {
    throw new ProblemError('route-unknown', { method: request.method, path: request.originalUrl.split('?')[0]! });
  });
  app.use(securedFor(parts.liveOrigin), compression());
  if (parts.webFolder) serveWeb(app, parts.webFolder);
  app.use(handleErrors(parts.log));
  return app;
}

function serveWeb(app: Express, folder: string): void {
  const page = join(folder, 'index.html');
  if (!existsSync(page)) throw new Error(`The interface has not been built: ${page} is missing. Run 'npm run build'.`);
  // The desk shows a page in the look of its site.
  app.use('/assets', async (request, response, next) => {
    const font = request.path.endsWith('.woff2') ? (await Assets.load()).get(request.path) : undefined;
    if (font) font.send(request, response);
    else next();
  });
  app.use(
    '/assets',
    expressStaticGzip(join(folder, 'assets'), {
      enableBrotli: true,
      orderPreference: ['br', 'gz'],
      index: false,
      serveStatic: { immutable: true, maxAge: YEAR_S * 1000, fallthrough: false },
    }),
  );
  app.use(express.static(folder, { index: false, maxAge: 0 }));
  app.get('/{*splat}', (_request, response) => response.set('Cache-Control', 'no-cache').sendFile(page));
}
