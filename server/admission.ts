import type { IncomingHttpHeaders } from 'node:http';
import type { z } from 'zod';
import { upTo } from '#core/model/cut-text.ts';
import { faultInJson, isSoundText } from '#core/model/outside-json.ts';
import type { Account } from '#contract/api.ts';
import type { Route } from '#contract/route.ts';
import { siteKeySchema } from '#core/model/ids.ts';
import type { People } from './people/people.ts';
import { ProblemError } from './problem.ts';
import { pageOf } from './route-parameters.ts';
import { isOwnOrigin } from './security/own-origin.ts';

/** Who asks, and with which headers. */
export interface Asker {
  /** Whose session the request belongs to; undefined for nobody's. */
  readonly account: Account | undefined;
  readonly headers: IncomingHttpHeaders;
  /** The workbench's outside address, or null where none was named. */
  readonly ownOrigin: string | null;
}

/**
 * Lets a request through to a route, whichever way it came: by whether its sender is known, by where it was sent from, and by
 * the type of its body. What the sender's role allows is for `permit`. @throws ProblemError
 */
export function admit(route: Route, { account, headers, ownOrigin }: Asker): void {
  // What a link's secret opens the handler itself asks for.
  if (route.permission !== 'open' && route.permission !== 'link') caller(account);
  // Changes are taken only from the workbench's own pages: browsers say in Origin where a request comes from.
  if (route.method !== 'get' && !isOwnOrigin(headers, ownOrigin))
    throw new ProblemError('wrong-origin', { origin: headers.origin ?? 'nothing' });
  if (route.body && !isJson(headers['content-type'])) throw new ProblemError('body-type');
}

/** Decides whether an account may use a route, with what its path names. The one place where that is decided. @throws ProblemError */
export async function permit(
  route: Pick<Route, 'permission' | 'where'>,
  people: People,
  account: Account | undefined,
  { site, page }: Readonly<Record<string, unknown>>,
): Promise<void> {
  const { permission, where = 'site' } = route;
  if (permission === 'open' || permission === 'link') return;
  const who = caller(account);
  if (permission === 'account') return;
  if (permission === 'installation') {
    if (who.looksAfterAll) return;
    throw new ProblemError('installation-only');
  }
  const key = siteKeySchema.safeParse(site);
  if (!key.success) throw new ProblemError('site-unknown', { site: String(site) });
  const at = where === 'page' ? pageOf(page) : where === 'site' ? null : where;
  await people.require(key.data, who, permission, at);
}

/** @throws ProblemError `not-signed-in` where there is none */
export function caller(account: Account | undefined): Account {
  if (!account) throw new ProblemError('not-signed-in');
  return account;
}

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
