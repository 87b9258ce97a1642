/** Why something asked for was not done. The words for each code stand in `contract/problems.ts`. */
export const REFUSAL_CODES = [
  'page-unknown',
  'page-removed',
  'page-exists',
  'page-not-removed',
  'copy-without-id',
  'still-live',
  'parent-unknown',
  'parent-is-link',
  'moved-inside-itself',
  'too-deep',
  'title-empty',
  'slug-shape',
  'slug-reserved',
  'target-missing',
  'target-not-for-this',
  'target-unknown',
  'home-not-a-page',
  'two-homes',
  'pages-below',
  'has-text',
  'name-empty',
  'audience-unknown',
  'audience-exists',
  'audience-unnamed',
  'audience-in-itself',
  'audience-used',
  'audience-too-many',
  'label-unknown',
  'label-exists',
  'label-unnamed',
  'label-used',
  'label-too-many',
  'menu-unknown',
  'menu-exists',
  'menu-unnamed',
  'menu-too-many',
  'entry-unknown',
  'entry-exists',
  'entry-too-many',
  'entry-too-deep',
  'entry-inside-itself',
  'entry-unnamed',
  'layout-unknown',
  'layout-unnamed',
  'window-empty',
  'goal-unknown',
  'goal-exists',
  'goal-empty',
  'not-live',
  'parent-not-live',
] as const;
export type RefusalCode = (typeof REFUSAL_CODES)[number];

/** A refusal as a value: the rule, the page it concerns, and what the words need. */
export interface Refusal {
  readonly ok: false;
  readonly code: RefusalCode;
  readonly params: Readonly<Record<string, string | number>>;
}

export const refuse = (code: RefusalCode, params: Refusal['params'] = {}): Refusal => ({ ok: false, code, params });
