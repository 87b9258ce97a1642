import { pathOfOldAddress } from '#core/carryover/old-address.ts';
import { titleParts } from '#core/carryover/prepare-pages.ts';
import type { Reason } from '#core/carryover/match.ts';
import type { OldPageWire } from './carry-over-context.ts';

/** The title of an old page without the site's name, or its address where it has none. */
export const titleOfOld = ({ title, address }: OldPageWire): string =>
  titleParts(title)[0]!.trim() || pathOfOldAddress(address);

export const REASON_WORDS: Readonly<Record<Reason, string>> = {
  'same-title': 'the same title',
  title: 'a like title',
  address: 'a like address',
  text: 'texts with the same words',
  heading: 'a heading with that title',
  section: 'the same part of the site',
};

export const percent = (share: number): string => `${Math.round(share * 100)} %`;
