import { randomUUID } from 'node:crypto';
import { type Server, createServer } from 'node:http';
import express, { type Express, type Request } from 'express';
import type { Database } from '../database/connect.ts';
import { isOwnOrigin } from '../security/own-origin.ts';
import { mountProvider } from './provider.ts';
import { directoryPage } from './directory-page.ts';
import { putStandInPerson, removeStandInPerson, standInGroups, standInPeople } from './directory-repository.ts';

const USER = 'urn:ietf:params:scim:schemas:core:2.0:User';
const GROUP = 'urn:ietf:params:scim:schemas:core:2.0:Group';
const LIST = 'urn:ietf:params:scim:api:messages:2.0:ListResponse';
const MAX_AT_ONCE = 100;

/**
 * A stand-in for an organisation's directory: it answers in SCIM 2.0 (RFC 7643, RFC 7644) to whoever has the token, for
 * reading, and has a page on which its people are changed by hand, so that there is something to synchronise. Beside it stands a provider of
 * identities, by which these people sign in.
 */
export function makeDirectory(database: Database, token: string): Express {
  const app = express();
  app.disable('x-powered-by');
  const scim = express.Router();
  scim.use((request, response, next) => {
    if (request.headers.authorization === `Bearer ${token}`) return next();
    response.status(401).json({ schemas: ['urn:ietf:params:scim:api:messages:2.0:Error'], status: '401' });
  });
  scim.get('/Users', async (request, response) => {
    const [people, groups] = [await standInPeople(database), await standInGroups(database)];
    const names = new Map(groups.map(({ id, name }) => [id, name]));
    const resources = people.map((person) => ({
      schemas: [USER],
      id: person.id,
      userName: person.email,
      displayName: person.name,
      active: person.is_active,
      emails: [{ value: person.email, primary: true }],
      groups: person.groups.map((id) => ({ value: id, display: names.get(id) })),
    }));
    response.type('application/scim+json').send(JSON.stringify(partOf(request, resources)));
  });
  scim.get('/Groups', async (request, response) => {
    const groups = (await standInGroups(database)).map(({ id, name }) => ({ schemas: [GROUP], id, displayName: name }));
    response.type('application/scim+json').send(JSON.stringify(partOf(request, groups)));
  });
  app.use('/scim/v2', scim);
  mountProvider(app, database);

  app.get('/', async (_, response) => {
    response
      .set({ 'Content-Security-Policy': "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'" })
      .type('html')
      .send(directoryPage(await standInPeople(database), await standInGroups(database)));
  });
  app.post('/', express.urlencoded({ extended: false, limit: '20kb' }), async (request, response) => {
    if (!isOwnOrigin(request.headers, null))
      return void response.status(403).type('text').end('Use the form on this page.\n');
    const given = (request.body ?? {}) as Record<string, string | string[] | undefined>;
    const text = (name: string) => String(given[name] ?? '').trim();
    if (text('what') === 'remove') await removeStandInPerson(database, text('id'));
    else if (text('name') !== '' && text('email') !== '')
      await putStandInPerson(database, {
        id: text('id') || randomUUID(),
        name: text('name'),
        email: text('email'),
        is_active: given.active !== undefined,
        groups: [given.group ?? []].flat(),
      });
    response.redirect(303, '/');
  });
  return app;
}

/** The part of a list that is asked for by `startIndex` and `count`, from 1 on (RFC 7644, 3.4.2.4). */
function partOf(request: Request, all: readonly object[]): object {
  const start = Math.max(1, Number(request.query.startIndex) || 1);
  const count = Math.min(MAX_AT_ONCE, Math.max(0, Number(request.query.count ?? MAX_AT_ONCE) || 0));
  const part = all.slice(start - 1, start - 1 + count);
  return { schemas: [LIST], totalResults: all.length, startIndex: start, itemsPerPage: part.length, Resources: part };
}

/** Serves the stand-in on loopback. */
export async function serveDirectory(database: Database, token: string, port: number): Promise<Server> {
  const server = createServer(makeDirectory(database, token));
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', resolve);
  });
  return server;
}
