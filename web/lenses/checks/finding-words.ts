import type { LinkFinding } from '#core/checks/link-findings.ts';
import type { PageFinding } from '#core/checks/page-checks.ts';
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
        ? `${title} ${node.removedWith === null ? 'has no address of its own' : 'was removed'}. Visitors read the words without the link.`
        : 'The page is not there any more. Visitors read the words without the link.';
    case 'hidden':
      return `${title} is hidden, or out of its time. Visitors read the words without the link.`;
    case 'closed':
      return `Some who can read this page cannot open ${title}. They read the words without the link.`;
    default:
      return `${title} has no heading of that name any more. The link leads to the top of the page.`;
  }
}

/** What a page lacks and what can be done, as a sentence. */
export function lackWords(site: Site, { fault, other }: PageFinding): string {
  switch (fault) {
    case 'no text':
      return 'It has no text, and lists no pages. Write its text in the Write lens, or hide it until it has one.';
    case 'no way':
      return 'It stands in no menu and in no list, and no text links to it. Put it in menus, or link to it.';
    case 'no description':
      return 'Search engines show it with words of their own choice. Say in the Write lens what it is about.';
    case 'same title': {
      const node = other === null ? undefined : site.nodes.get(other);
      const which = node
        ? `Another page is called ‘${textIn(node.title, site.settings.language)}’ too.`
        : 'Another page had its title.';
      return `${which} In a browser’s tabs, and among what is found, the two look alike.`;
    }
  }
}

/** What an outside address said, and what can be done. */
export const outsideWords = (fault: LinkFinding['fault'], says: string): string =>
  fault === 'moved'
    ? `It has moved for good, to ${says}. Link to that.`
    : `${says} Link elsewhere, or take the link away.`;

/** Where a link stands that is in no page. */
export function settingsLinkWords({ settings }: Pick<Site, 'settings'>, of: SettingsLink['of']): string {
  if (!('menu' in of)) return `The redirect from ${of.from}`;
  const menu = settings.menus.find(({ id }) => id === of.menu);
  return `‘${textIn(of.label, settings.language)}’ in the ${menu?.name ?? 'former'} menu`;
}
