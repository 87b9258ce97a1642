import { PAGE_FIELDS, PAGE_FIELD_NAMES } from '../model/page-fields.ts';
import type { Permission } from '../model/permission.ts';

/** The kinds of edits that a history is looked through by, in the order in which they are offered: what each of them needs. */
export const EDIT_KINDS = [
  'shape',
  'write',
  'plan',
  'menus',
  'access',
  'look',
] as const satisfies readonly Permission[];
export type EditKind = (typeof EDIT_KINDS)[number];

export const EDIT_KIND_WORDS: Readonly<Record<EditKind, string>> = {
  shape: 'Pages made, moved, renamed, removed',
  write: 'Texts, descriptions and fields',
  plan: 'The plan',
  menus: 'Menus and layouts',
  access: 'Access and audiences',
  look: 'The look',
};

/** What else is of a kind besides fields of pages: aspects of a page, and things of the site by the first part of their cells. */
const OTHERS: Readonly<
  Record<EditKind, { readonly aspects?: readonly string[]; readonly things?: readonly string[] }>
> = {
  shape: { aspects: ['there', 'place'], things: ['redirect', 'field'] },
  write: { things: ['fact', 'shared', 'form'] },
  plan: { things: ['goal', 'sketch', 'variant', 'box', 'board', 'piece', 'old'] },
  menus: { things: ['menu', 'layout'] },
  access: { things: ['audience', 'label'] },
  look: {},
};

/** Whether a cell that an operation decides (`page.aspect`, `menu:id.aspect`, `site.field`) is of a kind, as a regular expression. */
export function cellsOfKind(kind: EditKind): string {
  const aspects = [
    ...PAGE_FIELD_NAMES.filter((name) => (PAGE_FIELDS[name].permission as Permission) === kind),
    ...(OTHERS[kind].aspects ?? []),
  ];
  const things = OTHERS[kind].things ?? [];
  return [
    ...(aspects.length > 0 ? [`^[0-9A-Za-z]+[.](${aspects.join('|')})([.]|$)`] : []),
    ...(things.length > 0 ? [`^(${things.join('|')}):`] : []),
    ...(kind === 'look' ? ['^site[.]look$'] : []),
  ].join('|');
}
