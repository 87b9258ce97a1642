import { randomUUID } from 'node:crypto';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import compression from 'compression';
import connectPgSimple from 'connect-pg-simple';
import express, { type Express } from 'express';
import session from 'express-session';
import helmet from 'helmet';
import type pg from 'pg';
import type { Logger } from 'pino';
import { pinoHttp } from 'pino-http';
import type { Account } from '#contract/api.ts';
import { type Services, makeHandlers } from './handlers.ts';
import { ProblemError, handleErrors } from './problem.ts';
import { mountRoutes } from './routing.ts';

declare module 'express-session' {
  interface SessionData {
    account: Account;
  }
}

export interface AppParts extends Services {
  readonly pool: pg.Pool;
  readonly sessionSecret: string;
  readonly log: Logger;
  /** The folder of the built interface, or null where only the API is wanted. */
  readonly webFolder: string | null;
}

const SESSION_LIVES_MS = 14 * 24 * 3600 * 1000;
const YEAR_S = 365 * 24 * 3600;

/** The workbench's server, without listening. */
export function makeApp(parts: AppParts): Express {
  const app = express();
  app.disable('x-powered-by');
  app.set('query parser', 'simple');
  app.use(pinoHttp({ logger: parts.log, genReqId: () => randomUUID(), autoLogging: false }));
  app.use(
    helmet({
      contentSecurityPolicy: {
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'"],
          // The dialogs and the editor set positions and sizes through style attributes.
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:'],
          objectSrc: ["'none'"],
          frameAncestors: ["'none'"],
          upgradeInsecureRequests: null,
        },
      },
      strictTransportSecurity: false,
    }),
  );
  const withSession = session({
    name: 'spur.workbench',
    secret: parts.sessionSecret,
    // Reading a session does not write it: an edit costs one journey to the database for it, not two.
    store: new (connectPgSimple(session))({
      pool: parts.pool,
      tableName: 'session',
      disableTouch: true,
      pruneSessionInterval: 3600,
    }),
    resave: false,
    saveUninitialized: false,
    cookie: { httpOnly: true, sameSite: 'lax', maxAge: SESSION_LIVES_MS, path: '/' },
  });
  app.use('/api', withSession);
  const compress = compression();
  app.use((request, response, next) => (request.path.endsWith('/events') ? next() : compress(request, response, next)));
  mountRoutes(app, makeHandlers(parts));
  app.use('/api', (request) => {
    throw new ProblemError('route-unknown', { method: request.method, path: request.originalUrl.split('?')[0]! });
  });
  if (parts.webFolder) serveWeb(app, parts.webFolder);
  app.use(handleErrors);
  return app;
}

function serveWeb(app: Express, folder: string): void {
  const page = join(folder, 'index.html');
  if (!existsSync(page)) throw new Error(`The interface has not been built: ${page} is missing. Run 'npm run build'.`);
  app.use(
    '/assets',
    express.static(join(folder, 'assets'), { immutable: true, maxAge: YEAR_S * 1000, fallthrough: false }),
  );
  app.use(express.static(folder, { index: false, maxAge: 0 }));
  app.get('/{*splat}', (_request, response) => response.set('Cache-Control', 'no-cache').sendFile(page));
}
