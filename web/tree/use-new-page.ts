import { useEffect, useMemo } from 'react';
import type { PageId } from '#core/model/ids.ts';
import { childrenOf, maybeNodeAt } from '#core/model/site.ts';
import { newPageId } from '../api/site-store.ts';
import { type Editing, useWorkbench } from '../workbench/workbench-context.tsx';
import { usePreview } from '../workbench/use-preview.ts';
import type { TitleInputProps } from './title-input.tsx';
import { typingEnds } from '../workbench/typing-goes-on.ts';

export type Adding = Extract<Editing, { kind: 'add' }>;

/**
 * Typing new pages. Enter makes one and opens the next after it; Tab makes it and goes on inside it; Shift+Tab makes it
 * and goes on one level out. While nothing is typed Tab and Shift+Tab only move the place, and Enter ends.
 */
export function useNewPage(adding: Adding): TitleInputProps {
  const { site, store, may, select, setEditing, setOpen, focusTree } = useWorkbench();
  const setPreview = usePreview();
  // What is typed has an id already, so that the strip can tell where it will stand.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const page = useMemo(() => newPageId(), [adding]);
  useEffect(() => setPreview(null), [setPreview, adding]);
  const operation = (title: string) => ({
    name: 'page.add' as const,
    page,
    place: { parent: adding.parent, after: adding.after },
    title: { [site.settings.language]: title },
    // Whoever may not put pages in menus makes them off menus.
    ...(may('menus', adding.parent) ? {} : { inMenus: false }),
  });
  const make = (title: string): boolean => {
    if (title.trim() === '') return false;
    if (store.apply([operation(title)]) !== null) return false;
    select({ active: page, chosen: new Set([page]), anchor: page });
    return true;
  };
  const goOut = (): Adding | null => {
    const above = adding.parent === null ? undefined : maybeNodeAt(site, adding.parent);
    return above ? { kind: 'add', parent: above.parent, after: above.id } : null;
  };
  const goIn = (): Adding | null => {
    const above = adding.after === null ? undefined : maybeNodeAt(site, adding.after);
    return above && above.type !== 'link'
      ? { kind: 'add', parent: above.id, after: childrenOf(site, above.id).at(-1) ?? null }
      : null;
  };
  const inside = (above: PageId): Adding => ({ kind: 'add', parent: above, after: null });
  const onTab = (title: string, isBack: boolean): boolean => {
    const isMade = make(title);
    if (!isMade && title.trim() !== '') return false;
    const next = isBack ? (goOut() ?? (isMade ? { ...adding, after: page } : null)) : isMade ? inside(page) : goIn();
    if (next === null) return false;
    if (next.parent !== null) setOpen(next.parent, true);
    setEditing(next);
    return true;
  };
  const end = () => {
    setEditing(null);
    focusTree();
  };
  return {
    label: 'Title of the new page',
    start: '',
    placeholder: 'Title, then Enter for the next, Tab to go inside',
    onTyping: (title) => setPreview(title.trim() === '' ? null : [operation(title)]),
    onTab,
    onEnter: (title) => {
      if (make(title)) return setEditing({ ...adding, after: page });
      // Who takes the empty row for a line of its own types on.
      typingEnds();
      end();
    },
    onLeave: (title) => {
      make(title);
      setEditing(null);
    },
    onCancel: end,
  };
}

/** Where a new page is typed; another place is another field. */
export const placeKey = ({ parent, after }: Adding): string => `${parent}/${after}`;
