import { useState } from 'react';
import type { PageId } from '#core/model/ids.ts';
import type { Hidden } from '#core/model/node.ts';
import type { PageFields } from '#core/operations/page-set.ts';
import { ActionMenu } from '../ui/action-menu.tsx';
import type { CellContext } from './columns.tsx';

const CELL_BUTTON =
  'inline-flex h-6 max-w-full items-center gap-1.5 truncate rounded px-1.5 -ml-1.5 hover:bg-accent-soft disabled:hover:bg-transparent';

/** Sets a field of a row; of all that are selected, where the row is one of several. */
function set({ page, latest }: CellContext, fields: PageFields): void {
  const { chosen, store } = latest();
  const pages: readonly PageId[] = chosen.length > 1 && chosen.includes(page) ? chosen : [page];
  store.apply(pages.map((one) => ({ name: 'page.set', page: one, fields })));
}

/** Whether the tree offers the page to menus; pressing it changes that. */
export function InMenusCell({ isIn, context }: { readonly isIn: boolean; readonly context: CellContext }) {
  return (
    <button
      type="button"
      tabIndex={-1}
      aria-label={`${isIn ? 'In' : 'Off'} menus: ${context.title}`}
      disabled={!context.mayEdit}
      onClick={() => set(context, { inMenus: !isIn })}
      className={CELL_BUTTON}
    >
      <svg width="14" height="14" aria-hidden fill="none">
        <path d="M7 0v14" stroke="currentColor" strokeWidth="1.75" opacity={isIn ? 1 : 0.45} />
        {isIn && <circle cx="7" cy="7" r="4" fill="var(--raised)" stroke="currentColor" strokeWidth="1.75" />}
      </svg>
      <span className={isIn ? '' : 'text-quiet'}>{isIn ? 'In' : 'Off'}</span>
    </button>
  );
}

const HIDDEN_WORDS: Readonly<Record<Hidden, string>> = { no: 'Shown', page: 'Page hidden', branch: 'Branch hidden' };

/** Whether the page is hidden, by itself or by a branch above; pressing it offers the choices. */
export function HiddenCell({
  hidden,
  hiddenBy,
  context,
}: {
  readonly hidden: Hidden;
  /** The title of the page above that hides its branch, or null. */
  readonly hiddenBy: string | null;
  readonly context: CellContext;
}) {
  // The menu itself is made when it is asked for: a screen has many of these cells.
  const [isAsked, setAsked] = useState(false);
  const words = hiddenBy === null ? HIDDEN_WORDS[hidden] : `By ‘${hiddenBy}’`;
  const look = hidden !== 'no' ? 'font-medium text-attention' : hiddenBy !== null ? 'text-attention' : 'text-quiet';
  const button = (
    <button
      type="button"
      tabIndex={-1}
      aria-haspopup="menu"
      onClick={isAsked ? undefined : () => setAsked(true)}
      disabled={!context.mayEdit}
      aria-label={`Hidden: ${context.title}, ${words}`}
      title={hiddenBy === null ? undefined : `Hidden by ‘${hiddenBy}’, which hides its branch`}
      className={`${CELL_BUTTON} ${look}`}
    >
      <span className="truncate">{words}</span>
    </button>
  );
  if (!isAsked) return button;
  return (
    <ActionMenu
      label="Who can reach it"
      isOpenAtFirst
      onClose={() => {
        setAsked(false);
        context.latest().focusTree();
      }}
      actions={[
        { words: 'Shown', isChosen: hidden === 'no', run: () => set(context, { hidden: 'no' }) },
        { words: 'Hide this page', isChosen: hidden === 'page', run: () => set(context, { hidden: 'page' }) },
        { words: 'Hide the branch', isChosen: hidden === 'branch', run: () => set(context, { hidden: 'branch' }) },
      ]}
      trigger={button}
    />
  );
}
