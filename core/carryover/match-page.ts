/**
 * A page as the matching sees it, of the old site or of the plan: the two are alike, so that matching the one with the
 * other, and the other with the one, gives the same pairs.
 */
export interface MatchPage {
  /** The old address, or the id of the planned page. */
  readonly key: string;
  readonly title: string;
  /** The address: of an old page as it is, of a planned one as it will be. */
  readonly address: string;
  /** What stands above: titles of the pages above, where they are known. */
  readonly above: readonly string[];
  readonly headings: readonly string[];
  /** Its description and its text. */
  readonly text: string;
}
