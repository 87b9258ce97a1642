import { useDroppable } from '@dnd-kit/core';
import { createContext, useContext } from 'react';
import type { MenuSlot } from '#core/model/layout.ts';
import type { MenuId } from '#core/model/menu.ts';

export const SLOT_WORDS: Readonly<Record<MenuSlot, string>> = {
  utility: 'In a line above the header',
  header: 'In the header',
  side: 'Beside the text',
  footer: 'In the footer',
};

/** Puts a menu into a place of the layout that is drawn, or takes it out. */
export type PutMenu = (slot: MenuSlot, menu: MenuId | null) => void;
const Context = createContext<PutMenu>(() => undefined);
export const PutMenuProvider = Context.Provider;

/** A place of the drawing, as a menu can be dropped there or chosen for it. */
export function useMenuPlace(slot: MenuSlot) {
  const { setNodeRef, isOver } = useDroppable({ id: slot });
  const put = useContext(Context);
  return { drop: setNodeRef, isOver, put: (menu: MenuId | null) => put(slot, menu) };
}
