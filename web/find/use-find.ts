import { useEffect, useMemo } from 'react';
import type { Derived } from '#core/derive/derived.ts';
import type { FeedbackTotals } from '#core/derive/feedback-totals.ts';
import { type Filter, type FilterFacts, filterRows, isAsking, prepareFind } from '#core/derive/filters.ts';
import { foldedNamesOf } from '#core/derive/folded-titles.ts';
import type { Found } from '#core/derive/visible-rows.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { useLatestChanges, useTextsFound } from '../api/find.ts';
import { useLatest } from '../ui/use-latest.ts';
import { useSettled } from '../ui/use-settled.ts';
import { ALL_FILTERS } from '../lenses/lens-filters.ts';

/** Fewer letters are not looked for in texts: they are in nearly all. */
const MIN_LETTERS = 3;
const TEXTS_AFTER_MS = 200;

/** The rows that the words and the filter leave, or null where nothing is asked. */
export function useFind(
  site: Site,
  derived: Derived,
  revision: number,
  query: string,
  filter: Filter,
  feedback: FeedbackTotals | null,
  faults: FilterFacts['faults'],
  moment: number | null,
): { found: Found | null; isWaiting: boolean } {
  usePreparation(site, derived);
  const asked = isAsking({ query, filter });
  const needsChanges = filter.by !== undefined || filter.since !== undefined;
  const changes = useLatestChanges(site.key, needsChanges ? revision : null);
  const words = useSettled(query.trim(), TEXTS_AFTER_MS);
  const pages = useTextsFound(site.key, words.length >= MIN_LETTERS ? words : null, revision);
  const texts = useMemo(() => (pages && words === query.trim() ? new Set<PageId>(pages) : null), [pages, words, query]);
  const found = useMemo(
    () =>
      asked
        ? filterRows({ site, derived, changes: changes ?? null, texts, feedback, faults, moment }, ALL_FILTERS, {
            query,
            filter,
          })
        : null,
    [asked, site, derived, changes, texts, feedback, faults, moment, query, filter],
  );
  return { found, isWaiting: needsChanges && changes === undefined };
}

/** While nothing else is to do, titles are made ready for finding, so that the first letter is as quick as the others. */
function usePreparation(site: Site, derived: Derived): void {
  const now = useLatest({ site, derived });
  // What was made ready goes along with each edit.
  useEffect(() => void foldedNamesOf(site), [site]);
  useEffect(() => {
    // A browser that does not say when it is idle folds the titles when the first letter is typed.
    if (typeof window.requestIdleCallback !== 'function') return;
    let next: number | null = 0;
    let handle = 0;
    const go = (deadline: IdleDeadline) => {
      const { site: of, derived: its } = now();
      next = prepareFind(of, its, next!, () => deadline.timeRemaining() < 2);
      if (next !== null) handle = window.requestIdleCallback(go);
    };
    handle = window.requestIdleCallback(go);
    return () => window.cancelIdleCallback(handle);
  }, [now]);
}
