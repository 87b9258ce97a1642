import type { PairSignals, WordWeights } from './pair-signals.ts';
import type { PreparedPage } from './prepare-pages.ts';

/** So much alike, texts speak for a pair by themselves. */
const TEXT_SPEAKS = 0.3;
/** As much as a word that no other page has, or several that few have. */
const RARE_SPEAKS = 0.33;
/** The two pages themselves have the word in their titles: one more and it is no mark of theirs. */
const OWN_TITLES = 2;

/**
 * Whether hardly anything says that two pages belong together: their titles share no word, or a single one that other pages have in
 * theirs too, such as ‘collection’, and their texts, where there are any, do not say so either; or one of the two is a home page.
 */
export function isThin(a: PreparedPage, b: PreparedPage, signals: PairSignals, weights: WordWeights): boolean {
  if (a.isHome !== b.isHome) return true;
  if (signals.home === 1 || signals.sameTitle === 1 || signals.slip === 1) return false;
  if (signals.text >= TEXT_SPEAKS || signals.rareWords >= RARE_SPEAKS) return false;
  const shared = a.title.filter((word) => b.title.includes(word));
  return shared.length === 0 || (shared.length === 1 && weights.inTitles(shared[0]!) > OWN_TITLES);
}
