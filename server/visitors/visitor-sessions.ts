import { createHash, randomBytes } from 'node:crypto';
import type { AudienceId } from '#core/model/audience.ts';
import type { SiteKey } from '#core/model/ids.ts';
import type { Database } from '../database/connect.ts';
import { isPassword } from '../security/passwords.ts';
import { deleteVisitorSession, insertVisitorSession, signedInVisitor, visitorByEmail } from './visitor-repository.ts';

export const VISITOR_COOKIE = 'spur.visitor';
const LIVES_MS = 14 * 24 * 3600 * 1000;
/** So long a session is answered from memory, should the word that it changed not have come through. */
const REMEMBERED_MS = 10_000;
const MAX_REMEMBERED = 10_000;

export interface SignedIn {
  readonly visitor: string;
  readonly site: SiteKey;
  readonly audiences: readonly AudienceId[];
}

/** Where visitors are signed in: in PostgreSQL, remembered here for a moment. The cookie holds a token, the database its hash. */
export class VisitorSessions {
  readonly #database: Database;
  readonly #now: () => Date;
  /** How often something was forgotten: what was looked up before may be out of date. */
  #forgettings = 0;
  readonly #remembered = new Map<string, { readonly signedIn: SignedIn | null; readonly until: number }>();

  constructor(database: Database, now: () => Date) {
    this.#database = database;
    this.#now = now;
  }

  /** Who is signed in by a token, as far as it is remembered; undefined where it has to be looked up. */
  remembered(token: string): SignedIn | null | undefined {
    const known = this.#remembered.get(token);
    return known && known.until > this.#now().getTime() ? known.signedIn : undefined;
  }

  async find(token: string): Promise<SignedIn | null> {
    const known = this.remembered(token);
    if (known !== undefined) return known;
    const at = this.#now();
    const before = this.#forgettings;
    const found = await signedInVisitor(this.#database, hashOf(token), at);
    if (this.#forgettings !== before) return this.find(token);
    if (this.#remembered.size >= MAX_REMEMBERED) this.#remembered.clear();
    const until = Math.min(at.getTime() + REMEMBERED_MS, found?.expires_at.getTime() ?? Infinity);
    this.#remembered.set(token, { signedIn: found ?? null, until });
    return found ?? null;
  }

  /** Forgets the sessions of a visitor whose account has changed. */
  forget(visitor: string): void {
    this.#forgettings += 1;
    for (const [token, { signedIn }] of this.#remembered)
      if (signedIn === null || signedIn.visitor === visitor) this.#remembered.delete(token);
  }

  forgetAll(): void {
    this.#forgettings += 1;
    this.#remembered.clear();
  }

  /** A new session's token and when it runs out, or null where address and password do not belong together. */
  async signIn(
    site: SiteKey,
    email: string,
    password: string,
  ): Promise<{ token: string; expires: Date; audiences: readonly AudienceId[] } | null> {
    const visitor = await visitorByEmail(this.#database, site, email);
    const isRight = await isPassword(visitor?.password_hash, password);
    if (!visitor || !isRight || visitor.is_suspended) return null;
    const at = this.#now();
    const token = randomBytes(24).toString('base64url');
    const expires = new Date(at.getTime() + LIVES_MS);
    const session = { token_hash: hashOf(token), visitor: visitor.id, expires_at: expires };
    await insertVisitorSession(this.#database, session, at);
    return { token, expires, audiences: visitor.audiences };
  }

  async signOut(token: string): Promise<void> {
    await deleteVisitorSession(this.#database, hashOf(token));
    this.#remembered.delete(token);
  }
}

const hashOf = (token: string): string => createHash('sha256').update(token).digest('hex');
