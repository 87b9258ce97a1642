import { useMemo, useState } from 'react';
import { ACCEPT_FROM } from '#core/carryover/reasons.ts';
import { type SectionsOf, sectionsOf } from '#core/carryover/sections.ts';
import { settledOf } from '#core/carryover/settle.ts';
import { UNDECIDED } from '#core/model/old-page.ts';
import { planOf } from '#core/model/plan.ts';
import { maybeNodeAt } from '#core/model/site.ts';
import { useCarryOver, useOldSite } from '../../../api/old-site.ts';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import type { CarryOver, Chosen, Line } from './carry-over-context.ts';

const NO_PAGES: CarryOver['pages'] = [];
const NO_PAIRS: CarryOver['proposals'] = [];

/** Everything that the carry-over shows: what is settled at once, the proposals when they are here. */
export function useCarryOverData(): CarryOver & { readonly isHere: boolean; readonly fault: unknown } {
  const { site, shown, derived } = useWorkbench();
  const oldSite = useOldSite(site.key);
  const { answer, isMatching, fault } = useCarryOver(site.key, shown.revision, oldSite?.version);
  const pages = oldSite?.pages ?? NO_PAGES;
  const [chosen, choose] = useState<Chosen>({ old: null, planned: null });
  const settled = useMemo(() => settledOf(site, pages), [site, pages]);
  const pairs = answer?.pairs ?? NO_PAIRS;
  const acceptFrom = answer?.acceptFrom ?? ACCEPT_FROM;
  // What was decided a moment ago is not proposed any more, though the pairs may be of before.
  const proposals = useMemo(() => {
    const left = new Set(settled.withoutPlace);
    return pairs.filter(({ old, planned, kind }) => {
      const node = maybeNodeAt(site, planned);
      if (!node || planOf(node).origin === 'new') return false;
      if ((site.oldPages.get(old) ?? UNDECIDED).declined.includes(planned)) return false;
      const isPart = kind === 'part' && settled.placesOf.has(old) && !settled.placesOf.get(old)!.includes(planned);
      return left.has(old) ? kind !== 'one' || planOf(node).oldAddresses.length === 0 : isPart;
    });
  }, [site, pairs, settled]);
  const lines = useMemo((): Line[] => {
    const accepted = [...settled.placesOf].flatMap(([old, places]) =>
      places.map((planned): Line => ({ old, planned, look: 'accepted', pair: null })),
    );
    return [
      ...accepted,
      ...proposals.map((pair): Line => ({
        old: pair.old,
        planned: pair.planned,
        look: pair.confidence >= acceptFrom ? 'sure' : 'unsure',
        pair,
      })),
    ];
  }, [settled, proposals, acceptFrom]);
  const [through, setThrough] = useState<{ readonly of: SectionsOf; readonly key: string | null } | null>(null);
  const of = through?.of ?? null;
  const sections = useMemo(
    () => (of === null ? [] : sectionsOf(site, derived.outline, pages, lines, settled, of)),
    [site, derived, pages, lines, settled, of],
  );
  const section = sections.find(({ key }) => key === through?.key) ?? sections[0] ?? null;
  const wordsOf = useMemo(() => new Map(pages.map(({ address, words }) => [address, words])), [pages]);
  return {
    pages,
    sections,
    section,
    sectionsOf: of,
    goThrough: (next, key) => setThrough(next === null ? null : { of: next, key: key ?? null }),
    pairOf: (old, planned) => ({ old, planned, oldWords: wordsOf.get(old) ?? null }),
    settled,
    proposals,
    acceptFrom,
    lines,
    isMatching,
    chosen,
    choose,
    isHere: oldSite !== undefined,
    fault,
  };
}
