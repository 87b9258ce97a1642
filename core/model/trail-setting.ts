import { z } from 'zod';
import { pageIdSchema } from './ids.ts';
import { textsSchema } from './texts.ts';

export const MAX_LEAD_IN_LENGTH = 60;

/** How trails look: of the whole site, of a layout, of a branch or of a page. The nearest setting holds, as a whole. */
export const trailSettingSchema = z.strictObject({
  isShown: z.boolean(),
  /** Where it starts: at the top of the tree, at a page that stands above, or so many levels above. */
  start: z.union([
    z.literal('top'),
    z.strictObject({ page: pageIdSchema }),
    z.strictObject({ up: z.number().int().min(1).max(10) }),
  ]),
  withHome: z.boolean(),
  /** What home is called in trails; empty: as menus call it. */
  homeLabel: textsSchema(MAX_LEAD_IN_LENGTH),
  /** The words before it, such as "You are here:". */
  leadIn: textsSchema(MAX_LEAD_IN_LENGTH),
  /** The page itself, at its end. */
  current: z.enum(['shown', 'linked', 'left out']),
  separator: z.string().min(1).max(3),
  /** A trail of more steps than this is shortened in the middle; null: never. */
  most: z.number().int().min(3).max(12).nullable(),
});
export type TrailSetting = Readonly<z.infer<typeof trailSettingSchema>>;

/** The trails of a new site. */
export const PLAIN_TRAIL: TrailSetting = {
  isShown: true,
  start: 'top',
  withHome: true,
  homeLabel: {},
  leadIn: {},
  current: 'shown',
  separator: '›',
  most: null,
};
