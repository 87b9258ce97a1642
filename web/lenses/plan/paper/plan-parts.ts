import { SCREEN_WIDTHS, type ScreenWidth } from '#core/drawing/screen-widths.ts';
import { mapNodes } from '#core/drawing/map-nodes.ts';
import { mapPicture } from '#core/drawing/map-picture.ts';
import { sketchSheet } from '#core/drawing/sketch-sheet.ts';
import { touchedBySketch } from '#core/derive/touched.ts';
import type { PageId } from '#core/model/ids.ts';
import { planOf } from '#core/model/plan.ts';
import { type Sketch, type Variant, sketchOf, variantThatHolds } from '#core/model/sketch.ts';
import { type Site, nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { drawSketch } from '#core/sketch/draw-sketch.ts';
import { surroundOf } from '#core/sketch/surround.ts';
import { signsOf } from '../../../map/export/node-signs.ts';
import type { PdfPart } from '../../../map/export/write-pdf.ts';
import { measure } from '../../../map/measure.ts';
import { layoutApart } from '../../../map/use-map-layout.ts';
import type { Workbench } from '../../../workbench/workbench-context.tsx';

/** How wide a desktop and a telephone are drawn on a sheet, and how high what is written into them, in pixels at full size. */
const WIDE = 860;
const NARROW = 280;
const LETTER = 16;
/** So many pages of a sketch are named on its sheet. */
const MAX_NAMED = 12;

/** A sheet of the plan: a sketch, and the pages that it is of; the first one stands for them all. */
export interface SketchSheet {
  readonly sketch: Sketch;
  readonly pages: readonly PageId[];
}

/** The sheets for what is sketched: one for each page in tree order, or one for each sketch. */
export function sheetsOfSketches(
  { site, derived }: Pick<Workbench, 'site' | 'derived'>,
  isEachPage: boolean,
): SketchSheet[] {
  if (!isEachPage)
    return site.sketches.map((sketch) => ({
      sketch,
      pages: [...touchedBySketch(site, derived.outline, sketch.id).keys()],
    }));
  return derived.outline.nodes.flatMap((node): SketchSheet[] => {
    const sketch = sketchOf(site, node);
    return sketch ? [{ sketch, pages: [node.id] }] : [];
  });
}

/** The map of the whole tree, then the sheets. */
export async function planParts(
  workbench: Workbench,
  sheets: readonly SketchSheet[],
  hasVariants: boolean,
): Promise<PdfPart[]> {
  const { site, derived, lensParts } = workbench;
  const rows = [...derived.outline.nodes.keys()];
  const nodes = mapNodes({
    site,
    derived,
    rows,
    marks: null,
    noteOf: lensParts.notesOf?.(workbench),
    adding: null,
    measure,
  });
  const layout = await layoutApart(nodes, 'across');
  const all = { ...workbench, open: new Set(rows.map((row) => derived.outline.nodes[row]!.id)) };
  const map = mapPicture(nodes, layout, (index) => signsOf(all, nodes, index), null);
  return [
    { picture: map, head: site.settings.name, isTiled: false },
    ...sheets.map((sheet) => sheetPart(site, sheet, hasVariants)),
  ];
}

function sheetPart(site: Site, { sketch, pages }: SketchSheet, hasVariants: boolean): PdfPart {
  const [page = null] = pages;
  const title = page === null ? sketch.name : textIn(nodeAt(site, page).title, site.settings.language);
  const held = variantThatHolds(sketch);
  const shown = held ? [held] : hasVariants ? sketch.variants : sketch.variants.slice(0, 1);
  const surround = surroundOf(site, page);
  const drawing = (variant: Variant, at: ScreenWidth, width: number, name: string) => ({
    name,
    width,
    drawn: drawSketch(variant.boxes, surround, at, (LETTER * SCREEN_WIDTHS[at]) / width),
  });
  const drawings = shown.flatMap((variant) => [
    drawing(variant, 'desktop', WIDE, shown.length > 1 ? `Variant ${variant.name}` : 'Desktop'),
    ...(shown.length === 1 ? [drawing(variant, 'telephone', NARROW, 'Telephone')] : []),
  ]);
  const paragraphs = [
    pages.length === 1 ? planOf(nodeAt(site, page!)).purpose : namesOf(site, pages),
    held === null && sketch.variants.length > 1 ? 'No variant is chosen yet.' : '',
  ].filter((one) => one !== '');
  return {
    picture: sketchSheet({ paragraphs }, drawings),
    head: pages.length === 1 ? title : sketch.name,
    isTiled: false,
  };
}

/** The pages of a sketch by their titles, as many as have room. */
function namesOf(site: Site, pages: readonly PageId[]): string {
  if (pages.length === 0) return 'No page has it yet.';
  const names = pages.slice(0, MAX_NAMED).map((page) => textIn(nodeAt(site, page).title, site.settings.language));
  const more = pages.length - names.length;
  return `For ${names.join(', ')}${more > 0 ? ` and ${more} more` : ''}.`;
}
