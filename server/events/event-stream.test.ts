import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { CommittedEdit } from '#contract/api.ts';
import { type Person, type TestServer, startTestServer, until } from '../testing/test-server.ts';

let server: TestServer;
let ines: Person;
let marek: Person;
beforeAll(async () => {
  server = await startTestServer();
  ines = await server.person('Ines');
  marek = await server.person('Marek', 'manager', server.otherOrigin);
});
afterAll(() => server.close());

/** Follows a site's stream of edits. */
async function follow(person: Person, origin: string, path: string, headers: Record<string, string> = {}) {
  const stop = new AbortController();
  const response = await fetch(origin + path, { headers: { Cookie: person.cookie, ...headers }, signal: stop.signal });
  const edits: CommittedEdit[] = [];
  const reading = (async () => {
    let text = '';
    for await (const part of response.body!.pipeThrough(new TextDecoderStream())) {
      text += part;
      for (let end = text.indexOf('\n\n'); end !== -1; end = text.indexOf('\n\n')) {
        const data = /^data: (.*)$/m.exec(text.slice(0, end))?.[1];
        if (data) edits.push(JSON.parse(data));
        text = text.slice(end + 2);
      }
    }
  })().catch(() => undefined);
  return { edits, ended: reading, stop: () => stop.abort(), type: response.headers.get('content-type') };
}

const add = (page: string) => ({ name: 'page.add', page, place: { parent: null }, title: { en: page } });

describe('the stream of edits', () => {
  it('brings each edit once and in order, from this process and another', async () => {
    await server.site('stream-a');
    const stream = await follow(ines, server.origin, '/api/sites/stream-a/events');
    expect(stream.type).toMatch('text/event-stream');
    await Promise.all(
      Array.from({ length: 20 }, (_, n) => (n % 2 ? ines : marek).operations('stream-a', add(`p${n}`))),
    );
    await until('all 20 edits have come', () => stream.edits.length >= 20);
    expect(stream.edits.map((edit) => edit.revision)).toEqual(Array.from({ length: 20 }, (_, n) => n + 1));
    expect(new Set(stream.edits.map((edit) => edit.by))).toEqual(new Set(['Ines', 'Marek']));
    stream.stop();
  });

  it('goes on where it broke off', async () => {
    await server.site('stream-b');
    for (let n = 1; n <= 4; n++) await ines.operations('stream-b', add(`p${n}`));
    const stream = await follow(marek, server.otherOrigin, '/api/sites/stream-b/events', { 'Last-Event-ID': '2' });
    await until('the two that were missed have come', () => stream.edits.length >= 2);
    await ines.operations('stream-b', add('p5'));
    await until('the new one has come', () => stream.edits.length >= 3);
    expect(stream.edits.map((edit) => edit.revision)).toEqual([3, 4, 5]);
    stream.stop();
  });

  it('tells who writes in which text, by whichever process, and keeps nothing of it', async () => {
    await server.site('stream-w');
    await ines.operations('stream-w', add('p1'));
    const stream = await follow(marek, server.otherOrigin, '/api/sites/stream-w/events');
    const told = { page: 'p1', tab: 'one', isWriting: true };
    expect((await ines.post('/api/sites/stream-w/writing', told)).status).toBe(200);
    await until('it has come', () => stream.edits.length > 0);
    expect(stream.edits).toEqual([{ ...told, by: 'Ines' }]);
    expect((await ines.get('/api/sites/stream-w/tree')).json.revision).toBe(1);
    stream.stop();
  });

  it('says in every process who is on which page, also to who comes later, until they go', async () => {
    await server.site('stream-h');
    await ines.operations('stream-h', add('p1'));
    const early = await follow(marek, server.otherOrigin, '/api/sites/stream-h/events');
    const own = await follow(ines, server.origin, '/api/sites/stream-h/events?tab=one');
    expect(
      (await ines.post('/api/sites/stream-h/here', { page: 'p1', setting: 'layouts/wide', field: 'Name', tab: 'one' }))
        .status,
    ).toBe(200);
    const here = { tab: 'one', by: 'Ines', page: 'p1', setting: 'layouts/wide', field: 'Name', isHere: true };
    await until('it has come', () => early.edits.length > 0);
    expect(early.edits).toEqual([here]);
    const late = await follow(marek, server.otherOrigin, '/api/sites/stream-h/events');
    await until('who comes is told', () => late.edits.length > 0);
    expect(late.edits).toEqual([here]);
    own.stop();
    await until('they have gone', () => late.edits.length > 1);
    expect(late.edits[1]).toMatchObject({ tab: 'one', isHere: false });
    const nobody = await follow(marek, server.otherOrigin, '/api/sites/stream-h/events');
    await ines.operations('stream-h', add('p2'));
    await until('the edit has come', () => nobody.edits.length > 0);
    expect(nobody.edits[0]).toMatchObject({ revision: 2 });
    for (const stream of [early, late, nobody]) stream.stop();
  });

  it.each(['this process', 'another process'])('18: ends when its reader signs out, by %s', async (by) => {
    await server.site(`stream-${by.length}`);
    const nora = await server.person('Nora');
    const stream = await follow(nora, server.origin, `/api/sites/stream-${by.length}/events`);
    const at = by === 'this process' ? server.origin : server.otherOrigin;
    await fetch(`${at}/api/session`, { method: 'DELETE', headers: { Cookie: nora.cookie, Origin: at } });
    await stream.ended;
    expect((await nora.get(`/api/sites/stream-${by.length}/events`)).json.code).toBe('not-signed-in');
  });
});
