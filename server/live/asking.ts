import type { IncomingMessage } from 'node:http';
import type { PassphraseId } from '#core/model/access.ts';
import type { AudienceId } from '#core/model/audience.ts';
import { readPassphrases } from '../security/passphrase-token.ts';
import { type SignedIn, VISITOR_COOKIE, type VisitorSessions } from '../visitors/visitor-sessions.ts';
import { headerOf } from './ready-answer.ts';

/** The cookie of the passphrases that a visitor has given on a site. */
export const PASSPHRASE_COOKIE = 'spur.passphrases';

/** Who asks: somebody who is signed in or not, and what lets them in besides. */
export interface Asking {
  readonly isSignedIn: boolean;
  readonly audiences: readonly AudienceId[];
  readonly passphrases: readonly PassphraseId[];
  /** The account of whoever is signed in; null else, and where it does not matter whose it is. */
  readonly visitor: string | null;
}

/** A visitor of whom nothing is known. */
export const ANYBODY: Asking = Object.freeze({ isSignedIn: false, audiences: [], passphrases: [], visitor: null });

/** Finds out who asks, from the cookies of a request. */
export class Askers {
  readonly #sessions: VisitorSessions;
  readonly #secret: string;

  constructor(sessions: VisitorSessions, secret: string) {
    this.#sessions = sessions;
    this.#secret = secret;
  }

  /** Who asks, as far as it is in memory; undefined where somebody's session has to be looked up. */
  remembered(request: IncomingMessage): Asking | undefined {
    const cookies = headerOf(request, 'cookie');
    if (cookies === undefined) return ANYBODY;
    const { token, given } = tokensIn(cookies);
    const signedIn = token === null ? null : this.#sessions.remembered(token);
    return signedIn === undefined ? undefined : this.#asking(signedIn, given, request.url!);
  }

  async find(request: IncomingMessage): Promise<Asking> {
    const { cookie } = request.headers;
    if (cookie === undefined) return ANYBODY;
    const { token, given } = tokensIn(cookie);
    return this.#asking(token === null ? null : await this.#sessions.find(token), given, request.url!);
  }

  /** A session or passphrases of another site count for nothing. */
  #asking(signedIn: SignedIn | null, given: string | null, url: string): Asking {
    const site = /^\/([^/?]*)/.exec(url)?.[1] ?? '';
    const isHere = signedIn?.site === site;
    const passphrases = given === null ? [] : readPassphrases(this.#secret, site, given);
    if (!isHere && passphrases.length === 0) return ANYBODY;
    return {
      isSignedIn: isHere,
      audiences: isHere ? signedIn.audiences : [],
      passphrases,
      visitor: isHere ? signedIn.visitor : null,
    };
  }
}

/** The token of a visitor who is signed in, in a Cookie header; null where there is none. */
export const visitorToken = (header: string | undefined): string | null =>
  header === undefined ? null : tokensIn(header).token;

interface Tokens {
  /** Of a visitor who is signed in, or null. */
  readonly token: string | null;
  /** Of the passphrases that were given, or null. */
  readonly given: string | null;
}

const MAX_HEADERS = 2000;
const MAX_KEPT_LENGTH = 2000;
const known = new Map<string, Tokens>();

/** What a Cookie header holds for us. A browser sends the same one with each request, so it is taken apart once. */
function tokensIn(header: string): Tokens {
  let tokens = known.get(header);
  if (tokens === undefined) {
    const token = cookieIn(header, VISITOR_COOKIE);
    tokens = {
      token: token !== null && /^[0-9A-Za-z_-]{10,64}$/.test(token) ? token : null,
      given: cookieIn(header, PASSPHRASE_COOKIE),
    };
    if (known.size >= MAX_HEADERS) known.clear();
    if (header.length <= MAX_KEPT_LENGTH) known.set(header, tokens);
  }
  return tokens;
}

const cookieIn = (header: string, name: string): string | null =>
  header
    .split(';')
    .map((pair) => pair.trim())
    .find((pair) => pair.startsWith(`${name}=`))
    ?.slice(name.length + 1) ?? null;
