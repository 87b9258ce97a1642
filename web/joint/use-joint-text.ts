import { startTransition, useEffect, useState, useSyncExternalStore } from 'react';
import { type TextPlace, placeText, textPlaceIn } from '#core/model/text-place.ts';
import { AGAIN_AFTER_MS, isUnknown, wordsOfFault } from '../api/client.ts';
import type { SiteStore } from '../api/site-store.ts';
import { JointText } from './joint-text.ts';

interface Opened {
  readonly text: JointText | null;
  /** Why there is none, in words; '' while it comes. */
  readonly fault: string;
}
const TO_COME: Opened = { text: null, fault: '' };

/**
 * A text as several write it, for as long as it is on the screen. @param beginning another number opens it anew
 */
export function useJointText(store: SiteStore, place: TextPlace, beginning: number): Opened {
  const [opened, setOpened] = useState(TO_COME);
  const name = placeText(place);
  useEffect(() => {
    let isGone = false;
    let text: JointText | null = null;
    let timer: number | undefined;
    const open = () =>
      JointText.open(store, textPlaceIn(name)).then(
        (made) => {
          text = made;
          if (isGone) void made.leave();
          // Making the editor takes as long as all else beside it: it comes after what is beside it shows.
          else startTransition(() => setOpened({ text: made, fault: '' }));
        },
        (fault: unknown) => {
          if (isGone) return;
          if (isUnknown(fault)) timer = window.setTimeout(() => void open(), AGAIN_AFTER_MS);
          else setOpened({ text: null, fault: wordsOfFault(fault) });
        },
      );
    void open();
    return () => {
      isGone = true;
      window.clearTimeout(timer);
      void text?.leave();
      setOpened(TO_COME);
    };
  }, [store, name, beginning]);
  return opened;
}

/** How it goes with a text. */
export const useJointShown = (text: JointText) => useSyncExternalStore(text.subscribe, text.getShown);
