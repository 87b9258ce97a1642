import { useEffect, useEffectEvent, useState } from 'react';

interface Draft {
  readonly value: string;
  readonly isTyping: boolean;
  readonly type: (text: string) => void;
  /** Hands over what was typed, if it differs. */
  readonly commit: () => void;
  readonly cancel: () => void;
}

/**
 * A field's text while it is being typed. What others change comes in only while nobody types here, so that nothing
 * typed is ever replaced under the hands. A field that goes away hands over what was typed in it.
 */
export function useDraft(saved: string, save: (text: string) => void): Draft {
  const [typed, setTyped] = useState<string | null>(null);
  const keep = useEffectEvent(() => typed !== null && typed !== saved && save(typed));
  useEffect(() => () => void keep(), []);
  return {
    value: typed ?? saved,
    isTyping: typed !== null,
    type: setTyped,
    commit: () => {
      if (typed !== null && typed !== saved) save(typed);
      setTyped(null);
    },
    cancel: () => setTyped(null),
  };
}
