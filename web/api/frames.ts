import useSWR from 'swr';
import useSWRImmutable from 'swr/immutable';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import { call } from './client.ts';

/**
 * What stands around the text of a page at a revision, as HTML; undefined until it is known, and where it cannot be had.
 * @param revision null while another one is on its way: what was known stays
 */
export const usePageFrame = (site: SiteKey, page: PageId, revision: number | null): string | undefined =>
  useSWR(
    revision === null ? null : [`/sites/${site}/pages/${page}/frame`, revision],
    () => call('showPageFrame', { site, page }),
    { keepPreviousData: true },
  ).data?.html;

/** What the stylesheets of visitors' pages have in common, and where fonts are; undefined until it is known. */
export const useLookParts = () => useSWRImmutable('/look', () => call('showLook')).data;
