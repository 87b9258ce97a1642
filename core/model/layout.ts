import { z } from 'zod';
import { MAIN_MENU, menuIdSchema } from './menu.ts';
import { trailSettingSchema } from './trail-setting.ts';

export const layoutIdSchema = z
  .string()
  .regex(/^[0-9A-Za-z]{1,24}$/, 'a layout id is 1 to 24 letters and digits')
  .brand<'LayoutId'>();
export type LayoutId = z.infer<typeof layoutIdSchema>;

export const MAX_LAYOUT_NAME_LENGTH = 60;
export const MAX_LAYOUTS = 40;

/** The places of a layout that take a menu. */
export const MENU_SLOTS = ['utility', 'header', 'side', 'footer'] as const;
export type MenuSlot = (typeof MENU_SLOTS)[number];

/** How the header looks; `none` leaves it out. */
export const HEADER_STYLES = ['tall', 'band', 'slim', 'title', 'none'] as const;
export type HeaderStyle = (typeof HEADER_STYLES)[number];

const slot = menuIdSchema.nullable();
export const layoutSchema = z.strictObject({
  id: layoutIdSchema,
  name: z.string().min(1).max(MAX_LAYOUT_NAME_LENGTH),
  /** The menu in each slot, or null. */
  menus: z.strictObject({ utility: slot, header: slot, side: slot, footer: slot }),
  header: z.enum(HEADER_STYLES),
  /** The address of the picture behind a tall header, or ''. */
  picture: z
    .string()
    .max(2000)
    .regex(/^(|https?:\/\/[^\s"'()<>]+)$/, 'the address of a picture starts with https://'),
  hasFooter: z.boolean(),
  /** Whether pages lead on to the one before and the one after within their section. */
  hasTurns: z.boolean(),
  /** The trails of its pages, or null: as the site has them. */
  trail: trailSettingSchema.nullable(),
});
/** The frame of pages. Never changed in place. */
export type Layout = Readonly<z.infer<typeof layoutSchema>>;

/** The layout that a new site has: pages take it unless another one is chosen. */
export const STANDARD_LAYOUT: Layout = {
  id: layoutIdSchema.parse('standard'),
  name: 'Standard',
  menus: { utility: null, header: MAIN_MENU.id, side: null, footer: null },
  header: 'band',
  picture: '',
  hasFooter: true,
  hasTurns: false,
  trail: null,
};
