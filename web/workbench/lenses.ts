export const LENSES = ['write', 'menus', 'publish'] as const;
export type Lens = (typeof LENSES)[number];

/** The ways to see the tree: as rows, as a diagram, or both beside each other. */
export const VIEWS = ['sheet', 'map', 'split'] as const;
export type View = (typeof VIEWS)[number];
