import { Check, Plus } from 'lucide-react';
import { copiedBoxes } from '#core/sketch/arrange-boxes.ts';
import { MAX_VARIANTS, type Sketch, type Variant, type VariantId } from '#core/model/sketch.ts';
import type { SketchWidth } from '#core/sketch/draw-sketch.ts';
import type { Surround } from '#core/sketch/surround.ts';
import { newBoxId, newVariantId } from '../../../api/site-store.ts';
import { SketchPicture } from '../../../sketches/sketch-picture.tsx';
import { WidthChoice } from '../../../sketches/width-choice.tsx';
import { Button } from '../../../ui/button.tsx';
import { useWidth } from '../../../ui/use-width.ts';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';

/** Drawings stand beside each other; each is so wide at least, and a telephone so wide at most, in pixels. */
const NARROWEST = 170;
const TELEPHONE = 210;
const GAP = 12;

/** The variants of a sketch, drawn side by side; one is opened by pressing its name. */
export function Variants({
  sketch,
  surround,
  at,
  onWidth,
  shown,
  onShow,
}: {
  readonly sketch: Sketch;
  readonly surround: Surround;
  readonly at: SketchWidth;
  readonly onWidth: (at: SketchWidth) => void;
  readonly shown: VariantId | null;
  readonly onShow: (variant: VariantId) => void;
}) {
  const { store } = useWorkbench();
  const [measure, room] = useWidth();
  const { variants } = sketch;
  const share = (room - GAP * (variants.length - 1)) / Math.max(1, variants.length);
  const width = Math.floor(Math.min(Math.max(NARROWEST, share), at === 'telephone' ? TELEPHONE : room)) - 2;
  const add = () => {
    const from = variants.find(({ id }) => id === shown);
    const variant = newVariantId();
    const made = store.apply([
      {
        name: 'variant.add',
        sketch: sketch.id,
        variant,
        title: freeLetter(variants),
        boxes: copiedBoxes(from?.boxes ?? [], newBoxId),
      },
    ]);
    if (made === null) onShow(variant);
  };
  return (
    <section aria-labelledby="variants" className="flex flex-col gap-2 border-t border-rule pt-3">
      <div className="flex items-center gap-2">
        <h3 id="variants" className="flex-1 font-display text-large font-semibold">
          {variants.length > 1 ? 'Variants' : 'The page'}
        </h3>
        <WidthChoice at={at} onChoose={onWidth} />
        <Button
          isTight
          disabled={variants.length >= MAX_VARIANTS}
          title={
            variants.length >= MAX_VARIANTS
              ? `A sketch has at most ${MAX_VARIANTS} variants.`
              : 'Begins with the boxes of the one that is open'
          }
          onClick={add}
        >
          <Plus size={15} aria-hidden /> Variant
        </Button>
      </div>
      <div ref={measure}>
        <ul aria-label="Variants" className="flex items-start overflow-x-auto pb-1" style={{ gap: GAP }}>
          {variants.map((variant) => (
            <li key={variant.id} className="flex shrink-0 flex-col gap-1">
              <button
                type="button"
                aria-pressed={shown === variant.id}
                onClick={() => onShow(variant.id)}
                className={`max-h-96 overflow-y-auto rounded-md border text-left ${shown === variant.id ? 'border-accent outline-1 outline-accent' : 'border-edge hover:border-ink'}`}
              >
                <SketchPicture
                  boxes={variant.boxes}
                  surround={surround}
                  at={at}
                  room={width}
                  name={`Variant ${variant.name}, ${boxesWords(variant)}`}
                />
              </button>
              <p className="flex items-center gap-1 truncate text-small" style={{ maxWidth: width }}>
                {sketch.taken === variant.id && <Check size={14} aria-hidden className="shrink-0 text-accent" />}
                <span className="truncate font-medium">{variant.name}</span>
                {sketch.taken === variant.id && <span className="text-accent">taken</span>}
                <ChosenBy sketch={sketch} variant={variant} />
              </p>
            </li>
          ))}
        </ul>
      </div>
    </section>
  );
}

const boxesWords = ({ boxes }: Variant): string => (boxes.length === 1 ? '1 box' : `${boxes.length} boxes`);

/** Who of those whom the plan was sent to would take the variant. */
export function ChosenBy({ sketch, variant }: { readonly sketch: Sketch; readonly variant: Variant }) {
  const { feedback } = useWorkbench();
  const by = (feedback?.said.choices ?? []).filter((one) => one.sketch === sketch.id && one.variant === variant.id);
  if (by.length === 0) return null;
  const names = by.map((one) => one.by).join(', ');
  return (
    <span className="min-w-0 truncate text-quiet" title={names}>
      · chosen by {by.length === 1 ? names : by.length}
    </span>
  );
}

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';
const freeLetter = (variants: readonly Variant[]): string =>
  [...LETTERS].find((letter) => !variants.some(({ name }) => name === letter)) ?? 'New';
