import useSWR from 'swr';
import { nanoid } from 'nanoid';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import type { Replacing } from '#core/sections/replace-words.ts';
import type { FoundOnPage } from '#contract/replacing.ts';
import { call, callUntilKnown } from './client.ts';

type Finding = Omit<Replacing, 'by'>;

/** Where the texts of the tree have some words, page by page; what was known before stays while it is looked anew. */
export function useFoundWords(
  site: SiteKey,
  revision: number,
  finding: Finding,
): { readonly pages: readonly FoundOnPage[]; readonly isLooking: boolean } {
  const { data, isLoading } = useSWR(
    finding.find === '' ? null : [`/sites/${site}/words`, revision, finding.find, finding.isWhole, finding.isExact],
    () => call('findWords', { site }, { ...finding, by: '' }),
    { keepPreviousData: true },
  );
  return { pages: data?.pages ?? NONE, isLooking: isLoading };
}
const NONE: readonly FoundOnPage[] = [];

/** Replaces words in the texts of these pages, as one edit. @throws ServerProblem, NotKnown */
export const replaceWords = (
  site: SiteKey,
  replacing: Replacing,
  pages: readonly PageId[],
): Promise<{ pages: number; places: number }> =>
  callUntilKnown('replaceWords', { site }, { ...replacing, pages: [...pages], request: nanoid() });
