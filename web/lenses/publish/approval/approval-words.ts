import type { ApprovalStanding } from '#core/approval/standing.ts';
import type { DecidedBy } from '#core/approval/rule.ts';
import type { PageId } from '#core/model/ids.ts';
import { type Site, maybeNodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import type { ColleaguesAnswer } from '#contract/people.ts';
import type { Proposal } from '#contract/approval.ts';
import { listOf } from '../../../tree/words.ts';

export const STANDING_WORDS: Readonly<Record<ApprovalStanding, string>> = {
  free: '–',
  needed: 'Needed',
  waiting: 'Waiting',
  changed: 'Changed since',
  approved: 'Approved',
};

export const STATE_WORDS: Readonly<Record<Proposal['state'], string>> = {
  open: 'Open',
  returned: 'Returned',
  withdrawn: 'Withdrawn',
  live: 'Live',
};

/** Who decides, in words: "2 of Editors", "Mira Sand". */
export function decidersWords(by: DecidedBy, count: number, people: ColleaguesAnswer | undefined): string {
  if ('role' in by) {
    const role = people?.roles.find(({ id }) => id === by.role)?.name ?? 'a role that was removed';
    return count === 1 ? `one ${role}` : `${count} with the role ${role}`;
  }
  const names = by.people.map((id) => people?.colleagues.find((one) => one.id === id)?.name ?? 'somebody');
  if (names.length <= count) return listOf(names);
  return `${count} of ${listOf(names)}`;
}

export const placeWords = (site: Site, page: PageId | null): string => {
  if (page === null) return 'The whole site';
  const node = maybeNodeAt(site, page);
  return node ? `‘${textIn(node.title, site.settings.language)}’ and below` : 'A page that was removed';
};
