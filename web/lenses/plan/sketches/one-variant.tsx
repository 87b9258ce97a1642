import { Check, Trash2 } from 'lucide-react';
import { boxSteps } from '#core/sketch/arrange-boxes.ts';
import { takeVariant } from '#core/arrange/take-variant.ts';
import { type BoxId, MAX_VARIANT_NAME_LENGTH, type Sketch, type Variant, type VariantId } from '#core/model/sketch.ts';
import { rememberContent } from '../../../api/content.ts';
import type { Edit } from '../../../api/site-store.ts';
import { DraftField } from '../../../fields/draft-field.tsx';
import { pages } from '../../../tree/words.ts';
import { Button } from '../../../ui/button.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { BoxList } from './box-list.tsx';
import { toast } from '../../../ui/toast.ts';

/** One variant of a sketch: its boxes, its name, and taking it. */
export function OneVariant({
  sketch,
  variant,
  onShow,
  onBox,
}: {
  readonly sketch: Sketch;
  readonly variant: Variant;
  readonly onShow: (variant: VariantId) => void;
  /** Is told which box is being written; null for none. */
  readonly onBox: (box: BoxId | null) => void;
}) {
  const { store } = useWorkbench();
  const others = sketch.variants.filter(({ id }) => id !== variant.id);
  return (
    <section aria-label={`Variant ${variant.name}`} className="flex min-w-0 flex-col gap-3">
      <BoxList
        key={variant.id}
        boxes={variant.boxes}
        onBox={onBox}
        onEdit={(change) => {
          // As it is now: a field that goes away hands over what was typed in it.
          const now = store.getShown().site.sketches.find(({ id }) => id === sketch.id);
          const boxes = now?.variants.find(({ id }) => id === variant.id)?.boxes;
          if (!boxes) return false;
          // Box by box, so that what a colleague does to others meanwhile stays.
          const of = { sketch: sketch.id, variant: variant.id };
          const edits = boxSteps(boxes, change(boxes)).map((step) => ({ ...of, ...step }) as Edit);
          return edits.length === 0 || store.apply(edits) === null;
        }}
      />
      <TakeVariant sketch={sketch} variant={variant} />
      <div className="flex items-end gap-2">
        <div className="w-48">
          <DraftField
            label="Name of the variant"
            saved={variant.name}
            longest={MAX_VARIANT_NAME_LENGTH}
            onSave={(title) =>
              title.trim() !== '' &&
              store.apply([{ name: 'variant.set', sketch: sketch.id, variant: variant.id, fields: { title } }])
            }
          />
        </div>
        {others.length > 0 && (
          <Button
            look="quiet"
            onClick={() => {
              const gone = store.apply([{ name: 'variant.remove', sketch: sketch.id, variant: variant.id }]);
              if (gone === null) onShow(others[0]!.id);
            }}
          >
            <Trash2 size={15} aria-hidden /> Remove this variant
          </Button>
        )}
      </div>
    </section>
  );
}

/** Takes the variant, with what that does said before. */
function TakeVariant({ sketch, variant }: { readonly sketch: Sketch; readonly variant: Variant }) {
  const { site, store } = useWorkbench();
  if (variant.boxes.length === 0) return null;
  const isTaken = sketch.taken === variant.id;
  const { operations, contents, filled, kept } = takeVariant(site, sketch, variant.id);
  const sections = variant.boxes.length === 1 ? 'this section' : `these ${variant.boxes.length} sections`;
  const take = () => {
    for (const { id, document } of contents) rememberContent(id, document);
    if (store.apply(operations as Edit[], [...contents]) === null && filled.length > 0)
      toast.success(
        `${pages(filled.length)} now ${filled.length === 1 ? 'has' : 'have'} ${sections}, ready to be written.`,
      );
  };
  return (
    <div className="flex flex-col gap-1 rounded-md bg-sunken px-3 py-2.5">
      <div className="flex flex-wrap items-center gap-2">
        {isTaken ? (
          <>
            <p className="flex items-center gap-1 font-medium text-accent">
              <Check size={15} aria-hidden /> This variant is taken
            </p>
            {filled.length > 0 && <Button onClick={take}>Give {pages(filled.length)} its sections</Button>}
            <Button
              look="quiet"
              onClick={() => store.apply([{ name: 'sketch.set', sketch: sketch.id, fields: { taken: null } }])}
            >
              Leave it open again
            </Button>
          </>
        ) : (
          <Button look="main" onClick={take}>
            Take this variant
          </Button>
        )}
      </div>
      <p className="text-small text-quiet">
        {filled.length > 0 &&
          `${pages(filled.length)} without a text ${filled.length === 1 ? 'gets' : 'get'} ${sections}, empty. `}
        {kept.length > 0 &&
          `${pages(kept.length)} ${kept.length === 1 ? 'has a text and keeps' : 'have a text and keep'} it: beside the page you can add what is missing.`}
        {filled.length + kept.length === 0 &&
          'No page has this sketch yet. Select pages in the tree to give it to them.'}
      </p>
    </div>
  );
}
