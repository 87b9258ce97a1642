export const LENSES = ['plan', 'write', 'access', 'menus', 'publish', 'checks'] as const;
export type Lens = (typeof LENSES)[number];

/** The ways to see the tree: as rows, as a diagram, or both beside each other. */
export const VIEWS = ['sheet', 'map', 'split'] as const;
/** What the Plan lens shows besides the tree. */
export const PLAN_VIEWS = ['carry-over', 'schedule'] as const;
/** What the Write lens shows besides the tree. */
export const WRITE_VIEWS = ['desk'] as const;
export type TreeViewName = (typeof VIEWS)[number];
export type View = TreeViewName | (typeof PLAN_VIEWS)[number] | (typeof WRITE_VIEWS)[number];

export const isTreeView = (view: View): view is TreeViewName => (VIEWS as readonly string[]).includes(view);

/** Views of the tree carry this, so that the keyboard can be put back into the one that it was in. */
export const TREE_VIEW = '[data-tree-view]';
