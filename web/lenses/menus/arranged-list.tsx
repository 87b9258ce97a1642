import { DndContext, type DragMoveEvent, pointerWithin, useDraggable, useDroppable } from '@dnd-kit/core';
import { dragWords } from '../../drag/drag-words.ts';
import { useDragSensors } from '../../drag/use-drag-sensors.ts';
import { type KeyboardEvent, useRef, useState } from 'react';
import {
  type EntryPlace,
  type EntryRow,
  type EntryStep,
  entryRows,
  onArranged,
  placeAfterStep,
  placeInGap,
  takeOut,
} from '#core/arrange/arrange-entries.ts';
import { labelOf } from '#core/derive/menu.ts';
import { pageOfTarget } from '#core/derive/menu.ts';
import { isReachable } from '#core/derive/derived.ts';
import type { PageId } from '#core/model/ids.ts';
import type { ArrangedEntry, EntryId, Menu } from '#core/model/menu.ts';
import { maybeNodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import type { Edit } from '../../api/site-store.ts';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { usePreview } from '../../workbench/use-preview.ts';
import { entryName } from './menu-reasons.ts';
import { arrangedSigns } from './exception-signs.ts';

/** How far a level is set in, in pixels. */
const STEP = 20;

/** The keys that arrange an entry: those of the tree, on the entry. */
const STEPS: Readonly<Record<string, EntryStep>> = { ']': 'nest', '[': 'lift' };

interface Landing extends EntryPlace {
  readonly depth: number;
  /** Before which row of the list it lies. */
  readonly gap: number;
}

interface ArrangedListProps {
  readonly menu: Menu;
  readonly entries: readonly ArrangedEntry[];
  readonly page: PageId | null;
  readonly chosen: EntryId | null;
  readonly onChoose: (entry: EntryId) => void;
}

/** A menu that is arranged by hand: entries are dragged, or moved by the keys that move pages in the tree. */
export function ArrangedList({ menu, entries, page, chosen, onChoose }: ArrangedListProps) {
  const { site, store, select, mayEdit } = useWorkbench();
  const setPreview = usePreview();
  const list = useRef<HTMLOListElement>(null);
  const [dragged, setDragged] = useState<EntryId | null>(null);
  const [landing, setLanding] = useState<Landing | null>(null);
  const sensors = useDragSensors();
  const rows = entryRows(entries);
  const within = new Set(
    dragged === null
      ? []
      : entryRows(rows.filter(({ entry }) => entry.id === dragged).map(({ entry }) => entry)).map(
          ({ entry }) => entry.id,
        ),
  );
  const others = rows.filter(({ entry }) => !within.has(entry.id));

  const editsFor = (entry: EntryId, { under, after }: EntryPlace) =>
    onArranged(site, menu, [{ name: 'entry.move', menu: menu.id, entry, under, after }]) as Edit[];
  const focus = (entry: EntryId) =>
    window.setTimeout(() => list.current?.querySelector<HTMLElement>(`[data-entry="${entry}"]`)?.focus(), 0);
  const step = (entry: EntryId, how: EntryStep) => {
    const place = placeAfterStep(entries, entry, how);
    if (place !== null && store.apply(editsFor(entry, place)) === null) focus(entry);
  };
  const press = (event: KeyboardEvent, entry: EntryId, index: number) => {
    const arrow = event.key === 'ArrowUp' ? 'up' : event.key === 'ArrowDown' ? 'down' : null;
    const how = arrow !== null && event.ctrlKey ? arrow : STEPS[event.key];
    if (arrow !== null && !event.ctrlKey)
      focus(rows[Math.max(0, Math.min(rows.length - 1, index + (arrow === 'up' ? -1 : 1)))]!.entry.id);
    else if (!mayEdit) return;
    else if (how) step(entry, how);
    else if (event.key === 'Delete') {
      if (store.apply(takeOut(site, menu, entry) as Edit[]) === null && rows.length > 1)
        focus((rows[index + 1] ?? rows[index - 1]!).entry.id);
    } else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const move = ({ active, over, delta, activatorEvent }: DragMoveEvent) => {
    const id = active.id as EntryId;
    const start = rows.find(({ entry }) => entry.id === id);
    if (!over || !start || !('clientY' in activatorEvent)) return void (setLanding(null), setPreview(null));
    const y = (activatorEvent.clientY as number) + delta.y;
    const at = others.findIndex(({ entry }) => entry.id === over.id);
    if (at === -1) return void (setLanding(null), setPreview(null));
    const gap = at + (y > over.rect.top + over.rect.height / 2 ? 1 : 0);
    const place = placeInGap(others, gap, start.depth + Math.round(delta.x / STEP));
    if (landing && landing.gap === gap && landing.depth === place.depth) return;
    setLanding({ ...place, gap });
    setPreview(editsFor(id, place));
  };
  const end = () => {
    setDragged(null);
    setLanding(null);
    setPreview(null);
  };
  if (rows.length === 0)
    return <p className="text-quiet">No entries yet. Add one below, or let the menu follow the tree.</p>;
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={pointerWithin}
      accessibility={dragWords(
        (id) => `The entry ‘${entryName(site, menu, id as EntryId)}’`,
        'By keys, Ctrl and the arrow keys move the entry among its siblings, [ out and ] in.',
      )}
      onDragStart={({ active }) => setDragged(active.id as EntryId)}
      onDragMove={move}
      onDragEnd={() => {
        const entry = dragged;
        const place = landing;
        end();
        if (entry !== null && place && store.apply(editsFor(entry, place)) === null) focus(entry);
      }}
      onDragCancel={end}
    >
      <ol ref={list} aria-label="Entries" className="relative">
        {rows.map((row, index) => (
          <Row
            key={row.entry.id}
            row={row}
            isCurrent={page !== null && pageOfTarget(row.entry.target) === page}
            isChosen={chosen === row.entry.id}
            isDragged={within.has(row.entry.id)}
            landing={landing && others[landing.gap]?.entry.id === row.entry.id ? landing.depth : null}
            isTabStop={chosen === null ? index === 0 : chosen === row.entry.id}
            onPress={(event) => press(event, row.entry.id, index)}
            onChoose={() => {
              onChoose(row.entry.id);
              const at = pageOfTarget(row.entry.target);
              if (at !== null && maybeNodeAt(site, at)) select({ active: at, chosen: new Set([at]), anchor: at });
            }}
          />
        ))}
        {landing && landing.gap === others.length && <LandingLine depth={landing.depth} />}
      </ol>
    </DndContext>
  );
}

interface RowProps {
  readonly row: EntryRow;
  readonly isCurrent: boolean;
  readonly isChosen: boolean;
  readonly isDragged: boolean;
  /** The depth at which something would land before it, or null. */
  readonly landing: number | null;
  readonly isTabStop: boolean;
  readonly onPress: (event: KeyboardEvent) => void;
  readonly onChoose: () => void;
}

function Row({
  row: { entry, depth },
  isCurrent,
  isChosen,
  isDragged,
  landing,
  isTabStop,
  onPress,
  onChoose,
}: RowProps) {
  const { site, derived, mayEdit } = useWorkbench();
  const { setNodeRef: setDrop } = useDroppable({ id: entry.id });
  const { setNodeRef: setDrag, listeners } = useDraggable({ id: entry.id, disabled: !mayEdit });
  const page = pageOfTarget(entry.target);
  const row = page === null ? undefined : derived.outline.rowOf.get(page);
  const node = page === null ? undefined : maybeNodeAt(site, page);
  const text = textIn(entry.label, site.settings.language) || (node ? labelOf(site, node) : 'A page that was removed');
  const missing =
    page === null ? null : row === undefined ? 'no longer exists' : isReachable(derived, row) ? null : 'hidden';
  return (
    <li ref={setDrop} className={isDragged ? 'opacity-40' : ''}>
      {landing !== null && <LandingLine depth={landing} />}
      <button
        ref={setDrag}
        type="button"
        {...listeners}
        data-entry={entry.id}
        tabIndex={isTabStop ? 0 : -1}
        aria-current={isCurrent ? 'page' : undefined}
        aria-pressed={isChosen}
        aria-keyshortcuts="Control+ArrowUp Control+ArrowDown ] [ Delete"
        onClick={onChoose}
        onFocus={onChoose}
        onKeyDown={onPress}
        style={{ paddingLeft: 8 + depth * STEP }}
        className={`flex w-full touch-manipulation items-baseline gap-2 rounded py-1 pr-2 text-left hover:bg-sunken aria-[current=page]:bg-accent-soft aria-[current=page]:font-medium ${isChosen ? 'outline-1 outline-accent' : ''}`}
      >
        <span className={`min-w-0 truncate ${missing === null ? '' : 'text-quiet line-through'}`}>{text}</span>
        {missing !== null && <span className="shrink-0 text-tiny text-attention">{missing}</span>}
        {arrangedSigns(entry).map((words) => (
          <span key={words} className="shrink-0 rounded-sm bg-sunken px-1 text-tiny text-quiet">
            {words}
          </span>
        ))}
      </button>
    </li>
  );
}

/** Where the entry would land: a line as deep as it would stand, with what it moves. */
function LandingLine({ depth }: { readonly depth: number }) {
  return (
    <div className="pointer-events-none relative h-0" style={{ marginLeft: 8 + depth * STEP }}>
      <span className="absolute inset-x-0 -top-px h-0.5 bg-accent" />
      <span className="absolute -top-2.5 right-0 rounded-sm bg-accent px-1 text-tiny text-on-accent">
        moves the entry only
      </span>
    </div>
  );
}
