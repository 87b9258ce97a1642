import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { useSearchParams } from 'react-router';
import { type Filter, readFilter } from '#core/derive/filters.ts';
import { ALL_FILTERS } from '../lenses/lens-filters.ts';
import { type Beside, besideIn, besideText } from '../settings/settings-keys.ts';
import { LENSES, type Lens, PLAN_VIEWS, VIEWS, type View, WRITE_VIEWS } from './lenses.ts';

const WRITE_AFTER_MS = 300;

export interface ViewParameters {
  readonly lens: Lens;
  readonly setLens: (lens: Lens) => void;
  readonly view: View | null;
  readonly setView: (view: View) => void;
  readonly query: string;
  readonly setQuery: (query: string) => void;
  readonly filter: Filter;
  readonly setFilter: (filter: Filter) => void;
  /** Whether what is found shows without what stands above it. */
  readonly isFlat: boolean;
  readonly setFlat: (isFlat: boolean) => void;
  readonly clearFind: () => void;
  /** The moment that access is looked at, in milliseconds since 1970; null for now. */
  readonly moment: number | null;
  readonly setMoment: (moment: number | null) => void;
  /** What stands beside the tree in place of the selected page; the browser's Back goes to what stood there before. */
  readonly beside: Beside | null;
  readonly setBeside: (beside: Beside | null) => void;
  /** Whether the tree shows the marked rows alone. */
  readonly isOnlyMarked: boolean;
  readonly setOnlyMarked: (isOnly: boolean) => void;
  /** The page that the address names, as it was opened. */
  readonly page: string | null;
  readonly rememberPage: (page: string) => void;
}

/** What the address bar holds: the lens, the view, the selected page, and what is looked for. It can be sent to somebody. */
export function useViewParameters(): ViewParameters {
  const [parameters, setParameters] = useSearchParams();
  const change = useCallback(
    (changes: Readonly<Record<string, string | null>>, { replace = true } = {}) =>
      setParameters(
        () => {
          // What the address holds already, though it may not be drawn yet: two changes in a row are both kept.
          const next = new URLSearchParams(window.location.search);
          for (const [name, value] of Object.entries(changes)) {
            if (value === null || value === '') next.delete(name);
            else next.set(name, value);
          }
          return next;
        },
        { replace },
      ),
    [setParameters],
  );
  const [query, setQueryNow] = useState(() => parameters.get('find') ?? '');
  const timer = useRef<number | undefined>(undefined);
  const setQuery = useCallback(
    (next: string) => {
      setQueryNow(next);
      // Browsers take only so many changes of the address a minute.
      window.clearTimeout(timer.current);
      timer.current = window.setTimeout(() => change({ find: next.trim() }), WRITE_AFTER_MS);
    },
    [change],
  );
  useEffect(() => () => window.clearTimeout(timer.current), []);

  const besideNow = parameters.get('beside');
  const asked = ALL_FILTERS.map((field) => `${field.key}=${parameters.get(field.key) ?? ''}`).join('&');
  const filter = useMemo(() => readFilter((key) => new URLSearchParams(asked).get(key), ALL_FILTERS), [asked]);
  const setFilter = useCallback(
    (next: Filter) => change(Object.fromEntries(ALL_FILTERS.map(({ key }) => [key, next[key]?.join(',') ?? null]))),
    [change],
  );
  const clearFind = useCallback(() => {
    window.clearTimeout(timer.current);
    setQueryNow('');
    change({ find: null, only: null, ...Object.fromEntries(ALL_FILTERS.map(({ key }) => [key, null])) });
  }, [change]);
  return {
    lens: LENSES.find((one) => one === parameters.get('lens')) ?? 'write',
    setLens: useCallback((lens: Lens) => change({ lens }), [change]),
    view: [...VIEWS, ...PLAN_VIEWS, ...WRITE_VIEWS].find((one) => one === parameters.get('view')) ?? null,
    setView: useCallback((view: View) => change({ view }), [change]),
    query,
    setQuery,
    filter,
    setFilter,
    isFlat: parameters.get('flat') === 'yes',
    setFlat: useCallback((isFlat: boolean) => change({ flat: isFlat ? 'yes' : null }), [change]),
    clearFind,
    moment: momentIn(parameters.get('at')),
    setMoment: useCallback(
      (moment: number | null) => change({ at: moment === null ? null : new Date(moment).toISOString() }),
      [change],
    ),
    beside: useMemo(() => besideIn(besideNow), [besideNow]),
    setBeside: useCallback(
      (next: Beside | null) =>
        change({ beside: next && besideText(next), ...(next?.id ? {} : { only: null }) }, { replace: false }),
      [change],
    ),
    isOnlyMarked: parameters.get('only') === 'marked',
    setOnlyMarked: useCallback((isOnly: boolean) => change({ only: isOnly ? 'marked' : null }), [change]),
    page: parameters.get('page'),
    rememberPage: useCallback((page: string) => change({ page }), [change]),
  };
}

function momentIn(text: string | null): number | null {
  const moment = text === null ? NaN : Date.parse(text);
  return Number.isNaN(moment) ? null : moment;
}
