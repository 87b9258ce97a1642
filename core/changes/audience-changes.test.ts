import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { accessReason } from '../derive/access.ts';
import { closureOf } from '../model/audience.ts';
import { maybeNodeAt, nodeAt } from '../model/site.ts';
import { applyOperation } from '../operations/apply.ts';
import { anyEdit, anySite } from '../testing/random-site.ts';
import { audienceChanges } from './audience-changes.ts';

const AT = Date.parse('2026-11-25T00:00:00Z');

describe('who gains and who loses', () => {
  it('is what the reasons before and after say, for any edit', () =>
    fc.assert(
      fc.property(anySite, anyEdit, (before, edit) => {
        const outcome = applyOperation(before, edit);
        if (!outcome.ok) return;
        const after = outcome.site;
        const changes = audienceChanges(before, after, AT);
        for (const { audience, gains, loses } of changes) {
          const opens = (site: typeof before, page: (typeof gains)[number]) =>
            accessReason(site, page, closureOf(site.settings.audiences, [audience]), AT).opens;
          for (const page of gains) expect([opens(before, page), opens(after, page)]).toEqual([false, true]);
          for (const page of loses) expect([opens(before, page), opens(after, page)]).toEqual([true, false]);
        }
        const told = new Set(changes.flatMap(({ gains, loses }) => [...gains, ...loses]));
        for (const id of after.nodes.keys()) {
          if (told.has(id) || !maybeNodeAt(before, id) || !maybeNodeAt(after, id)) continue;
          if (nodeAt(after, id).type !== 'page') continue;
          for (const { id: audience } of before.settings.audiences) {
            if (!after.settings.audiences.some((one) => one.id === audience)) continue;
            const [was, is] = [before, after].map(
              (site) => accessReason(site, id, closureOf(site.settings.audiences, [audience]), AT).opens,
            );
            expect(is).toBe(was);
          }
        }
      }),
      { numRuns: 400 },
    ));

  it('turns round with the change', () =>
    fc.assert(
      fc.property(anySite, anyEdit, (before, edit) => {
        const outcome = applyOperation(before, edit);
        if (!outcome.ok || outcome.site.settings.audiences !== before.settings.audiences) return;
        const there = audienceChanges(before, outcome.site, AT);
        const back = audienceChanges(outcome.site, before, AT);
        const isStill = (id: string) => nodeTypeIsSame(before, outcome.site, id);
        const sorted = (ids: readonly string[]) => ids.filter(isStill).sort();
        for (const { audience, gains, loses } of there) {
          const turned = back.find((one) => one.audience === audience);
          expect(sorted(turned?.loses ?? [])).toEqual(sorted(gains));
          expect(sorted(turned?.gains ?? [])).toEqual(sorted(loses));
        }
      }),
    ));
});

const nodeTypeIsSame = (a: Parameters<typeof nodeAt>[0], b: typeof a, id: string): boolean =>
  a.nodes.get(id as never)?.type === b.nodes.get(id as never)?.type;
