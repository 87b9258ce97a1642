import { type Layout, STANDARD_LAYOUT } from '../model/layout.ts';
import type { Site } from '../model/site.ts';

/** The layout of the site's pages. */
export const layoutOf = ({ settings: { layouts } }: Site): Layout => layouts[0] ?? STANDARD_LAYOUT;
