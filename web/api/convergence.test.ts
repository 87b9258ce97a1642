import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { toSiteKey } from '#core/model/ids.ts';
import { checkSite } from '#core/model/check-site.ts';
import { editSchema } from '#core/operations/operation.ts';
import { anyEditStep, anySite, drawEdit, plain } from '#core/testing/random-site.ts';
import { HeldServer, settle, stubWindow } from '../testing/held-server.ts';
import { SiteStore, type Notice } from './site-store.ts';

beforeEach(() => {
  vi.useFakeTimers();
  stubWindow();
});
afterEach(() => {
  vi.unstubAllGlobals();
  vi.useRealTimers();
});

const CLIENTS = 3;
const client = fc.nat(CLIENTS - 1);
const step = fc.oneof(
  { weight: 3, arbitrary: fc.record({ kind: fc.constant('edit' as const), client, step: anyEditStep }) },
  // Requests of several people reach the server in any order.
  { weight: 2, arbitrary: fc.record({ kind: fc.constant('decide' as const), which: fc.nat(CLIENTS) }) },
  // What was committed reaches each of them late, and bit by bit.
  {
    weight: 2,
    arbitrary: fc.record({ kind: fc.constant('deliver' as const), client, most: fc.integer({ min: 1, max: 3 }) }),
  },
);

describe('several people on one site, with whatever delays', () => {
  it('end with the same tree as the server, and nobody’s change is lost without a word', async () => {
    await fc.assert(
      fc.asyncProperty(anySite, fc.array(step, { maxLength: 40, size: 'max' }), async (site, steps) => {
        const server = new HeldServer(site);
        const people = [];
        for (let n = 0; n < CLIENTS; n++) {
          const store = await SiteStore.open(toSiteKey('test-site'));
          const told: Notice[] = [];
          store.onTold((one) => told.push(one));
          const stop = store.follow();
          people.push({ store, told, stop, stream: server.streams.at(-1)!, made: 0 });
        }
        for (const next of steps) {
          if (next.kind === 'edit') {
            const person = people[next.client]!;
            const parsed = editSchema.safeParse(drawEdit(person.store.getShown().site, next.step));
            const before = person.store.getShown().site;
            if (parsed.success && person.store.apply([parsed.data]) === null && person.store.getShown().site !== before)
              person.made++;
          } else if (next.kind === 'decide') {
            if (server.asked.length > 0) await server.decide(next.which % server.asked.length);
          } else server.tell(people[next.client]!.stream, next.most);
          await settle();
        }
        while (server.asked.length > 0) {
          await server.decide();
          await settle();
        }
        for (const { stream } of people) server.tell(server.streams.includes(stream) ? stream : undefined);
        for (const stream of server.streams) if (!stream.isClosed) server.tell(stream);
        await settle();
        for (const { store, stop } of people) {
          expect(plain(store.getShown().site)).toEqual(plain(server.site));
          expect(store.getShown().isSaving).toBe(false);
          stop();
        }
        expect(checkSite(server.site)).toEqual([]);
        const refused = people.flatMap(({ told }) =>
          told.filter((one) => one.kind === 'fault' && one.words.endsWith('Your change was undone.')),
        );
        const made = people.reduce((sum, person) => sum + person.made, 0);
        expect(server.committed.size + refused.length).toBe(made);
      }),
      { numRuns: 120 },
    );
  });
});
