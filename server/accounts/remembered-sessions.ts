import { EventEmitter } from 'node:events';
import connectPgSimple from 'connect-pg-simple';
import session, { type SessionData, Store } from 'express-session';
import type { Account } from '#contract/api.ts';
import type { Pool } from '../database/connect.ts';
import { tellSessionEnded } from './session-repository.ts';

/** A session is read again after so long, should the word that it ended not have come through. */
const REMEMBERED_MS = 30_000;
export const SESSION_COOKIE = 'spur.workbench';
const MAX_REMEMBERED = 10_000;

type Callback = (fault?: unknown) => void;

/**
 * Sessions of a store, remembered for a moment, so that most requests cost no journey to the database for theirs.
 * One that ends is forgotten here at once, and in the other processes when they are told: call `forget` then.
 */
export class RememberedSessions extends Store {
  readonly #store: Pick<Store, 'get' | 'set' | 'destroy'>;
  readonly #pool: Pool;
  readonly #now: () => Date;
  readonly #endings = new EventEmitter().setMaxListeners(0);
  /** How often something was forgotten. */
  #forgettings = 0;
  /** As JSON: the session package changes what it is given. */
  readonly #remembered = new Map<string, { json: string; account: Account | null; until: number }>();

  constructor(store: Pick<Store, 'get' | 'set' | 'destroy'>, pool: Pool, now: () => Date) {
    super();
    this.#store = store;
    this.#pool = pool;
    this.#now = now;
  }

  forget(id: string): void {
    this.#forgettings += 1;
    this.#remembered.delete(id);
  }

  /** Takes over that a session has ended, in this process or in another one. */
  end(id: string): void {
    this.forget(id);
    this.#endings.emit(id);
  }

  /** Is told when a session ends. Gives the function that ends the telling. */
  onEnd(id: string, listener: () => void): () => void {
    this.#endings.once(id, listener);
    return () => void this.#endings.off(id, listener);
  }

  forgetAll(): void {
    this.#forgettings += 1;
    this.#remembered.clear();
  }

  /** The session, where it is remembered: no journey to the database is made for it. */
  remembered(id: string): SessionData | null {
    const known = this.#known(id);
    return known && (JSON.parse(known.json) as SessionData);
  }

  /** Who is signed in with the session, where it is remembered. */
  rememberedAccount(id: string): Account | null {
    return this.#known(id)?.account ?? null;
  }

  #known(id: string) {
    const known = this.#remembered.get(id);
    return known && known.until > this.#now().getTime() ? known : null;
  }

  override get(id: string, callback: (fault: unknown, session?: SessionData | null) => void): void {
    const known = this.remembered(id);
    if (known) return callback(null, known);
    const before = this.#forgettings;
    this.#store.get(id, (fault, session) => {
      // What was looked up while a session ended may be out of date: it is not kept.
      if (session && this.#forgettings === before) {
        if (this.#remembered.size >= MAX_REMEMBERED) this.#remembered.clear();
        const until = Math.min(this.#now().getTime() + REMEMBERED_MS, expiryOf(session));
        this.#remembered.set(id, { json: JSON.stringify(session), account: session.account ?? null, until });
      }
      callback(fault, session);
    });
  }

  override set(id: string, session: SessionData, callback?: Callback): void {
    this.forget(id);
    this.#store.set(id, session, callback);
  }

  override destroy(id: string, callback?: Callback): void {
    this.forget(id);
    this.#store.destroy(id, (fault) => {
      this.end(id);
      if (fault) return callback?.(fault);
      tellSessionEnded(this.#pool, id).then(
        () => callback?.(),
        (untold: unknown) => callback?.(untold),
      );
    });
  }
}

/** The sessions in PostgreSQL, remembered. */
export function openSessions(pool: Pool, now: () => Date): RememberedSessions {
  // Reading a session does not write it.
  const options = { pool, tableName: 'session', disableTouch: true, pruneSessionInterval: 3600 };
  return new RememberedSessions(new (connectPgSimple(session))(options), pool, now);
}

const expiryOf = (session: SessionData): number =>
  session.cookie.expires ? new Date(session.cookie.expires).getTime() : Infinity;
