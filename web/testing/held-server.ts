import { vi } from 'vitest';
import type { Site } from '#core/model/site.ts';
import { applyOperations } from '#core/operations/apply.ts';
import type { Operation } from '#core/operations/operation.ts';
import { MANAGER, SHIPPED_ROLES } from '#core/people/role.ts';
import type { CommittedEdit } from '#contract/api.ts';
import { sendTree } from '#contract/sent-tree.ts';

export interface Asked {
  readonly path: string;
  readonly body: { request: string; operations: Operation[] };
  readonly answer: (status: number, body: unknown) => void;
  readonly fail: () => void;
}

/** A server whose answers and stream the test holds in its hands. It decides as the real one does. */
export class HeldServer {
  site: Site;
  revision = 0;
  /** Whether the tree cannot be fetched. */
  isAway = false;
  readonly asked: Asked[] = [];
  readonly streams: HeldStream[] = [];
  readonly #edits: CommittedEdit[] = [];
  readonly #requests = new Map<string, number>();

  constructor(site: Site) {
    this.site = site;
    HeldStream.server = this;
    vi.stubGlobal('fetch', this.fetch);
    vi.stubGlobal('EventSource', HeldStream);
  }

  fetch = (path: string, init: { body?: string }): Promise<Response> => {
    if (path.endsWith('/tree'))
      return this.isAway
        ? Promise.reject(new TypeError('no connection'))
        : Promise.resolve(Response.json(sendTree(this.site, this.revision)));
    if (path.endsWith('/roles/own'))
      return Promise.resolve(Response.json({ roles: SHIPPED_ROLES, rolesAt: [{ page: null, role: MANAGER.id }] }));
    return new Promise((resolve, reject) => {
      this.asked.push({
        path,
        body: JSON.parse(init.body ?? '{}'),
        answer: (status, body) => resolve(Response.json(body, { status })),
        fail: () => reject(new TypeError('no connection')),
      });
    });
  };

  /** Decides on a request and answers it: the one that waits longest, or another one of those that wait. */
  async decide(which = 0): Promise<void> {
    const next = this.asked.splice(which, 1)[0]!;
    const { request, operations } = next.body;
    const made = this.#requests.get(request);
    if (made !== undefined) next.answer(200, { revision: made, applied: [], inverse: [] });
    else {
      const outcome = applyOperations(this.site, operations);
      if (outcome.ok) {
        this.commit(operations, 'Ines', request);
        next.answer(200, { revision: this.revision, applied: [], inverse: [] });
      } else
        next.answer(409, {
          type: '/problems/x',
          title: 'x',
          status: 409,
          detail: 'It was refused.',
          code: outcome.code,
        });
    }
    await settle();
  }

  commit(operations: readonly Operation[], by = 'Marek', request: string | null = null): void {
    const outcome = applyOperations(this.site, operations);
    if (!outcome.ok) throw new Error(outcome.code);
    this.site = outcome.site;
    this.revision++;
    if (request !== null) this.#requests.set(request, this.revision);
    this.#edits.push({
      revision: this.revision,
      at: '2026-11-25T09:00:00.000Z',
      by,
      account: by,
      kind: 'edit',
      request,
      words: 'did it',
      operations,
    });
  }

  /** Sends a stream, the latest one if none is named, what it has not had: all of it, or so many edits. */
  tell(stream = this.streams.at(-1)!, most = Infinity): void {
    for (const edit of this.#edits.filter(({ revision }) => revision > stream.had).slice(0, most)) stream.send(edit);
  }

  /** Everything that was committed, as requests. */
  get committed(): ReadonlySet<string> {
    return new Set(this.#requests.keys());
  }
}

export class HeldStream {
  static readonly CLOSED = 2;
  static server: HeldServer;
  readyState = 1;
  had: number;
  isClosed = false;
  readonly #listeners = new Map<string, (event: { data: string }) => void>();

  constructor(url: string) {
    this.had = Number(new URL(url, 'http://spur.example').searchParams.get('since'));
    HeldStream.server.streams.push(this);
  }
  addEventListener(name: string, listener: (event: { data: string }) => void) {
    this.#listeners.set(name, listener);
  }
  send(edit: CommittedEdit) {
    this.had = edit.revision;
    this.say('edit', edit);
  }
  /** Says something else than an edit. */
  say(name: string, data: unknown) {
    this.#listeners.get(name)!({ data: JSON.stringify(data) });
  }
  /** The browser gives up: it was answered that something is wrong. */
  giveUp() {
    this.readyState = HeldStream.CLOSED;
    this.#listeners.get('error')!({ data: '' });
  }
  close() {
    this.isClosed = true;
    this.readyState = HeldStream.CLOSED;
  }
}

/** Lets everything happen that waits for nothing else. */
export const settle = async () => {
  for (let n = 0; n < 12; n++) await Promise.resolve();
  await vi.advanceTimersByTimeAsync(0);
};

/** A window that is seen, for code that follows whether it is. */
export function stubWindow(): void {
  const page = { visibilityState: 'visible', addEventListener: () => undefined, removeEventListener: () => undefined };
  vi.stubGlobal('document', page);
  vi.stubGlobal('window', page);
}
