import type { LinkFinding } from '#core/checks/link-findings.ts';
import { PAGE_CHECKS, type PageFinding } from '#core/checks/page-checks.ts';
import type { SettingsLink } from '#core/checks/settings-links.ts';
import type { Site } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';

/** What is wrong with a link and what can be done, as a sentence. */
export function findingWords(site: Site, { to, fault, says }: LinkFinding): string {
  if ('address' in to) return outsideWords(fault, says);
  const node = site.nodes.get(to.page);
  const title = node ? `‘${textIn(node.title, site.settings.language)}’` : 'a page';
  switch (fault) {
    case 'not there':
      return node
        ? `${title} ${node.removedWith === null ? 'has no address of its own' : 'was removed'}. Visitors see the words without the link.`
        : 'The page no longer exists. Visitors see the words without the link.';
    case 'hidden':
      return `${title} is hidden, or not open at this time. Visitors see the words without the link.`;
    case 'closed':
      return `Some who can read this page cannot open ${title}. They see the words without the link.`;
    default:
      return `${title} no longer has that heading. The link leads to the top of the page.`;
  }
}

/** What a page lacks and what can be done, as a sentence. */
export function lackWords(site: Site, { fault, other }: PageFinding): string {
  const node = other === null ? undefined : site.nodes.get(other);
  return PAGE_CHECKS[fault].words(node ? textIn(node.title, site.settings.language) : null);
}

/** What an outside address said, and what can be done. */
export const outsideWords = (fault: LinkFinding['fault'], says: string): string =>
  fault === 'moved'
    ? `It has moved permanently to ${says}. Link to that.`
    : `${says} Link elsewhere, or remove the link.`;

/** Where a link stands that is in no page. */
export function settingsLinkWords({ settings }: Pick<Site, 'settings'>, of: SettingsLink['of']): string {
  if (!('menu' in of)) return `The redirect from ${of.from}`;
  const menu = settings.menus.find(({ id }) => id === of.menu);
  return `‘${textIn(of.label, settings.language)}’ in the ${menu?.name ?? 'former'} menu`;
}
