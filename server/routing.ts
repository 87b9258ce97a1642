import express, { type Express, type Request, type RequestHandler, type Response } from 'express';
import type { Account } from '#contract/api.ts';
import type { Route } from '#contract/route.ts';
import { type BodyOf, ROUTES, type RouteName } from '#contract/routes.ts';
import { admit, caller, checkAddress, parseBody } from './admission.ts';

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

/** Mounts every route of the contract: who is let in, its body's shape, its work, in this order. */
export function mountRoutes(app: Express, handlers: Handlers, ownOrigin: string | null): void {
  for (const name of Object.keys(ROUTES) as RouteName[]) {
    const route: Route = ROUTES[name];
    const handle = handlers[name] as (call: Call<never>) => unknown;
    const body = route.body ? [express.json({ limit: route.largest ?? USUAL_LARGEST, strict: false })] : [];
    const enter: RequestHandler = ({ session, headers, params, query, originalUrl }, _response, next) => {
      checkAddress(route.method, originalUrl, [...Object.values(params), ...Object.entries(query).flat()]);
      admit(route, { account: session.account, headers, ownOrigin });
      next();
    };
    app[route.method](route.path, enter, ...body, async (request, response) => {
      const said = route.body ? parseBody(route.body, request.body) : undefined;
      const answer = await handle({
        request,
        response,
        body: said as never,
        get account() {
          return caller(request.session.account);
        },
      });
      if (answer !== undefined) response.json(answer);
    });
  }
}
