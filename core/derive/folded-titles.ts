import type { PageId } from '../model/ids.ts';
import type { Site } from '../model/site.ts';
import { knownBefore } from '../model/steps.ts';
import { textIn } from '../model/texts.ts';
import { folded } from './folded-title.ts';
import { type Outline, outlineOf } from './outline.ts';
import { carriedValues } from './row-runs.ts';

/** Titles with menu labels without upper case and accents, row by row of the outline. Each is made when it is asked for first. */
export interface FoldedTitles {
  readonly at: (row: number) => string;
}
interface Known extends FoldedTitles {
  readonly language: string;
  readonly outline: Outline;
  readonly made: (string | undefined)[];
}
const known = new WeakMap<Site, Known>();
/** So many edits back titles are looked for that can be gone on from. */
const MAX_STEPS = 64;

/** The titles of a site as they are looked through; after an edit those that it did not touch stay. */
export function foldedTitlesOf(site: Site): FoldedTitles {
  let titles = known.get(site);
  if (!titles) {
    const outline = outlineOf(site);
    titles = reading(site, outline, fromBefore(site, outline) ?? new Array<undefined>(outline.nodes.length));
    known.set(site, titles);
  }
  return titles;
}

function reading({ settings: { language } }: Site, outline: Outline, made: (string | undefined)[]): Known {
  const at = (row: number): string => {
    const known = made[row];
    if (known !== undefined) return known;
    const { title, label } = outline.nodes[row]!;
    const [name, short] = [textIn(title, language), textIn(label, language)];
    return (made[row] = folded(short === '' ? name : `${name} ${short}`));
  };
  return { language, outline, made, at };
}

function fromBefore(site: Site, outline: Outline): (string | undefined)[] | null {
  const found = knownBefore(site, (before) => known.get(before), { mostSteps: MAX_STEPS });
  if (found?.known.language !== site.settings.language) return null;
  const { known: before, touched } = found;
  const isSameShape = before.outline.rowOf === outline.rowOf;
  const runs = isSameShape ? null : outline.rowOf.runsFrom(before.outline.rowOf);
  if (runs === null && !isSameShape) return null;
  const made = runs === null ? before.made.slice() : carriedValues(before.made, runs, outline.nodes.length);
  const forget = (id: PageId) => {
    const row = outline.rowOf.get(id);
    if (row !== undefined) made[row] = undefined;
  };
  touched.forEach(forget);
  return made;
}
