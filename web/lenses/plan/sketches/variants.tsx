import type { ScreenWidth } from '#core/drawing/screen-widths.ts';
import { Check, Plus } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { copiedBoxes } from '#core/sketch/arrange-boxes.ts';
import { type BoxId, MAX_VARIANTS, type Sketch, type Variant, type VariantId } from '#core/model/sketch.ts';
import type { Surround } from '#core/sketch/surround.ts';
import { newBoxId, newVariantId } from '../../../api/site-store.ts';
import { SketchPicture } from '../../../sketches/sketch-picture.tsx';
import { WidthChoice } from '../../../walk/width-choice.tsx';
import { Button } from '../../../ui/button.tsx';
import { useWidth } from '../../../ui/use-width.ts';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';

/** Drawings stand beside each other; each is so wide at least, and a telephone so wide at most, in pixels. */
const NARROWEST = 170;
const TELEPHONE = 210;
const GAP = 12;
/** The room for the edges of the list and a scroll bar. */
const BAR = 38;

/** The variants of a sketch, drawn side by side; one is opened by pressing its name. */
export function Variants({
  sketch,
  surround,
  at,
  onWidth,
  shown,
  box,
  onShow,
  onBox,
}: {
  readonly sketch: Sketch;
  readonly surround: Surround;
  readonly at: ScreenWidth;
  readonly onWidth: (at: ScreenWidth) => void;
  readonly shown: VariantId | null;
  /** The box that is being written. */
  readonly box: BoxId | null;
  readonly onShow: (variant: VariantId) => void;
  readonly onBox: (box: BoxId) => void;
}) {
  const { store } = useWorkbench();
  const [measure, whole] = useWidth();
  const room = whole - BAR;
  const list = useRef<HTMLUListElement>(null);
  useEffect(() => {
    if (box !== null && list.current) bringIntoSight(list.current, box);
  }, [box, at]);
  const { variants } = sketch;
  const share = (room - GAP * (variants.length - 1)) / Math.max(1, variants.length);
  const width = Math.floor(Math.min(Math.max(NARROWEST, share), at === 'telephone' ? TELEPHONE : room)) - 4;
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
    <section
      aria-labelledby="variants"
      className="sticky -top-4 z-10 -mx-4 flex flex-col gap-2 border-t border-rule bg-paper px-4 pt-3 pb-1 short:static"
    >
      <div className="flex items-center gap-2">
        <h3 id="variants" className="flex-1 font-display text-large font-semibold">
          {variants.length > 1 ? 'Variants' : 'The page'}
        </h3>
        <WidthChoice label="Width of the drawings" width={at} onChoose={onWidth} />
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
        <ul
          ref={list}
          aria-label="Variants"
          className="flex max-h-[17rem] items-start overflow-auto rounded-md border border-rule bg-sunken p-2"
          style={{ gap: GAP }}
        >
          {variants.map((variant) => {
            const isShown = shown === variant.id;
            return (
              <li key={variant.id} className="flex shrink-0 flex-col gap-1" style={{ width: width + 2 }}>
                <p className="flex items-center gap-1 text-small">
                  <button
                    type="button"
                    aria-pressed={isShown}
                    onClick={() => onShow(variant.id)}
                    className={`flex min-h-7 min-w-0 items-center gap-1 rounded-md px-1.5 font-medium ${isShown ? 'bg-accent-soft text-accent' : 'hover:bg-raised'}`}
                  >
                    {sketch.taken === variant.id && <Check size={14} aria-hidden className="shrink-0" />}
                    <span className="truncate">{variant.name}</span>
                    {sketch.taken === variant.id && <span>taken</span>}
                  </button>
                  <ChosenBy sketch={sketch} variant={variant} />
                </p>
                <div className={`overflow-hidden rounded-md border ${isShown ? 'border-accent' : 'border-edge'}`}>
                  <SketchPicture
                    boxes={variant.boxes}
                    surround={surround}
                    at={at}
                    room={width}
                    name={`Variant ${variant.name}, ${boxesWords(variant)}`}
                    chosen={isShown ? box : null}
                    onPress={() => onShow(variant.id)}
                    onChoose={(chosen) => {
                      onShow(variant.id);
                      onBox(chosen);
                    }}
                  />
                </div>
              </li>
            );
          })}
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

/** Scrolls a list until a box that is drawn in it is seen, and nothing else. */
function bringIntoSight(list: HTMLElement, box: BoxId): void {
  const drawn = list.querySelector(`[data-drawn-box="${box}"]`)?.getBoundingClientRect();
  if (!drawn) return;
  const seen = list.getBoundingClientRect();
  if (drawn.top < seen.top || drawn.height > seen.height) list.scrollTop += drawn.top - seen.top - GAP;
  else if (drawn.bottom > seen.bottom) list.scrollTop += drawn.bottom - seen.bottom + GAP;
}

const LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';
const freeLetter = (variants: readonly Variant[]): string =>
  [...LETTERS].find((letter) => !variants.some(({ name }) => name === letter)) ?? 'New';
