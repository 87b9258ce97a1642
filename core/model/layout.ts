import { z } from 'zod';
import { MAIN_MENU, menuIdSchema } from './menu.ts';

export const layoutIdSchema = z
  .string()
  .regex(/^[0-9A-Za-z]{1,24}$/, 'a layout id is 1 to 24 letters and digits')
  .brand<'LayoutId'>();
export type LayoutId = z.infer<typeof layoutIdSchema>;

/** The places of a layout that take a menu. */
export const MENU_SLOTS = ['utility', 'header', 'side', 'footer'] as const;
export type MenuSlot = (typeof MENU_SLOTS)[number];

const slot = menuIdSchema.nullable();
export const layoutSchema = z.strictObject({
  id: layoutIdSchema,
  name: z.string().min(1).max(60),
  /** The menu in each slot, or null. */
  menus: z.strictObject({ utility: slot, header: slot, side: slot, footer: slot }),
});
/** The frame of pages. Never changed in place. */
export type Layout = Readonly<z.infer<typeof layoutSchema>>;

/** The layout that a new site has: pages take it unless another one is chosen. */
export const STANDARD_LAYOUT: Layout = {
  id: layoutIdSchema.parse('standard'),
  name: 'Standard',
  menus: { utility: null, header: MAIN_MENU.id, side: null, footer: null },
};
