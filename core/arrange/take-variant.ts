import { type TextDocument, contentIdOf } from '../model/content.ts';
import type { ContentId, PageId } from '../model/ids.ts';
import type { SketchId } from '../model/plan.ts';
import { type Sketch, type VariantId, sketchOf } from '../model/sketch.ts';
import type { Site } from '../model/site.ts';
import type { Operation } from '../operations/operation.ts';
import { withPlaces } from '../sketch/start-writing.ts';

/** What taking a variant does. */
export interface TakenVariant {
  readonly operations: Operation[];
  /** The text that pages get, where any do. */
  readonly contents: readonly { readonly id: ContentId; readonly document: TextDocument }[];
  /** Pages that get a place for each box, and those that have a text and keep it. */
  readonly filled: readonly PageId[];
  readonly kept: readonly PageId[];
}

/** Takes a variant of a sketch: pages without a text get a place for each of its boxes. */
export function takeVariant(site: Site, { id, variants, taken }: Sketch, variant: VariantId): TakenVariant {
  const document = withPlaces(null, variants.find((one) => one.id === variant)?.boxes ?? []);
  const filled: PageId[] = [];
  const kept: PageId[] = [];
  for (const node of pagesOf(site, id)) {
    (node.content !== null || document === null ? kept : filled).push(node.id);
  }
  const content = document && filled.length > 0 ? { id: contentIdOf(document), document } : null;
  return {
    operations: [
      ...(taken === variant ? [] : [{ name: 'sketch.set' as const, sketch: id, fields: { taken: variant } }]),
      ...(content
        ? filled.map((page): Operation => ({ name: 'page.set', page, fields: { content: content.id } }))
        : []),
    ],
    contents: content ? [content] : [],
    filled,
    kept,
  };
}

const pagesOf = (site: Site, sketch: SketchId) =>
  [...site.nodes.values()].filter((node) => node.removedWith === null && sketchOf(site, node)?.id === sketch);
