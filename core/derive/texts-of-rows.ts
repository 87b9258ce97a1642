import type { SiteNode } from '../model/node.ts';
import type { Settings, Site } from '../model/site.ts';
import { knownBefore } from '../model/steps.ts';
import { type Outline, outlineOf } from './outline.ts';
import { carriedValues } from './row-runs.ts';

/** A text of each node, row by row of the outline. */
export interface TextsOfRows {
  readonly at: (row: number) => string;
}
interface Known extends TextsOfRows {
  readonly language: Settings['language'];
  readonly outline: Outline;
  readonly made: (string | undefined)[];
}
/** So many edits back texts are looked for that can be gone on from. */
const MAX_STEPS = 64;

/**
 * A text that follows from a node and the site's language alone, for all nodes of any site: each is made when it is asked for first, and
 * after an edit those that it did not touch stay.
 */
export function textsOfRows(
  make: (node: SiteNode, language: Settings['language']) => string,
): (site: Site) => TextsOfRows {
  const known = new WeakMap<Site, Known>();
  const fromBefore = (site: Site, outline: Outline): (string | undefined)[] | null => {
    const found = knownBefore(site, (before) => known.get(before), { mostSteps: MAX_STEPS });
    if (found?.known.language !== site.settings.language) return null;
    const { known: before, touched } = found;
    const runs = outline.rowOf.runsFrom(before.outline.rowOf);
    if (runs === null) return null;
    const made = carriedValues(before.made, runs, outline.nodes.length);
    for (const id of touched) {
      const row = outline.rowOf.get(id);
      if (row !== undefined) made[row] = undefined;
    }
    return made;
  };
  return (site) => {
    const here = known.get(site);
    if (here) return here;
    const outline = outlineOf(site);
    const { language } = site.settings;
    const made = fromBefore(site, outline) ?? new Array<string | undefined>(outline.nodes.length);
    const at = (row: number): string => (made[row] ??= make(outline.nodes[row]!, language));
    const texts = { language, outline, made, at };
    known.set(site, texts);
    return texts;
  };
}
