import { nanoid } from 'nanoid';
import type { TextPlace } from '#core/model/text-place.ts';
import type { JointNews } from '#contract/joint-text.ts';

/** This tab, to know what it told itself. */
export const TAB = nanoid();

/** A text that is written here and perhaps by others, as the site sees it. */
export interface OpenText {
  readonly place: TextPlace;
  /** Whether all that was written here is saved. */
  readonly isSettled: boolean;
  /** Whether something that was written here is not taken, so that it is nowhere in the site. */
  readonly isRefused: boolean;
  readonly settle: () => void;
  /** Sends what waits at once. Whether all of it arrives though the page is closed. */
  readonly sendBeforeLeaving: () => boolean;
  readonly catchUp: () => void;
  readonly hear: (news: JointNews) => void;
  readonly forget: (tab: string) => void;
}
