import { useMemo } from 'react';
import useSWR from 'swr';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import type { AnswerOf } from '#contract/routes.ts';
import { call } from './client.ts';

/** Who changed each page last, and when; undefined until it is known. It is not fetched without a revision. */
export function useLatestChanges(
  key: SiteKey,
  revision: number | null,
): ReadonlyMap<PageId, { by: string; at: string }> | undefined {
  const { data } = useSWR(
    revision === null ? null : [`/sites/${key}/latest-changes`, revision],
    () => call('listLatestChanges', { site: key }),
    { keepPreviousData: true },
  );
  return useMemo(() => data && byPage(data), [data]);
}

/** Who changed each page last in any way, and when; undefined until it is known. */
export function useAllChanges(
  key: SiteKey,
  revision: number,
): ReadonlyMap<PageId, { by: string; at: string }> | undefined {
  const { data } = useSWR([`/sites/${key}/latest-changes`, revision], () => call('listLatestChanges', { site: key }), {
    keepPreviousData: true,
  });
  return useMemo(() => data && byPage(data), [data]);
}

/** Who changed what visitors get of each page last, and when; undefined until it is known. It is not fetched without a revision. */
export function useLiveChanges(
  key: SiteKey,
  revision: number | null,
): ReadonlyMap<PageId, { by: string; at: string }> | undefined {
  const { data } = useSWR(
    revision === null ? null : [`/sites/${key}/latest-changes?of=live`, revision],
    () => call('listLatestChanges', { site: key }, undefined, '?of=live'),
    { keepPreviousData: true },
  );
  return useMemo(() => data && byPage(data), [data]);
}

/** Who set the rule of each page last, or hid it, and when; undefined until it is known. */
export function useRuleChanges(
  key: SiteKey,
  revision: number,
): ReadonlyMap<PageId, { by: string; at: string }> | undefined {
  const { data } = useSWR(
    [`/sites/${key}/latest-changes?of=access`, revision],
    () => call('listLatestChanges', { site: key }, undefined, '?of=access'),
    { keepPreviousData: true },
  );
  return useMemo(() => data && byPage(data), [data]);
}

const byPage = ({ pages, by, at }: AnswerOf<'listLatestChanges'>) =>
  new Map(pages.map((page, index) => [page, { by: by[index]!, at: at[index]! }]));

/** What texts name: facts, shared sections, or forms. */
export type NamedInTexts = 'fact' | 'shared' | 'form';

/** The pages whose text names a fact of the site, or shows a shared section or a form; undefined until it is known, and where none is asked for. */
export function useTextUses(key: SiteKey, of: NamedInTexts, id: string | null, revision: number): PageId[] | undefined {
  return useSWR(
    id === null ? null : [`/sites/${key}/find?${of}`, id, revision],
    () => call('findTexts', { site: key }, undefined, `?${of}=${id}`).then((answer) => answer.pages),
    { keepPreviousData: true },
  ).data;
}

/** The pages whose text holds the words; undefined until it is known. Nothing is fetched without words. */
export function useTextsFound(key: SiteKey, words: string | null, revision: number): PageId[] | undefined {
  return useSWR(words === null ? null : [`/sites/${key}/find`, words, revision], () =>
    call('findTexts', { site: key }, undefined, `?text=${encodeURIComponent(words!)}`).then((answer) => answer.pages),
  ).data;
}
