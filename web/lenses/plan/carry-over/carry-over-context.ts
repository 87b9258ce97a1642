import { createContext, useContext } from 'react';
import type { CarryOverPair, OldSiteAnswer } from '#contract/old-site.ts';
import type { CarryOverSection, SectionsOf } from '#core/carryover/sections.ts';
import type { AcceptedPair, Settled } from '#core/carryover/settle.ts';
import type { PageId } from '#core/model/ids.ts';

/** The height of a row of either list, in pixels. */
export const ROW = 44;
/** Where an old page is dropped that no planned page takes over. */
export const LET_GO = 'let-go';

export type OldPageWire = OldSiteAnswer['pages'][number];

/** What is chosen: an old page, with the planned page beside it where it was chosen by a pair. */
export interface Chosen {
  readonly old: string | null;
  readonly planned: PageId | null;
}

/** A line between the two lists. */
export interface Line {
  readonly old: string;
  readonly planned: PageId;
  readonly look: 'accepted' | 'sure' | 'unsure';
  readonly pair: CarryOverPair | null;
}

export interface CarryOver {
  readonly pages: readonly OldPageWire[];
  readonly settled: Settled;
  /** Proposals that are still open, the surest first. */
  readonly proposals: readonly CarryOverPair[];
  readonly acceptFrom: number;
  readonly lines: readonly Line[];
  readonly isMatching: boolean;
  /** The sections that are gone through one by one, and the one that is shown; none while all is shown. */
  readonly sections: readonly CarryOverSection[];
  readonly section: CarryOverSection | null;
  readonly sectionsOf: SectionsOf | null;
  readonly goThrough: (of: SectionsOf | null, key?: string) => void;
  /** A pair as it is accepted. */
  readonly pairOf: (old: string, planned: PageId) => AcceptedPair;
  readonly chosen: Chosen;
  readonly choose: (chosen: Chosen) => void;
}

const Context = createContext<CarryOver | null>(null);
export const CarryOverProvider = Context.Provider;

/** @throws where a component stands outside of the carry-over. */
export function useCarryOverState(): CarryOver {
  const state = useContext(Context);
  if (!state) throw new Error('useCarryOverState is for components inside the carry-over.');
  return state;
}
