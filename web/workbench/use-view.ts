import { useCallback } from 'react';
import { z } from 'zod';
import { usePreference } from '../api/preferences.ts';
import { NARROWEST_SIDE, WIDEST_SIDE } from './side-edge.tsx';
import { VIEWS, type View, isTreeView } from './lenses.ts';

const arrangementSchema = z.object({
  view: z.enum(VIEWS),
  /** The share of the sheet where both stand beside each other, in percent. */
  split: z.number().min(5).max(95),
  /** The views in which the side sheet is closed. */
  withoutSide: z.array(z.enum(VIEWS)),
  /** How wide settings stand beside the tree, in pixels. */
  beside: z.number().min(NARROWEST_SIDE).max(WIDEST_SIDE).default(448),
});
type Arrangement = z.infer<typeof arrangementSchema>;
const AT_FIRST: Arrangement = { view: 'sheet', split: 50, withoutSide: ['split'], beside: 448 };

/** How the workbench is arranged, kept for the person; the address may ask for another view. */
export const useArrangement = (): [Arrangement, (arrangement: Arrangement) => void] =>
  usePreference('arrangement', arrangementSchema, AT_FIRST);

/** The view that shows: the one that the address asks for, or the one that the person had last. */
export function useView(
  asked: View | null,
  ask: (view: View) => void,
  ofLens: readonly View[] = [],
): [View, (view: View) => void] {
  const [arrangement, keep] = useArrangement();
  const set = useCallback(
    (view: View) => {
      ask(view);
      if (isTreeView(view)) keep({ ...arrangement, view });
    },
    [ask, keep, arrangement],
  );
  // What belongs to one lens gives way to the tree in the others.
  const isShown = asked !== null && (isTreeView(asked) || ofLens.includes(asked));
  return [isShown ? asked : arrangement.view, set];
}
