import type { AboutSketch } from '#core/model/feedback.ts';
import type { Site } from '#core/model/site.ts';
import { BOXES } from '#core/sketch/box-types.ts';

/** What of a sketch somebody speaks of: "the box ‘What it costs’ of variant B". */
export function aboutWords({ sketches }: Site, { sketch, variant, box }: AboutSketch): string {
  const found = sketches.find(({ id }) => id === sketch)?.variants.find(({ id }) => id === variant);
  if (!found) return 'a variant that was removed';
  if (box === null) return `variant ${found.name}`;
  const known = found.boxes.find(({ id }) => id === box);
  if (!known) return `a box of variant ${found.name} that was removed`;
  return `the box ‘${known.purpose || BOXES[known.type].name}’ of variant ${found.name}`;
}
