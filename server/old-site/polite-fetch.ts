import { upTo } from '#core/model/cut-text.ts';
import { lookup as dnsLookup } from 'node:dns/promises';
import http from 'node:http';
import https from 'node:https';
import type { LookupFunction } from 'node:net';
import ipaddr from 'ipaddr.js';

/** What came of asking for an address. */
export type Fetched =
  | {
      readonly ok: true;
      readonly status: number;
      readonly type: string;
      readonly body: Buffer;
      /** Where a redirect leads, as an absolute address; null for anything else. */
      readonly movedTo: string | null;
    }
  | { readonly ok: false; readonly why: FetchFault; readonly detail: string };
export type FetchFault = 'not-web' | 'forbidden-host' | 'too-large' | 'too-slow' | 'no-answer';

export interface FetchLimits {
  readonly largest: number;
  readonly longestMs: number;
  /** Hosts, as `host` or `host:port`, that may be loopback, private or link-local. */
  readonly allowedHosts: ReadonlySet<string>;
}

export const AGENT = 'SpurCrawler/1.0';

/**
 * Asks for an address once; redirects are told, not followed, so that each hop is checked like the first. The host's
 * addresses are looked up here and the connection is made to those very addresses: a name that answers otherwise a
 * second time gains nothing. Loopback, private, link-local and other addresses that are not public are refused, unless
 * the host is allowed by name.
 */
export async function politeFetch(address: string, limits: FetchLimits, signal?: AbortSignal): Promise<Fetched> {
  const url = URL.canParse(address) ? new URL(address) : null;
  if (!url || !/^https?:$/.test(url.protocol) || url.username !== '' || url.password !== '')
    return { ok: false, why: 'not-web', detail: `${address} is not a web address.` };
  const isAllowed = limits.allowedHosts.has(url.host) || limits.allowedHosts.has(url.hostname);
  let forbidden: string | null = null;
  const checkedLookup: LookupFunction = (host, options, done) => {
    dnsLookup(host, { all: true, family: options.family === 4 || options.family === 6 ? options.family : 0 }).then(
      (found) => {
        const wrong = isAllowed ? undefined : found.find((one) => !isPublic(one.address));
        if (wrong) {
          forbidden = wrong.address;
          done(new Error('forbidden'), '', 0);
        } else if (options.all) done(null, found);
        else done(null, found[0]!.address, found[0]!.family);
      },
      (fault: NodeJS.ErrnoException) => done(fault, '', 0),
    );
  };
  const literal = url.hostname.replace(/^\[|\]$/g, '');
  if (ipaddr.isValid(literal) && !isAllowed && !isPublic(literal)) return forbiddenHost(url.hostname, literal);
  return new Promise((resolve) => {
    const client = url.protocol === 'https:' ? https : http;
    const timer = setTimeout(() => request.destroy(new Error('too-slow')), limits.longestMs);
    const stop = () => request.destroy(new Error('stopped'));
    signal?.addEventListener('abort', stop, { once: true });
    const end = (fetched: Fetched) => {
      clearTimeout(timer);
      signal?.removeEventListener('abort', stop);
      resolve(fetched);
    };
    const fail = (fault: Error) => {
      if (forbidden !== null) end(forbiddenHost(url.hostname, forbidden));
      else if (fault.message === 'too-slow')
        end({
          ok: false,
          why: 'too-slow',
          detail: `${url.host} did not answer within ${limits.longestMs / 1000} seconds.`,
        });
      else end({ ok: false, why: 'no-answer', detail: noAnswerWords(url.host, fault) });
    };
    const request = client.get(
      url,
      {
        lookup: checkedLookup,
        agent: false,
        headers: { 'User-Agent': AGENT, Accept: 'text/html,application/xhtml+xml,application/xml;q=0.9,*/*;q=0.5' },
      },
      (response) => {
        const parts: Buffer[] = [];
        let size = 0;
        response.on('data', (part: Buffer) => {
          size += part.length;
          if (size > limits.largest) {
            end({ ok: false, why: 'too-large', detail: `${address} is larger than ${limits.largest / 1_000_000} MB.` });
            request.destroy();
          } else parts.push(part);
        });
        response.on('error', fail);
        response.on('end', () => {
          const status = response.statusCode ?? 0;
          const location = status >= 300 && status < 400 ? response.headers.location : undefined;
          end({
            ok: true,
            status,
            type: response.headers['content-type'] ?? '',
            body: Buffer.concat(parts),
            movedTo: location !== undefined && URL.canParse(location, url) ? new URL(location, url).href : null,
          });
        });
      },
    );
    request.on('error', fail);
  });
}

/** Whether an IP address is one of the public net. */
export function isPublic(address: string): boolean {
  const parsed = ipaddr.parse(upTo(address, '%'));
  if (parsed instanceof ipaddr.IPv6) {
    if (parsed.isIPv4MappedAddress()) return parsed.toIPv4Address().range() === 'unicast';
    // IPv4 addresses in IPv6 of old (RFC 4291, 2.5.5.1) belong to nobody's net, and some systems take them for IPv4.
    if (parsed.parts.slice(0, 6).every((part) => part === 0)) return false;
  }
  return parsed.range() === 'unicast';
}

/** Why a host does not answer, in words for people as far as there are any. */
function noAnswerWords(host: string, fault: NodeJS.ErrnoException): string {
  switch (fault.code) {
    case 'ENOTFOUND':
    case 'EAI_AGAIN':
      return `No host named ${host} was found.`;
    case 'ECONNREFUSED':
      return `${host} takes no requests.`;
    case 'ECONNRESET':
      return `${host} broke off.`;
    default:
      return `${host} does not answer (${fault.message}).`;
  }
}

const forbiddenHost = (host: string, address: string): Fetched => ({
  ok: false,
  why: 'forbidden-host',
  detail: `${host} is at ${address}, which is not in the public net. Whoever runs Spur can allow it by SPUR_CRAWL_ALLOW=${host}.`,
});
