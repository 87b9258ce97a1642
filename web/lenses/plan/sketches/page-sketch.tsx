import { LayoutTemplate, PenLine, Plus } from 'lucide-react';
import { withPlaces, missingIn } from '#core/sketch/start-writing.ts';
import { contentIdOf } from '#core/model/content.ts';
import type { PageId } from '#core/model/ids.ts';
import { type PlanChange, type SketchId, planOf } from '#core/model/plan.ts';
import { sketchOf, variantThatHolds } from '#core/model/sketch.ts';
import { nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { surroundOf } from '#core/sketch/surround.ts';
import { rememberContent, useContent } from '../../../api/content.ts';
import { newBoxId, newSketchId, newVariantId } from '../../../api/site-store.ts';
import { copiedBoxes } from '#core/sketch/arrange-boxes.ts';
import { touchedBySketch } from '#core/derive/touched.ts';
import { SketchPicture } from '../../../sketches/sketch-picture.tsx';
import { Button } from '../../../ui/button.tsx';
import { Choice } from '../../../ui/field.tsx';
import { useWidth } from '../../../ui/use-width.ts';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { FIRST_VARIANT } from './sketch-kind.tsx';

/** The sketch of a page: what it will contain, and how much of that is written. */
export function PageSketch({ page, onSet }: { readonly page: PageId; readonly onSet: (change: PlanChange) => void }) {
  const { site, derived, store, setBeside } = useWorkbench();
  const node = nodeAt(site, page);
  const sketch = sketchOf(site, node);
  const named = planOf(node).sketch;
  const ofKind = sketch !== null && sketch.id !== named;
  const open = (id: SketchId) => setBeside({ kind: 'sketches', id });
  const isShared = sketch !== null && touchedBySketch(site, derived.outline, sketch.id).size > 1;
  const begin = () => {
    const made = newSketchId();
    const title = textIn(node.title, site.settings.language);
    const from = sketch?.variants ?? [{ name: FIRST_VARIANT, boxes: [] }];
    const variants = from.map(({ name, boxes }) => ({
      id: newVariantId(),
      name,
      boxes: copiedBoxes(boxes, newBoxId),
    }));
    const fault = store.apply([
      { name: 'sketch.add', sketch: made, title, variants },
      { name: 'page.set', page, fields: { plan: { sketch: made } } },
    ]);
    if (fault === null) open(made);
  };
  return (
    <section aria-labelledby="page-sketch" className="flex flex-col gap-2 border-t border-rule pt-4">
      <h3 id="page-sketch" className="font-display text-large font-semibold">
        Sketch
      </h3>
      {sketch && <Drawn page={page} onOpen={() => open(sketch.id)} />}
      {site.sketches.length > 0 && (
        <Choice
          label="Which sketch"
          value={named !== null && sketch ? named : ''}
          onChange={(event) => onSet({ sketch: event.target.value === '' ? null : (event.target.value as SketchId) })}
        >
          <option value="">{ofKind ? `That of its kind: ${sketch.name}` : 'None'}</option>
          {site.sketches.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </Choice>
      )}
      <div className="flex flex-wrap gap-2">
        {sketch && (
          <Button onClick={() => open(sketch.id)}>
            <LayoutTemplate size={15} aria-hidden /> Open the sketch
          </Button>
        )}
        {(sketch === null || isShared) && (
          <Button
            title={sketch ? 'With its variants and boxes; the other pages keep the one that they have' : undefined}
            onClick={begin}
          >
            <Plus size={15} aria-hidden /> {sketch ? 'Copy it for this page' : 'Sketch this page'}
          </Button>
        )}
      </div>
    </section>
  );
}

function Drawn({ page, onOpen }: { readonly page: PageId; readonly onOpen: () => void }) {
  const { site, planned, store } = useWorkbench();
  const [measure, room] = useWidth();
  const node = nodeAt(site, page);
  const sketch = sketchOf(site, node)!;
  const holds = variantThatHolds(sketch);
  const shown = holds ?? sketch.variants[0];
  const text = useContent(site.key, node.content);
  if (!shown) return <p className="text-quiet">‘{sketch.name}’ has no variant.</p>;
  const inText = planned.get(page);
  const written = shown.boxes.filter(({ id }) => inText?.get(id) === true).length;
  const missing =
    inText || node.content === null
      ? missingIn(node.content === null ? null : (text ?? null), shown.boxes)
      : shown.boxes;
  const addMissing = () => {
    const document = withPlaces(node.content === null ? null : text!, shown.boxes)!;
    const id = contentIdOf(document);
    rememberContent(id, document);
    store.apply([{ name: 'page.set', page, fields: { content: id } }], [{ id, document }]);
  };
  return (
    <div className="flex flex-col gap-2">
      <p>
        {holds === null ? (
          <>
            {sketch.variants.length} variants; <span className="font-medium text-attention">none is chosen yet</span>
          </>
        ) : (
          <>
            <span className="font-medium">
              {written} of {holds.boxes.length} sections written
            </span>
            {missing.length > 0 && missing.length < holds.boxes.length && (
              <span className="text-quiet">, {missing.length} not in the text</span>
            )}
          </>
        )}
      </p>
      <div ref={measure}>
        <button
          type="button"
          title="Open the sketch"
          onClick={onOpen}
          className="block max-h-72 w-full overflow-hidden rounded-md border border-edge text-left hover:border-ink"
        >
          <SketchPicture
            boxes={shown.boxes}
            surround={surroundOf(site, page)}
            at="desktop"
            room={room - 2}
            name={`The sketch ‘${sketch.name}’`}
          />
        </button>
      </div>
      {holds && missing.length > 0 && (node.content === null || text) && (
        <div>
          <Button onClick={addMissing} title="Empty, after what is there, for writing at the desk">
            <PenLine size={15} aria-hidden /> Add {missing.length === 1 ? '1 section' : `${missing.length} sections`} to
            the text
          </Button>
        </div>
      )}
    </div>
  );
}
