import type { Proposal } from '#core/derive/menu-merge.ts';
import type { MenuAnswer } from '#core/derive/menu-table.ts';
import type { PageId } from '#core/model/ids.ts';
import type { EntryId, Menu } from '#core/model/menu.ts';
import { type Site, maybeNodeAt, nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { labelOf } from '#core/derive/menu.ts';

const titleOf = (site: Site, page: PageId): string => {
  const node = site.nodes.get(page);
  return node ? textIn(node.title, site.settings.language) : 'a page that is not there';
};

/** Why the page is not in a menu, and what would change that. */
export function reasonFor(site: Site, menu: Menu, answer: MenuAnswer, page: PageId): string {
  switch (answer) {
    case 'in':
      return '';
    case 'when needed':
      return 'It is shown only when needed, and is in no menu by itself.';
    case 'off menus':
      return 'The page is off menus.';
    case 'hidden':
      return 'Nobody can open the page: it, or a branch above it, is hidden.';
    case 'closed':
      return 'These visitors may not open the page.';
    case 'for others':
      return 'Its entry is for other visitors.';
    case 'left out here':
      return 'An exception leaves it out of this menu.';
    case 'outside':
      return menu.root === 'section'
        ? 'The menu begins below the top-level page of the section, and this is that page.'
        : `The menu begins below ‘${typeof menu.root === 'object' ? titleOf(site, menu.root.page) : ''}’, and the page is elsewhere.`;
    case 'too deep':
      return `The menu shows ${menu.levels === 1 ? 'one level' : `${menu.levels} levels`}, and the page is deeper.`;
    case 'above not in menu': {
      const { parent } = nodeAt(site, page);
      return `‘${parent === null ? '' : titleOf(site, parent)}’ above it is not in the menu.`;
    }
    case 'leads nowhere':
      return 'The page that this link leads to is hidden or gone. Choose another in the Write lens.';
    case 'proposed':
      return 'It was added after the menu was arranged. See the proposals below.';
    case 'not arranged':
      return 'It is not one of the entries arranged by hand.';
  }
}

const BECAUSE: Readonly<Record<NonNullable<Proposal['because']>, string>> = {
  removed: 'was removed from the tree',
  hidden: 'is hidden',
  'for others': 'is for other visitors',
  'when needed': 'is shown only when needed now',
  'off menus': 'is off menus now',
  'leads nowhere': 'leads nowhere any more',
  'out of range': 'is not in the part of the tree any more that the menu takes',
};

/** A proposal as a sentence: what to do, and what has happened in the tree. */
export function proposalWords(
  site: Site,
  menu: Menu,
  proposal: Proposal,
): { readonly what: string; readonly why: string } {
  const name = `‘${proposal.name}’`;
  switch (proposal.kind) {
    case 'came':
      return {
        what: `Put ${name} ${placeWords(site, menu, proposal)}`,
        why: 'It is new in the menu’s part of the tree.',
      };
    case 'moved':
      return { what: `Move ${name} ${placeWords(site, menu, proposal)}`, why: 'The page was moved in the tree.' };
    case 'went':
      return { what: `Remove ${name}`, why: `The page ${BECAUSE[proposal.because!]}.` };
    case 'renamed':
      return {
        what: `Rename it to ${name}, like the page`,
        why: 'The entry has its own label, and the page was renamed.',
      };
  }
}

function placeWords(site: Site, menu: Menu, { under, after, along }: Proposal): string {
  if (along !== null) return `below ‘${labelOf(site, nodeAt(site, along))}’, which comes in with it`;
  if (after !== null) return `after ‘${entryName(site, menu, after)}’, as in the tree`;
  return under === null ? 'first, as in the tree' : `first below ‘${entryName(site, menu, under)}’, as in the tree`;
}

/** What an entry is called. */
export function entryName(site: Site, menu: Menu, id: EntryId): string {
  const entries = menu.isByHand ? flat(menu.arranged?.entries ?? []) : menu.extras;
  const { language } = site.settings;
  const own = textIn(entries.find((one) => one.id === id)?.label ?? {}, language);
  const node = maybeNodeAt(site, id as string as PageId);
  return own || (node ? labelOf(site, node) : 'an entry');
}

function flat(entries: NonNullable<Menu['arranged']>['entries']): NonNullable<Menu['arranged']>['entries'] {
  return entries.flatMap((one) => [one, ...flat(one.below)]);
}
