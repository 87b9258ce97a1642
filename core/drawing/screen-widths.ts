/** The widths of the screens on which pages are shown and drawn, in pixels. */
export const SCREEN_WIDTHS = { telephone: 390, tablet: 768, desktop: 1280 } as const;
export type ScreenWidth = keyof typeof SCREEN_WIDTHS;
