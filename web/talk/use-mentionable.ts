import { useMemo } from 'react';
import type { SiteKey } from '#core/model/ids.ts';
import type { Mentionable } from '#core/talk/mentions.ts';
import { useColleagues } from '../api/people.ts';

const NOBODY: readonly Mentionable[] = [];

/** Everybody who can be mentioned on a site, by their names. */
export function useMentionable(site: SiteKey): readonly Mentionable[] {
  const answer = useColleagues(site);
  return useMemo(() => {
    if (!answer) return NOBODY;
    const others = answer.lookAfterAll.filter((name) => !answer.colleagues.some((one) => one.name === name));
    return [
      ...answer.colleagues.filter(({ state }) => state !== 'suspended').map(({ id, name }) => ({ id, name })),
      ...others.map((name) => ({ id: name, name })),
    ].sort((a, b) => a.name.localeCompare(b.name));
  }, [answer]);
}
