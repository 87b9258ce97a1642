import type { MenuEntry } from '#core/derive/menu.ts';
import { type ArrangedEntry, type Menu, NO_EXCEPTION } from '#core/model/menu.ts';

/** In what an entry of a menu is otherwise than the tree has it, in words. */
export function exceptionSigns(menu: Menu, { id: entry, isBeside }: MenuEntry): string[] {
  const extra = isBeside ? menu.extras.find(({ id }) => id === entry) : undefined;
  if (extra) return ['besides the tree', ...audienceSign(extra.only)];
  const { label, pin, only } = menu.exceptions.find(({ page }) => (page as string) === entry) ?? NO_EXCEPTION;
  return [
    ...(Object.keys(label).length > 0 ? ['own label'] : []),
    ...(pin === null ? [] : [`pinned ${pin}`]),
    ...audienceSign(only),
  ];
}

/** In what an arranged entry has words or visitors of its own. */
export const arrangedSigns = ({ label, target, only }: ArrangedEntry): string[] => [
  ...(target !== null && 'page' in target && Object.keys(label).length > 0 ? ['own label'] : []),
  ...(target !== null && 'url' in target ? ['outside'] : []),
  ...(target === null ? ['text only'] : []),
  ...audienceSign(only),
];

const audienceSign = (only: readonly string[] | null): string[] => (only === null ? [] : ['for some']);
