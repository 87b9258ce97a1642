import type { IncomingMessage } from 'node:http';
import type { PassphraseId } from '#core/model/access.ts';
import type { AudienceId } from '#core/model/audience.ts';
import { readPassphrases } from '../security/passphrase-token.ts';
import type { SignedIn, VisitorSessions } from '../visitors/visitor-sessions.ts';
import { headerOf } from './ready-answer.ts';

/** The cookie of the passphrases that a visitor has given on a site. */
export const PASSPHRASE_COOKIE = 'spur.passphrases';

/** Who asks: somebody who is signed in or not, and what lets them in besides. */
export interface Asking {
  readonly isSignedIn: boolean;
  readonly audiences: readonly AudienceId[];
  readonly passphrases: readonly PassphraseId[];
}

/** A visitor of whom nothing is known. */
export const ANYBODY: Asking = Object.freeze({ isSignedIn: false, audiences: [], passphrases: [] });

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
    const token = visitorToken(cookies);
    const signedIn = token === null ? null : this.#sessions.remembered(token);
    return signedIn === undefined ? undefined : this.#asking(signedIn, cookies, request.url!);
  }

  async find(request: IncomingMessage): Promise<Asking> {
    const { cookie } = request.headers;
    if (cookie === undefined) return ANYBODY;
    const token = visitorToken(cookie);
    return this.#asking(token === null ? null : await this.#sessions.find(token), cookie, request.url!);
  }

  /** A session or passphrases of another site count for nothing. */
  #asking(signedIn: SignedIn | null, cookies: string, url: string): Asking {
    const site = /^\/([^/?]*)/.exec(url)?.[1] ?? '';
    const isHere = signedIn?.site === site;
    const token = cookieIn(cookies, PASSPHRASE_COOKIE);
    const passphrases = token === null ? [] : readPassphrases(this.#secret, site, token);
    if (!isHere && passphrases.length === 0) return ANYBODY;
    return { isSignedIn: isHere, audiences: isHere ? signedIn.audiences : [], passphrases };
  }
}

/** The token of a visitor who is signed in, in a Cookie header; null where there is none. */
export function visitorToken(header: string | undefined): string | null {
  const token = header === undefined ? null : cookieIn(header, 'spur.visitor');
  return token !== null && /^[0-9A-Za-z_-]{10,64}$/.test(token) ? token : null;
}

const cookieIn = (header: string, name: string): string | null =>
  header
    .split(';')
    .map((pair) => pair.trim())
    .find((pair) => pair.startsWith(`${name}=`))
    ?.slice(name.length + 1) ?? null;
