import { useEffect, useState } from 'react';
import type { SiteKey } from '#core/model/ids.ts';
import { wordsOfFault } from '../api/client.ts';
import { startWalk } from '../api/visitors.ts';

type Asked = Parameters<typeof startWalk>[1];

/** The address of a walk; asked for again when who, what or when changes. */
export function useWalk(
  key: SiteKey,
  { isDraft, release, who, moment, hasPassphrases }: Asked,
): { address: string | null; fault: string | null } {
  const [state, setState] = useState<{ address: string | null; fault: string | null }>({ address: null, fault: null });
  useEffect(() => {
    let isGone = false;
    startWalk(key, { isDraft, release, who, moment, hasPassphrases }).then(
      (address) => !isGone && setState({ address, fault: null }),
      (problem: unknown) => !isGone && setState({ address: null, fault: wordsOfFault(problem) }),
    );
    return () => {
      isGone = true;
    };
  }, [key, isDraft, release, who, moment, hasPassphrases]);
  return state;
}
