import type { IncomingHttpHeaders } from 'node:http';
import type { z } from 'zod';
import { upTo } from '#core/model/cut-text.ts';
import { faultInJson, isSoundText } from '#core/model/outside-json.ts';
import { ROLES, type Account, type Permission } from '#contract/api.ts';
import type { Route } from '#contract/route.ts';
import { ProblemError } from './problem.ts';
import { isOwnOrigin } from './security/own-origin.ts';

/** Who asks, and with which headers. */
export interface Asker {
  /** Whose session the request belongs to; undefined for nobody's. */
  readonly account: Account | undefined;
  readonly headers: IncomingHttpHeaders;
  /** The workbench's outside address, or null where none was named. */
  readonly ownOrigin: string | null;
}

/** @throws ProblemError where the account's role does not have the permission */
export function requirePermission(account: Account, permission: Permission): void {
  if (!mayDo(account, permission)) throw new ProblemError('not-allowed', { permission });
}

/**
 * Lets a request through to a route, whichever way it came: by its sender's permission, by where it was sent from, and by
 * the type of its body. @throws ProblemError
 */
export function admit(route: Route, { account, headers, ownOrigin }: Asker): void {
  // What a link's secret opens the handler itself asks for.
  if (route.permission !== 'open' && route.permission !== 'link') requirePermission(caller(account), route.permission);
  // Changes are taken only from the workbench's own pages: browsers say in Origin where a request comes from.
  if (route.method !== 'get' && !isOwnOrigin(headers, ownOrigin))
    throw new ProblemError('wrong-origin', { origin: headers.origin ?? 'nothing' });
  if (route.body && !isJson(headers['content-type'])) throw new ProblemError('body-type');
}

/** @throws ProblemError `not-signed-in` where there is none */
export function caller(account: Account | undefined): Account {
  if (!account) throw new ProblemError('not-signed-in');
  return account;
}

const mayDo = (account: Account, permission: Permission): boolean =>
  (ROLES[account.role] as readonly Permission[]).includes(permission);

const isJson = (type = ''): boolean => type.split(';', 1)[0]!.trim().toLowerCase() === 'application/json';

/** Path and query hold nothing that no text can have. @throws ProblemError `route-unknown` */
export function checkAddress(method: string, path: string, values: Iterable<unknown>): void {
  for (const value of values)
    for (const text of [value].flat())
      if (typeof text === 'string' && !isSoundText(text))
        throw new ProblemError('route-unknown', { method: method.toUpperCase(), path: upTo(path, '?').slice(0, 200) });
}

/** The body in the shape that the contract gives it. @throws ProblemError `body-invalid`, with each place that is wrong. */
export function parseBody<Schema extends z.ZodType>(schema: Schema, body: unknown): z.output<Schema> {
  const unsound = faultInJson(body);
  if (unsound) throw new ProblemError('body-invalid', {}, [unsound]);
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
