import type { ScreenWidth } from '#core/drawing/screen-widths.ts';
import { LayoutTemplate } from 'lucide-react';
import { useState, useSyncExternalStore } from 'react';
import { giveSketch } from '#core/arrange/give.ts';
import { touchedBySketch } from '#core/derive/touched.ts';
import { isKind } from '#core/model/page-label.ts';
import type { SketchId } from '#core/model/plan.ts';
import {
  type BoxId,
  MAX_SKETCH_NAME_LENGTH,
  type Sketch,
  type VariantId,
  variantThatHolds,
} from '#core/model/sketch.ts';
import { type Edit, newSketchId, newVariantId } from '../../../api/site-store.ts';
import { useSurroundOf } from '../../../sketches/use-surround.ts';
import type { ListKind } from '../../../settings/settings-kind.ts';
import { pages } from '../../../tree/words.ts';
import { Tick } from '../../../ui/field.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { focusBox } from './box-row.tsx';
import { OneVariant } from './one-variant.tsx';
import { Variants } from './variants.tsx';

/** What a new sketch has: one variant, without boxes. */
export const FIRST_VARIANT = 'A';

/** What pages will contain, drawn as boxes, in variants until one is taken. */
export const SKETCHES: ListKind = {
  edits: 'plan',
  title: 'Sketches',
  one: 'sketch',
  Sign: LayoutTemplate,
  description:
    'What a page will contain, as boxes, before it is written. Draw variants, let others choose, and take one: the page then has its sections.',
  placeholder: 'Course page',
  longest: MAX_SKETCH_NAME_LENGTH,
  items: ({ sketches }) => sketches,
  says:
    (site, { outline }) =>
    (id) => {
      const sketch = site.sketches.find((one) => one.id === id);
      if (!sketch) return { says: '' };
      const count = touchedBySketch(site, outline, sketch.id).size;
      const of = count === 0 ? 'on no page yet' : pages(count);
      return { says: `${of} · ${variantsWords(sketch)}`, ...(isOpen(sketch) && { waits: 'No variant chosen' }) };
    },
  touched: (site, { outline }, id) => touchedBySketch(site, outline, id as SketchId),
  add: (title) => {
    const sketch = newSketchId();
    return {
      id: sketch,
      edit: {
        name: 'sketch.add',
        sketch,
        title,
        variants: [{ id: newVariantId(), name: FIRST_VARIANT, boxes: [] }],
      },
    };
  },
  rename: (id, title) => ({ name: 'sketch.set', sketch: id as SketchId, fields: { title } }),
  remove: (id) => ({ name: 'sketch.remove', sketch: id as SketchId }),
  give: (site, to, id) => giveSketch(site, to, id as SketchId) as Edit[],
  Fields: SketchFields,
};

const isOpen = (sketch: Sketch): boolean => variantThatHolds(sketch) === null && sketch.variants.length > 0;

const variantsWords = ({ variants, taken }: Sketch): string => {
  const chosen = variants.find(({ id }) => id === taken);
  if (chosen) return `‘${chosen.name}’ is taken`;
  return variants.length === 1 ? `${variants[0]!.boxes.length} boxes` : `${variants.length} variants`;
};

function SketchFields({ id }: { readonly id: string }) {
  const { site, store, past, openSetting, selection } = useWorkbench();
  // The sheet sees the site a moment after an edit; the line of a box has to be there for the next key.
  const now = useSyncExternalStore(store.subscribe, () => store.getShown().site.sketches);
  const sketch = (past ? site.sketches : now).find((one) => one.id === id);
  const [at, setAt] = useState<ScreenWidth>('desktop');
  const [asked, setAsked] = useState<VariantId | null>(null);
  const [box, setBox] = useState<BoxId | null>(null);
  const touched = openSetting?.item.id === id ? openSetting.touched : null;
  const { active } = selection;
  const sample = active !== null && touched?.has(active) ? active : ([...(touched?.keys() ?? [])][0] ?? null);
  const surround = useSurroundOf(site, sample);
  if (!sketch) return null;
  const shown =
    sketch.variants.find((one) => one.id === asked) ?? variantThatHolds(sketch) ?? sketch.variants[0] ?? null;
  return (
    <>
      <ForKinds sketch={sketch} />
      <Variants
        sketch={sketch}
        surround={surround}
        at={at}
        onWidth={setAt}
        shown={shown?.id ?? null}
        box={box}
        onShow={setAsked}
        onBox={(chosen) => {
          setBox(chosen);
          focusBox(chosen);
        }}
      />
      {shown && <OneVariant key={shown.id} sketch={sketch} variant={shown} onShow={setAsked} onBox={setBox} />}
    </>
  );
}

/** The kinds whose pages have the sketch. */
function ForKinds({ sketch }: { readonly sketch: Sketch }) {
  const { site, store } = useWorkbench();
  const kinds = site.settings.labels.filter(isKind);
  if (kinds.length === 0) return null;
  return (
    <details open={sketch.kinds.length > 0}>
      <summary className="text-small font-medium">
        For all pages of a kind{sketch.kinds.length > 0 && ` (${sketch.kinds.length})`}
      </summary>
      <div className="mt-1 flex flex-wrap gap-x-4 gap-y-1">
        {kinds.map(({ id, name }) => (
          <Tick
            key={id}
            label={name}
            checked={sketch.kinds.includes(id)}
            onChange={(event) =>
              store.apply([
                {
                  name: 'sketch.set',
                  sketch: sketch.id,
                  fields: {
                    kinds: event.target.checked ? [...sketch.kinds, id] : sketch.kinds.filter((one) => one !== id),
                  },
                },
              ])
            }
          />
        ))}
      </div>
    </details>
  );
}
