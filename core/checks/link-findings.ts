import { accessTable, membershipsOf } from '../derive/access.ts';
import { derivedOf } from '../derive/derived.ts';
import type { PageId } from '../model/ids.ts';
import type { Site } from '../model/site.ts';

/** A link within a text to a page of the site, or to a heading of its text by the heading's anchor. */
export interface TextLink {
  readonly page: PageId;
  readonly to: PageId;
  readonly heading: string | null;
  /** Whether the page's text has the heading; true where none is named. */
  readonly hasHeading: boolean;
}

/** A link within a text to an outside address. */
export interface OutsideLink {
  readonly page: PageId;
  readonly address: string;
}

/** What can be wrong with a link, in the order in which it is told. */
export const LINK_FAULTS = [
  /** The page does not stand in the tree, or has no address. */
  'not there',
  /** It is hidden, or not open at this time. */
  'hidden',
  /** Some who may read the page with the link may not open the one that it leads to. */
  'closed',
  /** The page is there, and the heading is not. */
  'no heading',
  /** The outside address says that nothing is there. */
  'missing',
  /** The outside address did not answer, or only with a fault of its own. */
  'no answer',
  /** The outside address says that it has moved for good. */
  'moved',
] as const;
export type LinkFault = (typeof LINK_FAULTS)[number];

/** A link that does not lead where it should. */
export interface LinkFinding {
  /** Where the link stands: a page by its text, or a link of the tree. */
  readonly page: PageId;
  readonly to: { readonly page: PageId; readonly heading: string | null } | { readonly address: string };
  readonly fault: LinkFault;
  /** What was heard from an outside address; '' for a page. */
  readonly says: string;
}

/** What an outside address answered, where that is to be told. */
export interface OutsideAnswer {
  readonly address: string;
  readonly fault: Extract<LinkFault, 'missing' | 'no answer' | 'moved'>;
  readonly says: string;
}

/**
 * Links to pages of the site that do not lead there, in tree order, for those who can read the page with the link. Pages that nobody
 * can open are passed over, and so is what asks for a passphrase or for signing in: it answers.
 * @param at the moment, in milliseconds since 1970 @param textLinks of the texts that these pages have
 */
export function linkFindings(site: Site, at: number, textLinks: readonly TextLink[]): LinkFinding[] {
  const { outline, addresses } = derivedOf(site);
  const { open, locked, asks } = accessTable(outline, site.settings, membershipsOf(site.settings.audiences), at);
  const faultOf = (from: number, to: PageId): LinkFault | null => {
    const row = outline.rowOf.get(to);
    if (row === undefined || addresses[row] === null) return 'not there';
    const answers = open[row]! | locked[row]! | asks[row]!;
    if (answers === 0) return 'hidden';
    return (open[from]! & ~answers) === 0 ? null : 'closed';
  };
  const links: TextLink[] = outline.aliases.map((row) => {
    const { id, target } = outline.nodes[row]!;
    return { page: id, to: (target as { page: PageId }).page, heading: null, hasHeading: true };
  });
  const found: { row: number; finding: LinkFinding }[] = [];
  for (const { page, to, heading, hasHeading } of [...links, ...textLinks]) {
    const row = outline.rowOf.get(page);
    if (row === undefined || open[row] === 0) continue;
    const fault = faultOf(row, to) ?? (hasHeading ? null : 'no heading');
    if (fault !== null) found.push({ row, finding: { page, to: { page: to, heading }, fault, says: '' } });
  }
  return found.sort((a, b) => a.row - b.row).map(({ finding }) => finding);
}

/** Links to outside addresses that did not answer as they should when they were last asked, in tree order. */
export function outsideFindings(
  site: Site,
  textLinks: readonly OutsideLink[],
  answers: readonly OutsideAnswer[],
): LinkFinding[] {
  const { rowOf } = derivedOf(site).outline;
  const byAddress = new Map(answers.map((answer) => [answer.address, answer]));
  return outsideLinksOf(site, textLinks)
    .flatMap(({ page, address }) => {
      const answer = byAddress.get(address);
      return answer ? [{ page, to: { address }, fault: answer.fault, says: answer.says }] : [];
    })
    .sort((a, b) => rowOf.get(a.page)! - rowOf.get(b.page)!);
}

/** The links to web addresses outside of the site: those of the tree, and of the texts of pages that stand in it. */
export function outsideLinksOf(site: Site, textLinks: readonly OutsideLink[]): OutsideLink[] {
  const { nodes, rowOf } = derivedOf(site).outline;
  const ofTree: OutsideLink[] = [];
  for (const { id, target } of nodes)
    if (target !== null && 'url' in target && /^https?:/i.test(target.url))
      ofTree.push({ page: id, address: target.url });
  return [...ofTree, ...textLinks.filter(({ page }) => rowOf.has(page))];
}

/** What is found in one state of a site and was not in another: what a release would break. */
export function newFindings(before: readonly LinkFinding[], after: readonly LinkFinding[]): LinkFinding[] {
  const known = new Set(before.map(keyOf));
  return after.filter((finding) => !known.has(keyOf(finding)));
}

const keyOf = ({ page, to, fault }: LinkFinding): string => JSON.stringify([page, to, fault]);
