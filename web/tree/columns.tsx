import { type ReactNode, useState } from 'react';
import { menuNumber } from '#core/derive/derived.ts';
import { labelOf, leadsTo } from '#core/derive/menu.ts';
import { liveSiteOf } from '#core/derive/live-site.ts';
import { derivedOf } from '#core/derive/derived.ts';
import { differencesOf } from '#core/derive/state.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Hidden } from '#core/model/node.ts';
import { textIn } from '#core/model/texts.ts';
import { ActionMenu } from '../ui/action-menu.tsx';
import type { Lens, Workbench } from '../workbench/workbench-context.tsx';
import { DIFFERENCE_WORDS, MENU_WORDS, STATE_WORDS } from './words.ts';

export interface Column {
  readonly name: string;
  /** A CSS grid track. */
  readonly width: string;
  /** Left out where the sheet is narrow. */
  readonly isMinor?: boolean;
  readonly cell: (workbench: Workbench, row: number) => ReactNode;
}

const inMenus: Column = {
  name: 'In menus',
  width: '5rem',
  cell: (workbench, row) => <InMenusCell workbench={workbench} row={row} />,
};
const hidden: Column = {
  name: 'Hidden',
  width: '7.5rem',
  isMinor: true,
  cell: (workbench, row) => <HiddenCell workbench={workbench} row={row} />,
};
const state: Column = {
  name: 'State',
  width: '6rem',
  isMinor: true,
  cell: ({ derived }, row) => <StateWord state={derived.states[row]!} />,
};
const address: Column = {
  name: 'Address',
  width: 'minmax(9rem, 1.5fr)',
  isMinor: true,
  cell: ({ derived }, row) => (
    <Address text={derived.addresses[row] ?? leadsTo(derived, row)} isQuiet={derived.addresses[row] === null} />
  ),
};

/** The columns after the title, by lens. */
export const COLUMNS: Readonly<Record<Lens, readonly Column[]>> = {
  write: [
    inMenus,
    hidden,
    state,
    address,
    {
      name: 'Text',
      width: '4.5rem',
      isMinor: true,
      cell: ({ derived }, row) => {
        const node = derived.outline.nodes[row]!;
        if (node.type !== 'page') return null;
        return node.content === null ? (
          <span className="text-attention">None yet</span>
        ) : (
          <span className="text-quiet">Written</span>
        );
      },
    },
  ],
  menus: [
    inMenus,
    {
      name: 'Main menu',
      width: '11rem',
      cell: ({ derived }, row) => {
        const answer = derived.menu[row]!;
        return answer === 'in' ? (
          <span className="font-mono font-medium text-accent">{menuNumber(derived, row)}</span>
        ) : (
          <span className={answer === 'leads nowhere' ? 'text-attention' : 'text-quiet'}>{MENU_WORDS[answer]}</span>
        );
      },
    },
    {
      name: 'Menu label',
      width: 'minmax(8rem, 1fr)',
      isMinor: true,
      cell: ({ site, derived }, row) => {
        const node = derived.outline.nodes[row]!;
        const hasOwn = textIn(node.label, site.settings.language) !== '';
        return (
          <span className={`truncate ${hasOwn ? 'font-medium' : 'text-quiet'}`}>
            {hasOwn ? labelOf(site, node) : 'as the title'}
          </span>
        );
      },
    },
    hidden,
  ],
  publish: [
    { name: 'State', width: '7rem', cell: ({ derived }, row) => <StateWord state={derived.states[row]!} /> },
    {
      name: 'What differs',
      width: 'minmax(8rem, 0.8fr)',
      isMinor: true,
      cell: ({ site, derived }, row) => {
        const words = differencesOf(site, derived.outline.nodes[row]!.id).map(
          (difference) => DIFFERENCE_WORDS[difference],
        );
        return <span className="truncate">{words.join(', ')}</span>;
      },
    },
    {
      name: 'Address now',
      width: 'minmax(8rem, 1fr)',
      isMinor: true,
      cell: ({ site, derived }, row) => (
        <Address text={liveAddress(site, derived.outline.nodes[row]!.id)} isQuiet={false} />
      ),
    },
    {
      name: 'Address after',
      width: 'minmax(8rem, 1fr)',
      isMinor: true,
      cell: ({ site, derived }, row) => {
        const after = derived.addresses[row]!;
        const now = liveAddress(site, derived.outline.nodes[row]!.id);
        if (derived.states[row] === 'retired') return null;
        return after === now ? <span className="text-quiet">the same</span> : <Address text={after} isQuiet={false} />;
      },
    },
  ],
};

/** The address that visitors have for a node now, or null. */
export function liveAddress(site: Workbench['site'], id: PageId): string | null {
  const live = derivedOf(liveSiteOf(site));
  const row = live.outline.rowOf.get(id);
  return row === undefined ? null : live.addresses[row]!;
}

