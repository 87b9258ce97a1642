import { type KeyboardEvent, useMemo, useState } from 'react';
import { type PageChoices, pageChoices } from '#core/derive/page-choices.ts';
import { derivedOf } from '#core/derive/derived.ts';
import { typedWords } from '#core/derive/visible-rows.ts';
import { folded } from '#core/derive/folded.ts';
import type { Site } from '#core/model/site.ts';
import type { PageId } from '#core/model/ids.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import type { OtherChoice } from './page-tree-list.tsx';

const NO_OTHERS: readonly OtherChoice[] = [];
const NO_CHOICES: PageChoices = { rows: [], matches: new Set(), isNear: false, best: null };
const isAnything = (): boolean => true;

/**
 * Choosing a page by typing part of its title: the best match is the active one, the arrow keys walk to others.
 * @param chosen what is active while nothing is typed; `others` stand above the pages, `isOffered` leaves some of these out; while
 * it is not open nothing is looked for; `of` is another tree than the one at hand
 */
export function usePageChoice(
  chosen: string | null,
  others: readonly OtherChoice[] = NO_OTHERS,
  isOffered: (row: number, page: PageId) => boolean = isAnything,
  { isOpen = true, of }: { readonly isOpen?: boolean; readonly of?: Site | undefined } = {},
) {
  const { site: here } = useWorkbench();
  const site = of ?? here;
  const { outline } = derivedOf(site);
  const [query, setQuery] = useState('');
  const [walkedTo, setWalkedTo] = useState<string | null>(null);
  const choices = useMemo(
    () => (isOpen ? pageChoices(site, outline, query, isOffered) : NO_CHOICES),
    [site, outline, query, isOffered, isOpen],
  );
  const matching = useMemo(() => {
    const words = typedWords(query);
    return others.filter((one) => words.every((word) => folded(one.words).includes(word)));
  }, [others, query]);
  const values = useMemo(
    () => [
      ...matching.map(({ value }) => value),
      ...choices.rows.filter((row) => choices.matches.has(row)).map((row) => outline.nodes[row]!.id),
    ],
    [matching, choices, outline],
  );
  const isTyped = query.trim() !== '';
  const best = choices.best === null ? (matching[0]?.value ?? null) : outline.nodes[choices.best]!.id;
  const wanted = walkedTo ?? (isTyped ? best : chosen);
  const active = wanted !== null && values.includes(wanted) ? wanted : null;
  return {
    site,
    query,
    choices,
    others: matching,
    active,
    type: (next: string) => {
      setQuery(next);
      setWalkedTo(null);
    },
    walkTo: setWalkedTo,
    /** Goes to the next or the one before by the arrow keys. Gives whether it was such a key. */
    walk: (event: KeyboardEvent): boolean => {
      if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return false;
      event.preventDefault();
      const at = active === null ? -1 : values.indexOf(active);
      const next = values[Math.max(0, Math.min(values.length - 1, at + (event.key === 'ArrowDown' ? 1 : -1)))];
      if (next !== undefined) setWalkedTo(next);
      return true;
    },
  };
}
