import { useDeferredValue, useMemo, useState } from 'react';
import { type LinkFinding, linkFindings, outsideFindings } from '#core/checks/link-findings.ts';
import { type SettingsFinding, settingsFindings } from '#core/checks/settings-links.ts';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import type { Site } from '#core/model/site.ts';
import { useLinkLook, useTextLinks } from '../api/links.ts';
import { useNow } from '../ui/use-now.ts';

/**
 * What was found about the links of each page; null until it is known. The links of the tree are those of now; the texts are read
 * anew while `isWatched`, else they are as they were when they were read last.
 */
export function useFindings(
  key: SiteKey,
  site: Site,
  revision: number,
  isWatched: boolean,
): ReadonlyMap<PageId, readonly LinkFinding[]> | null {
  const [read, setRead] = useState(revision);
  if (isWatched && read !== revision) setRead(revision);
  const links = useTextLinks(key, read);
  const answers = useLinkLook(key)?.report?.faults;
  const now = useNow();
  const seen = useDeferredValue(site);
  return useMemo(() => {
    if (!links) return null;
    const byPage = new Map<PageId, LinkFinding[]>();
    const found = [...linkFindings(seen, now, links.draft), ...outsideFindings(seen, links.outside, answers ?? [])];
    for (const finding of found) byPage.set(finding.page, [...(byPage.get(finding.page) ?? []), finding]);
    return byPage;
  }, [seen, now, links, answers]);
}

/** What was heard of the outside addresses that menus and redirects lead to, where that is to be told. */
export function useSettingsFindings(key: SiteKey, { settings }: Pick<Site, 'settings'>): readonly SettingsFinding[] {
  const answers = useLinkLook(key)?.report?.faults;
  return useMemo(() => settingsFindings(settings, answers ?? []), [settings, answers]);
}
