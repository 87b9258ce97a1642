import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { holds } from '../testing/holds.ts';
import { accessReason } from '../derive/access.ts';
import { type AudienceId, closureOf } from '../model/audience.ts';
import { toPageId } from '../model/ids.ts';
import { type Site, maybeNodeAt, nodeAt } from '../model/site.ts';
import { applyOperation } from '../operations/apply.ts';
import type { Operation } from '../operations/operation.ts';
import { anyStep, anySite, drawEdit, siteAfter } from '../testing/random-site.ts';
import { audienceChanges } from './audience-changes.ts';

const AT = Date.parse('2026-11-25T00:00:00Z');

describe('who gains and who loses', () => {
  it('is what the reasons before and after say, for any edit', () =>
    holds(
      fc.property(anySite, anyStep, (before, step) => {
        const outcome = applyOperation(before, drawEdit(before, step));
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
      { numRuns: 150 },
    ));

  it('names the links that lead to what has closed, for those who still see them', () => {
    const [staff, crew] = ['staff', 'crew'] as AudienceId[];
    const before = siteAfter([
      { name: 'audience.add', audience: staff!, title: 'Staff' },
      { name: 'audience.add', audience: crew!, title: 'Crew' },
      { name: 'page.add', page: toPageId('home'), place: { parent: null }, title: { en: 'Home' } },
      { name: 'page.add', page: toPageId('rota'), place: { parent: null }, title: { en: 'Rota' } },
      ...['open', 'kept'].map((page): Operation => ({
        name: 'page.add',
        page: toPageId(page),
        place: { parent: null },
        type: 'link',
        title: { en: page },
        target: { page: toPageId('rota') },
        ...(page === 'kept' && { access: { only: [staff!] } }),
      })),
    ]);
    const after = siteAfter(
      [{ name: 'page.set', page: toPageId('rota'), fields: { access: { only: [crew!] } } }],
      before,
    );
    const linksOf = (from: Site, to: Site) =>
      Object.fromEntries(audienceChanges(from, to, AT).map(({ audience, deadLinks }) => [audience, deadLinks]));
    expect(linksOf(before, after)).toEqual({ everyone: ['open'], staff: ['open', 'kept'] });
    // Opening it again leads nobody astray.
    expect(Object.values(linksOf(after, before)).flat()).toEqual([]);
  });

  it('is told by the audience, not by its place among them', () => {
    const [staff, crew, guests] = ['staff', 'crew', 'guests'] as AudienceId[];
    const rota = toPageId('rota');
    const onlyFor = (audience: AudienceId): Operation => ({
      name: 'page.set',
      page: rota,
      fields: { access: { only: [audience] } },
    });
    const before = siteAfter([
      { name: 'audience.add', audience: staff!, title: 'Staff' },
      { name: 'audience.add', audience: crew!, title: 'Crew' },
      { name: 'page.add', page: rota, place: { parent: null }, title: { en: 'Rota' } },
      onlyFor(crew!),
    ]);
    const after = siteAfter(
      [
        { name: 'audience.remove', audience: staff! },
        { name: 'audience.add', audience: guests!, title: 'Guests' },
        onlyFor(guests!),
      ],
      before,
    );
    expect(audienceChanges(before, after, AT)).toEqual([{ audience: crew, gains: [], loses: [rota], deadLinks: [] }]);
  });

  it('turns round with the change', () =>
    holds(
      fc.property(anySite, anyStep, (before, step) => {
        const outcome = applyOperation(before, drawEdit(before, step));
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
