import { useDeferredValue, useMemo, useState } from 'react';
import { type LinkFinding, linkFindings, outsideFindings } from '#core/checks/link-findings.ts';
import { type PageFinding, findingsByPage } from '#core/checks/page-checks.ts';
import { type SettingsFinding, settingsFindings } from '#core/checks/settings-links.ts';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { useLinkLook, useTextLinks } from '../api/links.ts';
import { useNow } from '../ui/use-now.ts';
import { useWhenIdle } from '../ui/use-when-idle.ts';

/** While nobody looks at the findings, pages are looked at once nothing was changed for so long. */
const QUIET_MS = 4000;

/** What was found about each page; null until it is known. */
export interface Findings {
  readonly ofLinks: ReadonlyMap<PageId, readonly LinkFinding[]> | null;
  readonly ofPages: ReadonlyMap<PageId, readonly PageFinding[]> | null;
}

/**
 * What was found about the links of each page, and what the pages lack. The tree is that of now; the texts are read anew while
 * `isWatched`, else they are as they were when they were read last.
 */
export function useFindings(key: SiteKey, site: Site, revision: number, isWatched: boolean): Findings {
  const [read, setRead] = useState(revision);
  if (isWatched && read !== revision) setRead(revision);
  const links = useTextLinks(key, read);
  const answers = useLinkLook(key)?.report?.faults;
  const now = useNow();
  const seen = useDeferredValue(site);
  const lookAtLinks = useMemo(
    () =>
      links
        ? function* () {
            const ofTree = linkFindings(seen, now, links.draft);
            yield;
            return byPage([...ofTree, ...outsideFindings(seen, links.outside, answers ?? [])]);
          }
        : null,
    [seen, now, links, answers],
  );
  const ofLinks = useWhenIdle<Findings['ofLinks']>(lookAtLinks, null, isWatched ? 0 : QUIET_MS);
  const lookAtPages = useMemo(
    () => (links ? () => findingsByPage(seen, now, links.draft, links.draftFaults) : null),
    [seen, now, links],
  );
  const ofPages = useWhenIdle<Findings['ofPages']>(lookAtPages, null, isWatched ? 0 : QUIET_MS);
  return useMemo(() => ({ ofLinks, ofPages }), [ofLinks, ofPages]);
}

/** All that was found about each page, for filtering by it. */
export function faultsOf({ ofLinks, ofPages }: Findings): ReadonlyMap<PageId, readonly { readonly fault: string }[]> {
  const faults = new Map<PageId, readonly { readonly fault: string }[]>(ofLinks ?? []);
  for (const [page, found] of ofPages ?? []) {
    const others = faults.get(page);
    faults.set(page, others ? [...others, ...found] : found);
  }
  return faults;
}

function byPage<Finding extends { readonly page: PageId }>(found: readonly Finding[]): Map<PageId, Finding[]> {
  const pages = new Map<PageId, Finding[]>();
  for (const finding of found) {
    const ofPage = pages.get(finding.page);
    if (ofPage) ofPage.push(finding);
    else pages.set(finding.page, [finding]);
  }
  return pages;
}

/** What was heard of the outside addresses that menus and redirects lead to, where that is to be told. */
export function useSettingsFindings(key: SiteKey, { settings }: Pick<Site, 'settings'>): readonly SettingsFinding[] {
  const answers = useLinkLook(key)?.report?.faults;
  return useMemo(() => settingsFindings(settings, answers ?? []), [settings, answers]);
}
