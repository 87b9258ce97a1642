import { pathOfOldAddress } from '#core/carryover/old-address.ts';
import { titleParts } from '#core/carryover/prepare-pages.ts';
import type { Reason } from '#core/carryover/reasons.ts';
import type { OldPageWire } from './carry-over-context.ts';

/** The title of an old page without the site's name, or its address where it has none. */
export const titleOfOld = ({ title, address }: OldPageWire): string =>
  titleParts(title)[0]!.trim() || pathOfOldAddress(address);

export const REASON_WORDS: Readonly<Record<Reason, string>> = {
  home: 'both are home pages',
  'same-title': 'the same title',
  title: 'a like title',
  address: 'a like address',
  text: 'texts with the same words',
  heading: 'a heading with that title',
  section: 'the same part of the site',
};

/** How sure a proposal is; none is beyond doubt before somebody has accepted it. */
export const confidenceWords = (confidence: number): string => percent(Math.min(0.99, confidence));

export const percent = (share: number): string => `${Math.round(share * 100)} %`;