/** The address at which visitors can open a page now, or null where nobody can. */
export function openLiveAddress(site: Workbench['site'], id: PageId): string | null {
  const live = derivedOf(liveSiteOf(site));
  const row = live.outline.rowOf.get(id);
  return row === undefined || live.hiddenBy[row] !== -1 ? null : live.addresses[row]!;
}

/** The nodes that a change in a row's cell is for: all that are selected, where the row is one of several. */
const targets = (workbench: Workbench, id: PageId): readonly PageId[] =>
  workbench.chosen.length > 1 && workbench.chosen.includes(id) ? workbench.chosen : [id];

function StateWord({ state: of }: { readonly state: keyof typeof STATE_WORDS }) {
  const look = of === 'live' ? 'text-quiet' : of === 'retired' ? 'text-quiet italic' : 'font-medium text-ink';
  return <span className={look}>{STATE_WORDS[of]}</span>;
}

function Address({ text, isQuiet }: { readonly text: string | null; readonly isQuiet: boolean }) {
  if (text === null) return null;
  return (
    // Where there is no room for all of it, the end is what tells addresses apart: the start gives way.
    <span title={text} dir="rtl" className={`truncate text-left font-mono text-small ${isQuiet ? 'text-quiet' : ''}`}>
      <bdi dir="ltr">{text}</bdi>
    </span>
  );
}

const CELL_BUTTON =
  'inline-flex h-6 max-w-full items-center gap-1.5 truncate rounded px-1.5 -ml-1.5 hover:bg-accent-soft disabled:hover:bg-transparent';

function InMenusCell({ workbench, row }: { readonly workbench: Workbench; readonly row: number }) {
  const node = workbench.derived.outline.nodes[row]!;
  const set = () => {
    const chosen = targets(workbench, node.id);
    workbench.store.apply(chosen.map((page) => ({ name: 'page.set', page, fields: { inMenus: !node.inMenus } })));
  };
  return (
    <button
      type="button"
      tabIndex={-1}
      aria-label={`${node.inMenus ? 'In' : 'Off'} menus: ${textIn(node.title, workbench.site.settings.language)}`}
      disabled={!workbench.mayEdit}
      onClick={set}
      className={CELL_BUTTON}
    >
      <svg width="14" height="14" aria-hidden fill="none">
        <path d="M7 0v14" stroke="currentColor" strokeWidth="1.75" opacity={node.inMenus ? 1 : 0.45} />
        {node.inMenus && <circle cx="7" cy="7" r="4" fill="var(--raised)" stroke="currentColor" strokeWidth="1.75" />}
      </svg>
      <span className={node.inMenus ? '' : 'text-quiet'}>{node.inMenus ? 'In' : 'Off'}</span>
    </button>
  );
}

const HIDDEN_WORDS: Readonly<Record<Hidden, string>> = { no: 'Shown', page: 'Page hidden', branch: 'Branch hidden' };

function HiddenCell({ workbench, row }: { readonly workbench: Workbench; readonly row: number }) {
  const { derived, site } = workbench;
  // The menu itself is made when it is asked for: a screen has many of these cells.
  const [isAsked, setAsked] = useState(false);
  const node = derived.outline.nodes[row]!;
  const by = derived.hiddenBy[row]!;
  const isInherited = by !== -1 && by !== row;
  const set = (value: Hidden) => {
    const chosen = targets(workbench, node.id);
    workbench.store.apply(chosen.map((page) => ({ name: 'page.set', page, fields: { hidden: value } })));
  };
  const language = site.settings.language;
  const words = isInherited ? `By ‘${textIn(derived.outline.nodes[by]!.title, language)}’` : HIDDEN_WORDS[node.hidden];
  const button = (
    <button
      type="button"
      tabIndex={-1}
      aria-haspopup="menu"
      onClick={isAsked ? undefined : () => setAsked(true)}
      disabled={!workbench.mayEdit}
      aria-label={`Hidden: ${textIn(node.title, language)}, ${words}`}
      title={
        isInherited ? `Hidden ${words.charAt(0).toLowerCase()}${words.slice(1)}, which hides its branch` : undefined
      }
      className={`${CELL_BUTTON} ${node.hidden !== 'no' ? 'font-medium text-attention' : isInherited ? 'text-attention' : 'text-quiet'}`}
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
        workbench.focusTree();
      }}
      actions={[
        { words: 'Shown', isChosen: node.hidden === 'no', run: () => set('no') },
        { words: 'Hide this page', isChosen: node.hidden === 'page', run: () => set('page') },
        { words: 'Hide the branch', isChosen: node.hidden === 'branch', run: () => set('branch') },
      ]}
      trigger={button}
    />
  );
}
