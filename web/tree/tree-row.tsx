import { ArrowUpRight, ChevronDown, ChevronRight, House } from 'lucide-react';
import type { MouseEvent, ReactNode } from 'react';
import type { PageId } from '#core/model/ids.ts';
import { textIn } from '#core/model/texts.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { COLUMNS } from './columns.tsx';
import { Rails } from './rails.tsx';
import { TitleInput } from './title-input.tsx';
import { STATE_WORDS } from './words.ts';

export const rowDomId = (page: PageId): string => `row-${page}`;
export const cellDomId = (page: PageId, column: number): string => `cell-${page}-${column}`;

interface TreeRowProps {
  readonly row: number;
  /** Its place among the rows that show, from 0. */
  readonly index: number;
  readonly isActive: boolean;
  /** The column that the keyboard is in, 0 for the title; -1 where the row as a whole has it. */
  readonly activeColumn: number;
  readonly isContext: boolean;
  readonly onPoint: (event: MouseEvent) => void;
}

/** One row of the tree: its rails, its title, the lens's columns. */
export function TreeRow({ row, index, isActive, activeColumn, isContext, onPoint }: TreeRowProps) {
  const workbench = useWorkbench();
  const { derived, site, lens, selection, open, setOpen, setEditing, mayEdit, editing } = workbench;
  const { outline } = derived;
  const node = outline.nodes[row]!;
  const hasBelow = outline.end[row]! > row + 1;
  const isOpen = hasBelow && (open.has(node.id) || workbench.query !== '' || workbench.onlyDiffering);
  const isChosen = selection.chosen.has(node.id);
  const title = textIn(node.title, site.settings.language);
  const { place, count } = placeAmongSiblings(workbench, row);
  return (
    // The treegrid has the focus and names its active row, so rows take none themselves.
    // eslint-disable-next-line jsx-a11y/interactive-supports-focus
    <div
      role="row"
      id={rowDomId(node.id)}
      aria-level={outline.depth[row]! + 1}
      aria-expanded={hasBelow ? isOpen : undefined}
      aria-selected={isChosen}
      aria-rowindex={index + 2}
      aria-posinset={place}
      aria-setsize={count}
      data-active={isActive || undefined}
      onMouseDown={onPoint}
      className={`grid h-row items-center border-b border-rule/60 pr-2 ${isChosen ? 'bg-accent-soft' : 'hover:bg-sunken/60'} ${isActive && activeColumn === -1 ? 'group-focus-within/tree:outline-2 group-focus-within/tree:-outline-offset-2 group-focus-within/tree:outline-accent' : ''}`}
      style={{ gridTemplateColumns: 'var(--columns)' }}
    >
      <Cell id={cellDomId(node.id, 0)} isActive={isActive && activeColumn === 0} className="pl-1">
        <span title={`${STATE_WORDS[derived.states[row]!]}, ${node.inMenus ? 'in menus' : 'off menus'}`}>
          <Rails derived={derived} row={row} isOpen={isOpen} />
        </span>
        {hasBelow ? (
          // For the pointer: the row itself says that it is open, and the arrow keys open it.
          <button
            type="button"
            tabIndex={-1}
            aria-hidden
            onMouseDown={(event) => event.stopPropagation()}
            onClick={() => setOpen(node.id, !isOpen)}
            className="mr-0.5 inline-flex size-5 shrink-0 items-center justify-center rounded text-quiet hover:bg-accent-soft hover:text-ink"
          >
            {isOpen ? <ChevronDown size={15} aria-hidden /> : <ChevronRight size={15} aria-hidden />}
          </button>
        ) : (
          <span className="mr-0.5 size-5 shrink-0" />
        )}
        {editing?.kind === 'rename' && editing.page === node.id ? (
          <RenameInput page={node.id} title={title} />
        ) : (
          <span
            className={`truncate ${node.type === 'heading' ? 'font-medium tracking-wide text-quiet' : ''} ${derived.hiddenBy[row] !== -1 || isContext ? 'text-quiet' : ''}`}
            title={title}
            onDoubleClick={() => mayEdit && setEditing({ kind: 'rename', page: node.id })}
          >
            {title}
          </span>
        )}
        {derived.home === node.id && (
          <House size={14} role="img" aria-label="Home page" className="ml-1.5 shrink-0 text-accent" />
        )}
        {node.type === 'link' && (
          <ArrowUpRight size={14} role="img" aria-label="Link" className="ml-1 shrink-0 text-quiet" />
        )}
        {node.type === 'heading' && (
          <span className="ml-2 shrink-0 rounded-sm border border-rule px-1 text-tiny text-quiet">heading</span>
        )}
      </Cell>
      {COLUMNS[lens].map((column, at) => (
        <Cell
          key={column.name}
          id={cellDomId(node.id, at + 1)}
          isActive={isActive && activeColumn === at + 1}
          className={column.isMinor ? 'max-md:hidden' : ''}
        >
          {column.cell(workbench, row)}
        </Cell>
      ))}
    </div>
  );
}

function Cell({
  id,
  isActive,
  className,
  children,
}: {
  readonly id: string;
  readonly isActive: boolean;
  readonly className: string;
  readonly children: ReactNode;
}) {
  return (
    <div
      role="gridcell"
      id={id}
      className={`flex h-full min-w-0 items-center overflow-hidden pr-2 ${className} ${isActive ? 'group-focus-within/tree:outline-2 group-focus-within/tree:-outline-offset-2 group-focus-within/tree:outline-accent' : ''}`}
    >
      {children}
    </div>
  );
}

function RenameInput({ page, title }: { readonly page: PageId; readonly title: string }) {
  const { site, store, setEditing, focusTree } = useWorkbench();
  const rename = (text: string) => {
    if (text.trim() !== '' && text.trim() !== title)
      store.apply([{ name: 'page.set', page, fields: { title: { [site.settings.language]: text } } }]);
    setEditing(null);
  };
  return (
    <TitleInput
      label={`New title of ${title}`}
      start={title}
      onEnter={(text) => {
        rename(text);
        focusTree();
      }}
      onLeave={rename}
      onCancel={() => {
        setEditing(null);
        focusTree();
      }}
    />
  );
}

function placeAmongSiblings(
  { site, derived }: Pick<ReturnType<typeof useWorkbench>, 'site' | 'derived'>,
  row: number,
): { place: number; count: number } {
  const node = derived.outline.nodes[row]!;
  const siblings = site.children.get(node.parent) ?? [];
  return { place: siblings.indexOf(node.id) + 1, count: siblings.length };
}
