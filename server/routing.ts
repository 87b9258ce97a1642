import express, { type Express, type Request, type RequestHandler, type Response } from 'express';
import type { z } from 'zod';
import { ROLES, type Account, type Permission } from '#contract/api.ts';
import type { Route } from '#contract/route.ts';
import { type BodyOf, ROUTES, type RouteName } from '#contract/routes.ts';
import { ProblemError } from './problem.ts';
import { isOwnOrigin } from './security/own-origin.ts';

export interface Call<Name extends RouteName> {
  readonly request: Request;
  readonly response: Response;
  readonly body: BodyOf<Name>;
  /** The caller. Asking for it on a route that needs no account is a fault of the program. */
  readonly account: Account;
}
/** What a route does: it gives the answer, or has sent it itself and gives undefined. */
export type Handlers = { readonly [Name in RouteName]: (call: Call<Name>) => unknown };

const USUAL_LARGEST = 100_000;

/** Mounts every route of the contract: its permission, its body's shape, its work, in this order. */
export function mountRoutes(app: Express, handlers: Handlers): void {
  for (const name of Object.keys(ROUTES) as RouteName[]) {
    const route: Route = ROUTES[name];
    const handle = handlers[name] as (call: Call<never>) => unknown;
    const steps: RequestHandler[] = [requirePermission(route.permission)];
    if (route.method !== 'get') steps.push(requireOwnOrigin);
    if (route.body) {
      steps.push(requireJson, express.json({ limit: route.largest ?? USUAL_LARGEST, strict: false }));
    }
    app[route.method](route.path, ...steps, async (request, response) => {
      const body = route.body ? parseBody(route.body, request.body) : undefined;
      const answer = await handle({
        request,
        response,
        body: body as never,
        get account() {
          return callerOf(request);
        },
      });
      if (answer !== undefined) response.json(answer);
    });
  }
}

function callerOf(request: Request): Account {
  if (!request.session.account) throw new ProblemError('not-signed-in');
  return request.session.account;
}

/** Lets through whose role has the permission. */
const requirePermission =
  (permission: Route['permission']): RequestHandler =>
  (request, _response, next) => {
    // What a link's secret opens the handler itself asks for.
    if (permission !== 'open' && permission !== 'link') {
      if (!mayDo(callerOf(request), permission)) throw new ProblemError('not-allowed', { permission });
    }
    next();
  };

/** Takes changes only from the workbench's own pages: browsers say in Origin where a request comes from. */
const requireOwnOrigin: RequestHandler = (request, _response, next) => {
  if (!isOwnOrigin(request.headers))
    throw new ProblemError('wrong-origin', { origin: request.headers.origin ?? 'nothing' });
  next();
};

/** Whether the role of a caller has the permission. */
export const mayDo = (account: Account, permission: Permission): boolean =>
  (ROLES[account.role] as readonly Permission[]).includes(permission);

const requireJson: RequestHandler = (request, _response, next) => {
  if (!request.is('application/json')) throw new ProblemError('body-type');
  next();
};

/** The body in the shape that the contract gives it. @throws ProblemError `body-invalid`, with each place that is wrong. */
export function parseBody<Schema extends z.ZodType>(schema: Schema, body: unknown): z.output<Schema> {
  const parsed = schema.safeParse(body);
  if (parsed.success) return parsed.data;
  throw new ProblemError(
    'body-invalid',
    {},
    parsed.error.issues.slice(0, 50).map((issue) => ({
      pointer: issue.path.map((step) => `/${String(step).replaceAll('~', '~0').replaceAll('/', '~1')}`).join(''),
      detail: issue.message,
    })),
  );
}
