import express, { type Express, type Request, type RequestHandler, type Response } from 'express';
import type { Account } from '#contract/api.ts';
import type { Route } from '#contract/route.ts';
import { type BodyOf, ROUTES, type RouteName } from '#contract/routes.ts';
import { admit, caller, checkAddress, parseBody, permit } from './admission.ts';
import type { People } from './people/people.ts';

export interface Call<Name extends RouteName> {
  readonly request: Request;
  readonly response: Response;
  readonly body: BodyOf<Name>;
  /** The caller. Asking for it on a route that needs no account is a fault of the program. */
  readonly account: Account;
}
/** What a route does: it gives the answer, or has sent it itself and gives undefined. */
export type Handlers = { readonly [Name in RouteName]: (call: Call<Name>) => unknown };

/** What lets requests in, and what is written down of them. */
interface Door {
  readonly people: People;
  /** The workbench's outside address, or null where none was named. */
  readonly ownOrigin: string | null;
  /** Writes down that something was exported. */
  readonly noteExport: (request: Request, what: string) => Promise<unknown>;
}

const USUAL_LARGEST = 100_000;

/** Mounts every route of the contract: who is let in, its body's shape, its work, in this order. */
export function mountRoutes(app: Express, handlers: Handlers, { people, ownOrigin, noteExport }: Door): void {
  for (const name of Object.keys(ROUTES) as RouteName[]) {
    const route: Route = ROUTES[name];
    const handle = handlers[name] as (call: Call<never>) => unknown;
    const body = route.body ? [express.json({ limit: route.largest ?? USUAL_LARGEST, strict: false })] : [];
    const enter: RequestHandler = async ({ session, headers, params, query, originalUrl }, _response, next) => {
      checkAddress(route.method, originalUrl, [...Object.values(params), ...Object.entries(query).flat()]);
      admit(route, { account: session.account, headers, ownOrigin });
      await permit(route, people, session.account, params);
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
      if (route.exports !== undefined) await noteExport(request, route.exports);
    });
  }
}
