import type { PageId } from '../model/ids.ts';
import type { Site } from '../model/site.ts';
import { type BoxId, type Variant, sketchOf, variantThatHolds } from '../model/sketch.ts';
import type { Outline } from './outline.ts';

/** The boxes of sketches that stand in the texts of pages: by page, with whether each is written. */
export type PlannedInTexts = ReadonlyMap<PageId, ReadonlyMap<BoxId, boolean>>;
export const NOTHING_PLANNED: PlannedInTexts = new Map();

/** How far the sections of sketches are, row by row of the outline. */
export interface SketchTotals {
  /** How many sections the row's own page is to have; -1 for one without a sketch, or whose sketch is still open. */
  readonly planned: Int32Array;
  /** How many of these are written. */
  readonly written: Int32Array;
  /** The same with all below: sketches that are open count for nothing. */
  readonly plannedInBranch: Int32Array;
  readonly writtenInBranch: Int32Array;
  /** How many pages of the branch have a sketch, and how many of these sketches wait for a choice. */
  readonly sketched: Int32Array;
  readonly open: Int32Array;
}

/** The variant by which a page is made; undefined where its sketch is still open, null where it has none. */
export function variantOf(site: Site, node: Parameters<typeof sketchOf>[1]): Variant | null | undefined {
  const sketch = sketchOf(site, node);
  return sketch && (variantThatHolds(sketch) ?? undefined);
}

/** Counts what is planned and what is written. One pass from the last row up. */
export function sketchTotals(site: Site, { nodes, parent }: Outline, texts: PlannedInTexts): SketchTotals {
  const count = nodes.length;
  const planned = new Int32Array(count).fill(-1);
  const written = new Int32Array(count);
  const plannedInBranch = new Int32Array(count);
  const writtenInBranch = new Int32Array(count);
  const sketched = new Int32Array(count);
  const open = new Int32Array(count);
  for (let row = count - 1; row >= 0; row--) {
    const node = nodes[row]!;
    const variant = variantOf(site, node);
    if (variant !== null) sketched[row]!++;
    if (variant === undefined) open[row]!++;
    if (variant) {
      const inText = texts.get(node.id);
      planned[row] = variant.boxes.length;
      written[row] = inText ? variant.boxes.filter(({ id }) => inText.get(id) === true).length : 0;
      plannedInBranch[row]! += planned[row]!;
      writtenInBranch[row]! += written[row]!;
    }
    const above = parent[row]!;
    if (above === -1) continue;
    plannedInBranch[above]! += plannedInBranch[row]!;
    writtenInBranch[above]! += writtenInBranch[row]!;
    sketched[above]! += sketched[row]!;
    open[above]! += open[row]!;
  }
  return { planned, written, plannedInBranch, writtenInBranch, sketched, open };
}
