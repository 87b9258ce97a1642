import type { ScreenWidth } from '#core/drawing/screen-widths.ts';
import { Check } from 'lucide-react';
import { useState } from 'react';
import type { PageId } from '#core/model/ids.ts';
import { type BoxId, type Sketch, type Variant, type VariantId, sketchOf } from '#core/model/sketch.ts';
import { nodeAt } from '#core/model/site.ts';
import { BOXES } from '#core/sketch/box-types.ts';
import type { Surround } from '#core/sketch/surround.ts';
import type { SharedPlanAnswer } from '#contract/sharing.ts';
import { wordsOfFault } from '../api/client.ts';
import { chooseVariant, useSurround } from '../api/shared-plan.ts';
import { SketchPicture } from '../sketches/sketch-picture.tsx';
import { WidthChoice } from '../walk/width-choice.tsx';
import { Button } from '../ui/button.tsx';
import { Choice } from '../ui/field.tsx';
import { useWidth } from '../ui/use-width.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import type { CommentDraft } from './new-comment.tsx';
import { toast } from '../ui/toast.ts';

interface SketchProps {
  readonly token: string;
  readonly plan: SharedPlanAnswer;
  readonly page: PageId;
  readonly named: (work: () => void) => void;
  readonly draft: CommentDraft;
  readonly onDraft: (draft: CommentDraft) => void;
}

/** What the page will contain, in variants: the guest chooses one, and comments on boxes. */
export function SharedSketch(props: SketchProps) {
  const { site } = useWorkbench();
  const sketch = sketchOf(site, nodeAt(site, props.page));
  const surround = useSurround(props.token, props.page, props.plan.revision);
  if (!sketch || sketch.variants.length === 0) return null;
  return <OneSketch {...props} key={sketch.id} sketch={sketch} surround={surround} />;
}

function OneSketch({
  token,
  plan,
  sketch,
  surround,
  named,
  draft,
  onDraft,
}: SketchProps & { readonly sketch: Sketch; readonly surround: Surround | undefined }) {
  const [at, setAt] = useState<ScreenWidth>('desktop');
  const [asked, setAsked] = useState<VariantId | null>(null);
  const { variants, taken } = sketch;
  const mine = plan.feedback.choices.find((one) => one.sketch === sketch.id && one.guest === plan.guest?.id)?.variant;
  const shown = variants.find(({ id }) => id === (asked ?? taken ?? mine)) ?? variants[0]!;
  const choose = (variant: VariantId | null) =>
    named(
      () =>
        void chooseVariant(token, sketch.id, variant).catch((fault: unknown) => {
          toast.error(wordsOfFault(fault));
        }),
    );
  const about = (box: BoxId | null) => onDraft({ ...draft, about: { sketch: sketch.id, variant: shown.id, box } });
  const own =
    draft.about !== null && 'variant' in draft.about && draft.about.variant === shown.id ? draft.about.box : null;
  return (
    <section aria-labelledby="sketch" className="flex flex-col gap-2 border-t border-rule pt-3">
      <div className="flex items-center gap-2">
        <h3 id="sketch" className="flex-1 font-display text-large font-semibold">
          What the page will contain
        </h3>
        <WidthChoice label="Width of the drawings" width={at} onChoose={setAt} />
      </div>
      {variants.length > 1 && (
        <div role="group" aria-label="Variants" className="flex flex-wrap gap-1">
          {variants.map((variant) => (
            <Button
              key={variant.id}
              isTight
              look={variant.id === shown.id ? 'chosen' : 'plain'}
              aria-pressed={variant.id === shown.id}
              onClick={() => setAsked(variant.id)}
            >
              {variant.id === mine && <Check size={14} aria-hidden />}
              {variant.name}
            </Button>
          ))}
        </div>
      )}
      {surround && <Picture variant={shown} surround={surround} at={at} chosen={own} onBox={about} />}
      {variants.length > 1 && (
        <div className="flex flex-wrap items-center gap-2">
          {taken === null ? (
            <Button aria-pressed={mine === shown.id} onClick={() => choose(mine === shown.id ? null : shown.id)}>
              {mine === shown.id ? `You chose ${shown.name}. Take it back` : `Choose ${shown.name}`}
            </Button>
          ) : (
            <p className="text-small text-quiet">
              {variants.find(({ id }) => id === taken)!.name} was taken by the makers of the plan.
            </p>
          )}
          <Others sketch={sketch} plan={plan} />
        </div>
      )}
      {shown.boxes.length > 0 && (
        <Choice
          label="Say something about a box"
          value={own ?? ''}
          hint="Press a box in the drawing, or choose it here; then write below."
          onChange={(event) =>
            event.target.value === '' ? onDraft({ ...draft, about: null }) : about(event.target.value as BoxId)
          }
        >
          <option value="">None</option>
          {shown.boxes.map(({ id, type, purpose }, n) => (
            <option key={id} value={id}>
              {n + 1}. {purpose || BOXES[type].name}
            </option>
          ))}
        </Choice>
      )}
    </section>
  );
}

function Picture({
  variant,
  surround,
  at,
  chosen,
  onBox,
}: {
  readonly variant: Variant;
  readonly surround: Surround;
  readonly at: ScreenWidth;
  readonly chosen: BoxId | null;
  readonly onBox: (box: BoxId) => void;
}) {
  const [measure, room] = useWidth();
  const width = at === 'telephone' ? Math.min(room, 260) : room;
  return (
    <div ref={measure}>
      <div className="w-fit overflow-hidden rounded-md border border-edge">
        <SketchPicture
          boxes={variant.boxes}
          surround={surround}
          at={at}
          room={width - 2}
          name={`Variant ${variant.name}: ${variant.boxes.map(({ type, purpose }) => purpose || BOXES[type].name).join(', ')}`}
          chosen={chosen}
          onChoose={onBox}
        />
      </div>
    </div>
  );
}

/** What others chose. */
function Others({ sketch, plan }: { readonly sketch: Sketch; readonly plan: SharedPlanAnswer }) {
  const others = plan.feedback.choices.filter((one) => one.sketch === sketch.id && one.guest !== plan.guest?.id);
  if (others.length === 0) return null;
  const nameOf = (id: VariantId) => sketch.variants.find((one) => one.id === id)?.name;
  return (
    <p className="text-small text-quiet">
      {others
        .filter(({ variant }) => nameOf(variant) !== undefined)
        .map(({ by, variant }) => `${by}: ${nameOf(variant)}`)
        .join(' · ')}
    </p>
  );
}
