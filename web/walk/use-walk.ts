import { useEffect, useState } from 'react';
import type { SiteKey } from '#core/model/ids.ts';
import type { Look } from '#core/model/look.ts';
import { wordsOfFault } from '../api/client.ts';
import { startWalk } from '../api/visitors.ts';

type Asked = Parameters<typeof startWalk>[1];

/** The address of a walk; asked for again when who, what or when changes. */
export function useWalk(
  key: SiteKey,
  { isDraft, release, who, moment, hasPassphrases, look = null, screen = null }: Asked,
): { address: string | null; fault: string | null } {
  const [state, setState] = useState<{ address: string | null; fault: string | null }>({ address: null, fault: null });
  // Looks that say the same are the same.
  const inLook = JSON.stringify(look);
  useEffect(() => {
    let isGone = false;
    const asked = { isDraft, release, who, moment, hasPassphrases, look: JSON.parse(inLook) as Look | null, screen };
    startWalk(key, asked).then(
      (address) => !isGone && setState({ address, fault: null }),
      (problem: unknown) => !isGone && setState({ address: null, fault: wordsOfFault(problem) }),
    );
    return () => {
      isGone = true;
    };
  }, [key, isDraft, release, who, moment, hasPassphrases, inLook, screen]);
  return state;
}
