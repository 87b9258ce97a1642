import { useMemo } from 'react';
import { type PowerChange, powerChanges } from '#core/people/power-changes.ts';
import { powersOf } from '#core/people/powers.ts';
import type { Site } from '#core/model/site.ts';
import { useColleagues } from '../api/people.ts';
import { pages } from '../tree/words.ts';
import { useWorkbench } from './workbench-context.tsx';

/** So many colleagues are named. */
const MOST_NAMED = 2;

/** What colleagues may do more, or less, after an edit that moves pages into branches of theirs, or out of them. */
export function usePeopleChanges(before: Site, after: Site): readonly string[] {
  const { guest } = useWorkbench();
  const answer = useColleagues(guest === null ? before.key : null);
  return useMemo(() => {
    if (!answer || before.children === after.children) return [];
    const { colleagues, roles } = answer;
    const said = colleagues.flatMap(({ name, state, roles: rolesAt }) => {
      if (state === 'suspended') return [];
      const changes = powerChanges(before, after, powersOf(roles, rolesAt));
      return changes.length === 0 ? [] : [`${name} may do ${moreOrLess(changes)} on ${pages(changes.length)}`];
    });
    const more = said.length - MOST_NAMED;
    return more > 0 ? [...said.slice(0, MOST_NAMED), `and so for ${more} more of your colleagues`] : said;
  }, [answer, before, after]);
}

function moreOrLess(changes: readonly PowerChange[]): string {
  const isMore = changes.some(({ gained }) => gained !== 0);
  const isLess = changes.some(({ lost }) => lost !== 0);
  return isMore && isLess ? 'other things' : isMore ? 'more' : 'less';
}
