import type { Worker } from 'node:worker_threads';
import type { MatchPage } from '#core/carryover/match-page.ts';
import type { ProposedPair } from '#core/carryover/match.ts';
import type { SiteKey } from '#core/model/ids.ts';
import { startWorker } from '../start-worker.ts';

export interface MatchInput {
  readonly old: readonly MatchPage[];
  readonly planned: readonly MatchPage[];
  readonly decided: {
    readonly pairs: readonly (readonly [string, string])[];
    readonly old: readonly string[];
    readonly planned: readonly string[];
    readonly declined: readonly (readonly [string, string])[];
  };
}
/** `site` is whose pages they are: what is known of earlier matchings of that site is used again. */
export type MatchRequest = MatchInput & { readonly id: number; readonly site: SiteKey };
type MatchAnswer = { readonly id: number } & ({ readonly pairs: ProposedPair[] } | { readonly fault: string });

/** The thread that matches. It is started when it is first needed, and again if it has died. */
export class MatchThread {
  #worker: Worker | null = null;
  #next = 1;
  readonly #waiting = new Map<number, { resolve: (pairs: ProposedPair[]) => void; reject: (fault: Error) => void }>();

  match(site: SiteKey, input: MatchInput): Promise<ProposedPair[]> {
    const id = this.#next++;
    return new Promise((resolve, reject) => {
      this.#waiting.set(id, { resolve, reject });
      this.#open().postMessage({ ...input, id, site } satisfies MatchRequest);
    });
  }

  async close(): Promise<void> {
    await this.#worker?.terminate();
  }

  #open(): Worker {
    if (this.#worker) return this.#worker;
    const worker = startWorker('match-worker', import.meta.url);
    worker.unref();
    worker.on('message', (answer: MatchAnswer) => {
      const waiting = this.#waiting.get(answer.id);
      this.#waiting.delete(answer.id);
      if ('fault' in answer) waiting?.reject(new Error(answer.fault));
      else waiting?.resolve(answer.pairs);
    });
    const end = (fault: Error) => {
      this.#worker = null;
      for (const { reject } of this.#waiting.values()) reject(fault);
      this.#waiting.clear();
    };
    worker.on('error', end);
    worker.on('exit', () => end(new Error('The thread that matches has ended.')));
    return (this.#worker = worker);
  }
}
