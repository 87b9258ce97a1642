import { type IncomingMessage, type ServerResponse } from 'node:http';
import { brotliDecompressSync, gunzipSync } from 'node:zlib';
import { describe, expect, it } from 'vitest';
import { ReadyAnswer } from './ready-answer.ts';

const LONG = 'A long enough text to be worth compressing. '.repeat(60);

interface Sent {
  status: number;
  headers: Record<string, string>;
  body: Buffer;
}

/** What an answer sends to a request with these headers. */
function send(answer: ReadyAnswer, headers: Record<string, string> = {}, method = 'GET'): Sent {
  const sent: Sent = { status: 0, headers: {}, body: Buffer.alloc(0) };
  const response = {
    writeHead(status: number, list: string[]) {
      sent.status = status;
      for (let at = 0; at < list.length; at += 2) sent.headers[list[at]!.toLowerCase()] = list[at + 1]!;
      return response;
    },
    end(body?: Buffer) {
      if (body) sent.body = body;
    },
  };
  const request = { method, rawHeaders: Object.entries(headers).flat() };
  answer.send(request as unknown as IncomingMessage, response as unknown as ServerResponse);
  return sent;
}

const page = new ReadyAnswer(200, 'text/html; charset=utf-8', LONG);

describe('a ready answer', () => {
  it.each<[string | undefined, string | undefined]>([
    [undefined, undefined],
    ['gzip, deflate, br', 'br'],
    ['gzip', 'gzip'],
    ['GZIP;q=1.0', 'gzip'],
    ['br;q=0, gzip', 'gzip'],
    ['br;q=0.0, gzip;q=0', undefined],
    ['identity', undefined],
    ['zstd', undefined],
    ['', undefined],
  ])('asked for %s comes as %s', (asked, coding) => {
    const sent = send(page, asked === undefined ? {} : { 'Accept-Encoding': asked });
    expect(sent.headers['content-encoding']).toBe(coding);
    const body =
      coding === 'br' ? brotliDecompressSync(sent.body) : coding === 'gzip' ? gunzipSync(sent.body) : sent.body;
    expect(body.toString()).toBe(LONG);
    expect(Number(sent.headers['content-length'])).toBe(sent.body.length);
    expect(sent.headers.vary).toBe('Accept-Encoding, Cookie');
  });

  it('reads header names in any case', () =>
    expect(send(page, { 'ACCEPT-encoding': 'gzip' }).headers['content-encoding']).toBe('gzip'));

  it('has a tag for each form of it, and answers 304 to that of the form that it would send', () => {
    const tags = ['br', 'gzip', 'identity'].map((coding) => send(page, { 'Accept-Encoding': coding }).headers.etag!);
    expect(new Set(tags).size).toBe(3);
    const [br, gzip] = tags as [string, string, string];
    expect(send(page, { 'If-None-Match': gzip, 'Accept-Encoding': 'br' }).status).toBe(200);
    for (const tag of [br, `W/${br}`, `"other", ${br}`, '*']) {
      const sent = send(page, { 'If-None-Match': tag, 'Accept-Encoding': 'br' });
      expect([tag, sent.status, sent.body.length]).toEqual([tag, 304, 0]);
      expect(sent.headers['content-length']).toBeUndefined();
      expect(sent.headers.vary).toBe('Accept-Encoding, Cookie');
    }
    expect(send(page, { 'If-None-Match': '"another"' }).status).toBe(200);
  });

  it('gives another tag for another text, and the same for the same', () => {
    const tagOf = (text: string) => send(new ReadyAnswer(200, 'text/plain', text)).headers.etag;
    expect(tagOf('one')).toBe(tagOf('one'));
    expect(tagOf('one')).not.toBe(tagOf('two'));
  });

  it('tags its forms as nginx tags a file of the same length that was changed at the second that it names', () => {
    for (const { encoding, body, stamp } of page.forms()) {
      const { etag } = send(page, { 'Accept-Encoding': encoding }).headers;
      expect(etag).toBe(`"${stamp.toString(16)}-${body.length.toString(16)}"`);
      expect(stamp).toBeLessThan(2 ** 31);
    }
  });

  it('sends no body to HEAD, but its length', () => {
    const sent = send(page, {}, 'HEAD');
    expect([sent.status, sent.body.length]).toEqual([200, 0]);
    expect(sent.headers['content-length']).toBe(String(Buffer.byteLength(LONG)));
  });

  it('compresses neither what is short nor fonts', () => {
    expect(
      send(new ReadyAnswer(200, 'text/plain', 'short'), { 'Accept-Encoding': 'br' }).headers['content-encoding'],
    ).toBeUndefined();
    const font = new ReadyAnswer(200, 'font/woff2', Buffer.alloc(5000));
    expect(send(font, { 'Accept-Encoding': 'br' }).headers['content-encoding']).toBeUndefined();
  });

  it('keeps a not-found page from being remembered as found', () => {
    const missing = new ReadyAnswer(404, 'text/html', LONG, ['Cache-Control', 'no-cache', 'X-Robots-Tag', 'noindex']);
    const { etag } = send(missing).headers;
    const sent = send(missing, { 'If-None-Match': etag! });
    expect([sent.status, sent.headers['x-robots-tag']]).toEqual([404, 'noindex']);
  });
});
