import { parentPort } from 'node:worker_threads';
import { type Decided, matchPages } from '#core/carryover/match.ts';
import { MatchMemory } from '#core/carryover/match-memory.ts';
import type { SiteKey } from '#core/model/ids.ts';
import type { MatchRequest } from './match-thread.ts';

/** The sites that were matched last, with what is known of them. */
const memories = new Map<SiteKey, MatchMemory>();
const MAX_MEMORIES = 4;

function memoryOf(site: SiteKey): MatchMemory {
  const memory = memories.get(site) ?? new MatchMemory();
  memories.delete(site);
  memories.set(site, memory);
  if (memories.size > MAX_MEMORIES) memories.delete([...memories.keys()][0]!);
  return memory;
}

/** Matches in a thread of its own, so that requests are answered meanwhile. */
parentPort!.on('message', ({ id, site, old, planned, decided }: MatchRequest) => {
  try {
    const declined = new Set(decided.declined.map((pair) => pair.join('\n')));
    const made: Decided = {
      pairs: decided.pairs,
      old: new Set(decided.old),
      planned: new Set(decided.planned),
      isDeclined: (from, to) => declined.has(`${from}\n${to}`),
    };
    const pairs = matchPages(old, planned, made, memoryOf(site));
    parentPort!.postMessage({ id, pairs });
  } catch (fault) {
    parentPort!.postMessage({ id, fault: (fault as Error).message });
  }
});
