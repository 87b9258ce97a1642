import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { PERMISSIONS } from '#core/model/permission.ts';
import type { Route } from '#contract/route.ts';
import { ROUTES } from '#contract/routes.ts';
import { makeOpenApi } from './open-api.ts';
import { type Person, type TestServer, startTestServer } from './testing/test-server.ts';

let server: TestServer;
let manager: Person;
let reader: Person;
let stranger: Person;
beforeAll(async () => {
  server = await startTestServer();
  manager = await server.person('Ines');
  await server.site('a-site');
  reader = await server.colleague('Oona', 'a-site', 'reader');
  stranger = await server.person('Sibyl', 'colleague');
});
afterAll(() => server.close());

const routes = Object.entries(ROUTES) as [string, Route][];
/** What a body has; of one of several kinds the first. */
function fieldsOf(body: Route['body']): readonly string[] {
  if (body instanceof z.ZodDiscriminatedUnion) return fieldsOf(body.options[0] as z.ZodObject);
  return body instanceof z.ZodObject ? Object.keys(body.shape) : [];
}
/** Whether a route is about one site, and asks for a role on it. */
const isOfSite = ({ permission }: Route) => PERMISSIONS.some((one) => one === permission);
const pathOf = (route: Route) => route.path.replace(':site', 'a-site').replace(/:\w+/g, 'p1');

describe('every route', () => {
  it.each(routes)('%s states the permission that it needs', (_, route) =>
    expect([...PERMISSIONS, 'open', 'link', 'account', 'installation']).toContain(route.permission),
  );

  it.each(routes.filter(([, route]) => route.permission === 'link'))(
    '%s is closed without a link',
    async (_, route) => {
      const body = {
        passphrase: 'x',
        name: 'x',
        verdict: 'agreed',
        page: 'p1',
        kind: 'comment',
        text: 'x',
        variant: 'v',
      };
      const wanted = Object.entries(body).filter(([name]) => fieldsOf(route.body).includes(name));
      const answer = await manager.send(
        route.method.toUpperCase(),
        pathOf(route),
        route.body ? Object.fromEntries(wanted) : undefined,
      );
      expect([answer.status, answer.json.code]).toEqual([404, 'share-unknown']);
    },
  );

  it.each(routes.filter(([, { permission }]) => permission !== 'open' && permission !== 'link'))(
    '%s asks who it is',
    async (_, route) => {
      const nobody = await server.person('Nobody');
      nobody.cookie = '';
      const answer = await nobody.send(route.method.toUpperCase(), pathOf(route), route.body ? {} : undefined);
      expect([answer.status, answer.json.code]).toEqual([401, 'not-signed-in']);
    },
  );

  it.each(routes.filter(([, route]) => isOfSite(route) && route.permission !== 'read'))(
    '%s is not for readers',
    async (_, route) => {
      const answer = await reader.send(
        route.method.toUpperCase(),
        pathOf(route),
        route.method === 'get' ? undefined : {},
      );
      expect([answer.status, answer.json.code]).toEqual([403, 'not-allowed']);
      expect(answer.json.detail).toMatch(/your role is Reader/);
    },
  );

  it.each(routes.filter(([, route]) => isOfSite(route)))('%s tells nobody else of the site', async (_, route) => {
    const answer = await stranger.send(route.method.toUpperCase(), pathOf(route), route.body ? {} : undefined);
    const nowhere = await stranger.send(
      route.method.toUpperCase(),
      pathOf(route).replace('a-site', 'no-site'),
      route.body ? {} : undefined,
    );
    expect([answer.status, answer.json.code]).toEqual([404, 'site-unknown']);
    expect(nowhere.status).toBe(404);
    expect(answer.text.replaceAll('a-site', 'no-site')).toBe(nowhere.text);
  });

  it.each(routes.filter(([, route]) => route.permission === 'installation'))(
    '%s is for those who look after the installation',
    async (_, route) => {
      const answer = await reader.send(
        route.method.toUpperCase(),
        pathOf(route),
        route.method === 'get' ? undefined : {},
      );
      expect([answer.status, answer.json.code]).toEqual([403, 'installation-only']);
    },
  );

  it.each(routes.filter(([, route]) => route.body))(
    '%s refuses a body that is not JSON, and one of 50 MB',
    async (_, route) => {
      const broken = await manager.send(route.method.toUpperCase(), pathOf(route), '{"a":');
      expect([broken.status, broken.json.code]).toEqual([400, 'body-not-json']);
      const big = await manager.send(
        route.method.toUpperCase(),
        pathOf(route),
        JSON.stringify({ a: 'x'.repeat(50_000_000) }),
      );
      expect([big.status, big.json.code]).toEqual([413, 'body-too-large']);
    },
  );

  it.each(routes.filter(([, route]) => route.body))('%s says where its body is wrong', async (_, route) => {
    const answer = await manager.send(route.method.toUpperCase(), pathOf(route), { surprise: 1 });
    expect([answer.status, answer.json.code]).toEqual([422, 'body-invalid']);
    expect(answer.headers.get('content-type')).toMatch('application/problem+json');
    expect(answer.json.errors.length).toBeGreaterThan(0);
  });
});

describe('the API as a document', () => {
  it('has every route, and nothing else', () => {
    const document = makeOpenApi() as {
      openapi: string;
      paths: Record<string, Record<string, { operationId: string }>>;
    };
    expect(document.openapi).toBe('3.1.0');
    const listed = Object.values(document.paths).flatMap((methods) =>
      Object.values(methods).map((one) => one.operationId),
    );
    expect(listed.sort()).toEqual(Object.keys(ROUTES).sort());
  });
});

describe('addresses that are no route', () => {
  it.each(['/api/nothing', '/api/sites/a-site/%E0%A4%A', '/api/sites/NOT A KEY/tree'])(
    '%s gets a problem document',
    async (path) => {
      const answer = await manager.get(path);
      expect(answer.status).toBeGreaterThanOrEqual(400);
      expect(answer.status).toBeLessThan(500);
      expect(answer.json.detail).toMatch(/\.$/);
    },
  );
});
