import { useEffect, useMemo } from 'react';
import { childrenOf, maybeNodeAt } from '#core/model/site.ts';
import { newPageId } from '../api/site-store.ts';
import { type Editing, useWorkbench } from '../workbench/workbench-context.tsx';
import { railX, railsWidth } from './rails.tsx';
import { TitleInput } from './title-input.tsx';

type Adding = Extract<Editing, { kind: 'add' }>;

/**
 * The row in which a new page is typed. Enter makes it and opens the next one after it; Tab makes it and goes on inside
 * it; Shift+Tab makes it and goes on one level out. In an empty row Tab and Shift+Tab only move the row, and Enter ends.
 */
export function NewRow({ adding, depth }: { readonly adding: Adding; readonly depth: number }) {
  const { site, store, select, setEditing, setOpen, setPreview, focusTree } = useWorkbench();
  // What is typed has an id already, so that the strip can tell where it will stand.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const page = useMemo(() => newPageId(), [adding]);
  useEffect(() => () => setPreview(null), [setPreview, adding]);
  const operation = (title: string) => ({
    name: 'page.add' as const,
    page,
    place: { parent: adding.parent, after: adding.after },
    title: { [site.settings.language]: title },
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
  const onTab = (title: string, isBack: boolean): boolean => {
    const isMade = make(title);
    if (!isMade && title.trim() !== '') return false;
    const next = isBack
      ? (goOut() ?? (isMade ? { ...adding, after: page } : null))
      : isMade
        ? { kind: 'add' as const, parent: page, after: null }
        : goIn();
    if (next === null) return false;
    if (next.parent !== null) setOpen(next.parent, true);
    setEditing(next);
    return true;
  };
  const end = () => {
    setEditing(null);
    focusTree();
  };
  const x = railX(depth);
  return (
    <div role="row" className="flex h-row items-center bg-accent-soft pr-2 pl-1">
      <div role="gridcell" className="flex min-w-0 flex-1 items-center">
        <svg width={railsWidth(depth)} height="32" fill="none" aria-hidden className="shrink-0 text-accent">
          <path d={`M${x} 0V16`} stroke="currentColor" strokeWidth="2" strokeDasharray="3.5 3" />
          <circle cx={x} cy="16" r="4.5" fill="var(--raised)" stroke="currentColor" strokeWidth="2" />
        </svg>
        <span className="mr-0.5 size-5 shrink-0" />
        <TitleInput
          key={`${adding.parent}/${adding.after}`}
          label="Title of the new page"
          start=""
          placeholder="Title, then Enter for the next, Tab to go inside"
          onTyping={(title) => setPreview(title.trim() === '' ? null : [operation(title)])}
          onTab={onTab}
          onEnter={(title) => (make(title) ? setEditing({ ...adding, after: page }) : end())}
          onLeave={(title) => {
            make(title);
            setEditing(null);
          }}
          onCancel={end}
        />
      </div>
    </div>
  );
}
