import { has } from '#core/model/permission.ts';
import { useDraggable } from '@dnd-kit/core';
import { ArrowUpRight, ChevronDown, ChevronRight, House, MessageSquare } from 'lucide-react';
import { type MouseEvent, type ReactNode, memo } from 'react';
import type { PageId } from '#core/model/ids.ts';
import type { Workbench } from '../workbench/workbench-context.tsx';
import { railColor } from './access-of.ts';
import { HereSign } from './here-sign.tsx';
import { Rails } from './rails.tsx';
import { RenameInput } from './rename-input.tsx';
import { type RowData, sameRow } from './row-data.ts';
import { STATE_WORDS } from './words.ts';

export const rowDomId = (page: PageId): string => `row-${page}`;
export const cellDomId = (page: PageId, column: number): string => `cell-${page}-${column}`;

interface TreeRowProps {
  readonly data: RowData;
  readonly latest: () => Workbench;
  readonly onPoint: (event: MouseEvent, page: PageId) => void;
}

const OUTLINE =
  'group-focus-within/tree:outline-2 group-focus-within/tree:-outline-offset-2 group-focus-within/tree:outline-accent';

/** One row of the tree: its rails, its title, the lens's columns. Drawn anew only when what it shows has changed. */
export const TreeRow = memo(
  function TreeRow({ data, latest, onPoint }: TreeRowProps) {
    const { page, title, isActive, activeColumn, isChosen } = data;
    const { setNodeRef, listeners } = useDraggable({
      id: `row:${page}`,
      data: { page },
      disabled: !has(data.permissions, 'shape') || data.isRenaming,
    });
    return (
      // The treegrid has the focus and names its active row, so rows take none themselves.
      // eslint-disable-next-line jsx-a11y/interactive-supports-focus, jsx-a11y/click-events-have-key-events
      <div
        ref={setNodeRef}
        role="row"
        id={rowDomId(page)}
        aria-level={data.rails.depth + 1}
        aria-expanded={data.hasBelow ? data.isOpen : undefined}
        aria-selected={isChosen}
        aria-rowindex={data.index + 2}
        aria-posinset={data.place}
        aria-setsize={data.count}
        data-active={isActive || undefined}
        onMouseDown={(event) => {
          listeners?.onMouseDown?.(event);
          onPoint(event, page);
        }}
        onTouchStart={listeners?.onTouchStart as undefined}
        onClick={(event) => onPoint(event, page)}
        className={`grid h-row items-center border-b border-rule/60 pr-2 ${isChosen ? 'bg-accent-soft' : data.mark === 'none' ? 'hover:bg-sunken/60' : data.mark === 'full' ? 'bg-marked' : 'bg-marked/40'} ${data.mark === 'full' ? 'shadow-marked' : ''} ${data.isCut ? 'opacity-50' : ''} ${isActive && activeColumn === -1 ? OUTLINE : ''}`}
        style={{ gridTemplateColumns: 'var(--columns)' }}
      >
        <Cell id={cellDomId(page, 0)} isActive={isActive && activeColumn === 0} className="pl-1">
          <TitleCell data={data} latest={latest} />
        </Cell>
        {data.columns.map((column, at) => (
          <Cell
            key={column.key}
            id={cellDomId(page, at + 1)}
            isActive={isActive && activeColumn === at + 1}
            className=""
          >
            {column.cell(data.values[at]!, {
              page,
              title,
              mayEdit: column.edits !== undefined && has(data.permissions, column.edits),
              latest,
            })}
          </Cell>
        ))}
      </div>
    );
  },
  (before, after) => before.onPoint === after.onPoint && sameRow(before.data, after.data),
);

function TitleCell({ data, latest }: Pick<TreeRowProps, 'data' | 'latest'>) {
  const { page, title, rails, isOpen } = data;
  return (
    <>
      <span title={`${STATE_WORDS[rails.state]}, ${rails.hasStop && !rails.isCovered ? 'in menus' : 'off menus'}`}>
        <Rails {...rails} />
      </span>
      {data.hasBelow ? (
        // For the pointer: the row itself says that it is open, and the arrow keys open it.
        <button
          type="button"
          tabIndex={-1}
          aria-hidden
          onMouseDown={(event) => event.stopPropagation()}
          onClick={(event) => {
            event.stopPropagation();
            latest().setOpen(page, !isOpen);
          }}
          className="-ml-0.5 inline-flex size-6 shrink-0 items-center justify-center rounded text-quiet hover:bg-accent-soft hover:text-ink"
        >
          {isOpen ? <ChevronDown size={15} aria-hidden /> : <ChevronRight size={15} aria-hidden />}
        </button>
      ) : (
        <span className="-ml-0.5 size-6 shrink-0" />
      )}
      {data.isRenaming ? (
        <RenameInput page={page} title={title} latest={latest} />
      ) : (
        <span
          className={`truncate ${data.type === 'heading' ? 'font-medium tracking-wide text-quiet' : ''} ${data.isQuiet ? 'text-quiet' : ''}`}
          title={title}
          onDoubleClick={() => has(data.permissions, 'shape') && latest().setEditing({ kind: 'rename', page })}
        >
          {title}
        </span>
      )}
      {data.isHome && <House size={14} role="img" aria-label="Home page" className="ml-1.5 shrink-0 text-accent" />}
      {data.type === 'link' && (
        <ArrowUpRight size={14} role="img" aria-label="Link" className="ml-1 shrink-0 text-quiet" />
      )}
      {data.type === 'heading' && (
        <span className="ml-2 shrink-0 rounded-sm border border-rule px-1 text-tiny text-quiet">heading</span>
      )}
      {data.here !== '' && <HereSign names={data.here} />}
      {data.isPractice && (
        <span
          title="Nothing here ever goes live"
          className="ml-2 shrink-0 rounded-sm border border-dashed border-accent px-1 text-tiny text-accent"
        >
          practice
        </span>
      )}
      {rails.passing.length > 0 && <Passing signs={rails.passing} />}
      {data.talk + data.talkBelow > 0 && <Talk here={data.talk} below={data.talkBelow} />}
    </>
  );
}

/** Who passes the gate of a row: letters in the tints of the audiences, named for whoever points at them or hears them. */
function Passing({ signs }: { readonly signs: RowData['rails']['passing'] }) {
  const words = `Opens to ${signs.map(({ name }) => name).join(', ')}`;
  return (
    <span
      role="img"
      aria-label={words}
      title={words}
      className="ml-2 flex shrink-0 gap-1 rounded-sm border border-rule px-1 text-tiny font-medium"
    >
      {signs.slice(0, 3).map(({ audience, letters, tint }) => (
        <span key={audience} style={{ color: railColor(tint) }}>
          {letters}
        </span>
      ))}
      {signs.length > 3 && <span className="text-quiet">+{signs.length - 3}</span>}
    </span>
  );
}

/** How many comments wait: on the page, and in its branch where that is closed. */
function Talk({ here, below }: { readonly here: number; readonly below: number }) {
  const all = here + below;
  const words = `${all === 1 ? 'One open comment' : `${all} open comments`}${here === 0 ? ' below' : below === 0 ? '' : `, ${below} of them below`}`;
  return (
    <span
      role="img"
      aria-label={words}
      title={words}
      className={`ml-2 flex shrink-0 items-center gap-0.5 text-tiny font-medium ${here > 0 ? 'text-attention' : 'text-quiet'}`}
    >
      <MessageSquare size={13} aria-hidden /> {all}
    </span>
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
      className={`flex h-full min-w-0 items-center pr-2 ${className} ${isActive ? OUTLINE : ''}`}
    >
      {children}
    </div>
  );
}
