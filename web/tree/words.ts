import type { LinkFault, LinkFinding } from '#core/checks/link-findings.ts';
import type { MenuAnswer } from '#core/derive/menu-table.ts';
import type { EntryOrder, Menu } from '#core/model/menu.ts';
import type { Side } from '#core/model/place.ts';
import { ASPECT_WORDS } from '#core/model/node.ts';
import type { Difference, State } from '#core/derive/state.ts';
import type { PageId } from '#core/model/ids.ts';
import { isPractice } from '#core/model/practice.ts';
import type { Site } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { numberWords } from '../ui/number-words.ts';

/** The words for what the core derives. */
/** How a page stands: what visitors have of it, or that it is for practice, so that they never have it. */
export type Standing = State | 'practice';
export const standingOf = (site: Site, page: PageId, state: State): Standing =>
  isPractice(site, page) ? 'practice' : state;
export const STATE_WORDS: Readonly<Record<Standing, string>> = {
  practice: 'Practice',
  draft: 'Draft',
  live: 'Live',
  edited: 'Live, edited',
  retired: 'Retired',
};
export const STATE_MEANING: Readonly<Record<Standing, string>> = {
  practice: 'It never goes live, and whoever writes on the site may change it.',
  draft: 'It has never been live.',
  live: 'Visitors have it as it is drafted.',
  edited: 'Visitors have an earlier version; the edits wait for a release.',
  retired: 'It was live and has been taken down.',
};
export const MENU_WORDS: Readonly<Record<Exclude<MenuAnswer, 'in'>, string>> = {
  hidden: 'Hidden',
  closed: 'Closed to them',
  'for others': 'For other visitors',
  'when needed': 'Shown only when needed',
  'off menus': 'Off menus',
  'leads nowhere': 'Leads nowhere',
  'left out here': 'Left out here',
  outside: 'Outside the menu',
  'too deep': 'Too deep',
  'above not in menu': 'Page above is not in the menu',
  proposed: 'Proposed',
  'not arranged': 'Not added',
};
/** The place of an entry that a menu gives no other one, by the order that it follows. */
export const OWN_PLACE_WORDS: Readonly<Record<EntryOrder, string>> = {
  tree: 'As in the tree',
  alphabet: 'By the alphabet',
  date: 'By its day',
};
/** "Main menu", and "Side menu" for one that is called so already. */
export const menuName = ({ name }: Pick<Menu, 'name'>): string => (/menu$/i.test(name) ? name : `${name} menu`);
export const DIFFERENCE_WORDS: Readonly<Record<Difference, string>> = {
  new: 'New',
  removed: 'Removed',
  ...ASPECT_WORDS,
  place: 'Moved',
  order: 'Order',
};

/** The places that a page offers. */
export const SIDES: readonly { readonly value: Side; readonly words: string }[] = [
  { value: 'inside', words: 'Inside it, last' },
  { value: 'before', words: 'Before it' },
  { value: 'after', words: 'After it' },
];

export const pages = (count: number): string => (count === 1 ? '1 page' : `${numberWords(count)} pages`);
export const addresses = (count: number): string => (count === 1 ? '1 address changes' : `${count} addresses change`);
/** "4 pages", "4 pages and the 11 below them": so many are meant, with what goes along. */
export const withBelow = (count: number, below: number): string =>
  below === 0
    ? pages(count)
    : `${pages(count)} and the ${below === 1 ? 'one' : below} below ${count === 1 ? 'it' : 'them'}`;
/** "", " and the page below it", " and the 4 pages below it". */
export { andBelow } from '#core/operations/definition.ts';

/** What is wrong, in the few words of a cell. */
export const FAULT_WORDS: Readonly<Record<LinkFault, string>> = {
  'not there': 'Leads nowhere',
  hidden: 'Leads to a hidden page',
  closed: 'Closed to readers',
  'no heading': 'No such heading',
  missing: 'Outside page not found',
  'no answer': 'Outside page does not answer',
  moved: 'Outside page moved',
};

/** What a link leads to, in short. */
export function linkTargetWords(site: Site, { to }: LinkFinding): string {
  if ('address' in to) return to.address;
  const node = site.nodes.get(to.page);
  const title = node ? textIn(node.title, site.settings.language) : 'A page that is gone';
  return to.heading === null ? title : `${title} › ${to.heading}`;
}

/** "menus", "menus and facts", "menus, facts and labels". */
export const listOf = (words: readonly string[]): string =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;

/** What a page is called that has no kind. */
export const NO_KIND = 'An ordinary page';
