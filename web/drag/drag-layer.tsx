import { DndContext, type DragStartEvent, MouseSensor, TouchSensor, useSensor, useSensors } from '@dnd-kit/core';
import { type ReactNode, type Ref, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { toast } from 'sonner';
import { topmost } from '#core/arrange/arrange.ts';
import { moveToPlace } from '#core/arrange/landing.ts';
import type { PageId } from '#core/model/ids.ts';
import { branchOf, maybeNodeAt, nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { andBelow, pages } from '../tree/words.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { usePreview } from '../workbench/use-preview.ts';
import { dragWords } from './drag-words.ts';
import {
  type Drag,
  type DragContext,
  type Grab,
  DragProvider,
  type DropTarget,
  type GiveTarget,
  type Landing,
} from './drag-context.ts';

/** A press becomes a drag after so many pixels, so that a click stays a click. */
const STARTS_AFTER = 6;
/** A finger that rests so long on a row takes it up; one that moves scrolls. */
const HOLD_MS = 350;

/**
 * Dragging of pages in every view of the tree. While something is dragged the view under the pointer says where it
 * would land, and the trail strip what that changes; letting go moves it, Escape leaves all as it is.
 */
export function DragLayer({ children }: { readonly children: ReactNode }) {
  const { latest } = useWorkbench();
  const setPreview = usePreview();
  const targets = useRef(new Set<DropTarget>());
  const giveTargets = useRef(new Set<GiveTarget>());
  const [drag, setDrag] = useState<Drag | null>(null);
  const landing = useRef<Landing | null>(null);
  const giving = useRef<{ readonly target: GiveTarget; readonly setting: string } | null>(null);
  const carried = useRef<HTMLParagraphElement>(null);
  const sensors = useSensors(
    useSensor(MouseSensor, { activationConstraint: { distance: STARTS_AFTER } }),
    useSensor(TouchSensor, { activationConstraint: { delay: HOLD_MS, tolerance: STARTS_AFTER } }),
  );
  const register = useCallback((target: DropTarget) => {
    targets.current.add(target);
    return () => void targets.current.delete(target);
  }, []);

  const registerGive = useCallback((target: GiveTarget) => {
    giveTargets.current.add(target);
    return () => void giveTargets.current.delete(target);
  }, []);

  const start = ({ active, activatorEvent }: DragStartEvent) => {
    const { selection, chosen, site, select } = latest();
    const page = active.data.current?.page as PageId;
    const isOneOfSeveral = selection.chosen.has(page);
    if (!isOneOfSeveral) select({ active: page, chosen: new Set([page]), anchor: page });
    const grab = { ...grabOf(activatorEvent), page };
    setDrag({ moved: topmost(site, isOneOfSeveral ? chosen : [page]), grab, landing: null, giving: null });
  };
  const moved = drag?.moved ?? null;
  const grab = drag?.grab ?? null;
  useEffect(() => {
    if (moved === null || grab === null) return;
    let frame = 0;
    const point = { x: -1, y: -1 };
    const look = () => {
      frame = requestAnimationFrame(look);
      if (point.x < 0) return;
      carried.current?.style.setProperty('transform', `translate(${point.x + 14}px, ${point.y + 12}px)`);
      const given = giveAt(giveTargets.current, point.x, point.y);
      if (given?.setting !== giving.current?.setting) {
        giving.current = given;
        setDrag((before) => before && { ...before, giving: given?.setting ?? null });
        setPreview(given && given.target.edits(moved, given.setting));
      }
      let next: Landing | null = null;
      for (const target of given ? [] : targets.current) next ??= target.landingAt(point.x, point.y, moved, grab);
      if (sameLanding(next, landing.current)) return;
      landing.current = next;
      setDrag((before) => before && { ...before, landing: next });
      if (!given) setPreview(next && moveToPlace(latest().site, moved, next.place));
    };
    const follow = ({ clientX, clientY }: { clientX: number; clientY: number }) =>
      Object.assign(point, { x: clientX, y: clientY });
    const followTouch = (event: TouchEvent) => event.touches[0] && follow(event.touches[0]);
    window.addEventListener('mousemove', follow);
    window.addEventListener('touchmove', followTouch);
    frame = requestAnimationFrame(look);
    return () => {
      window.removeEventListener('mousemove', follow);
      window.removeEventListener('touchmove', followTouch);
      cancelAnimationFrame(frame);
      landing.current = null;
      giving.current = null;
    };
  }, [moved, grab, latest, setPreview]);

  const stop = () => {
    setDrag(null);
    setPreview(null);
    latest().focusTree();
  };
  const drop = () => {
    const there = landing.current;
    const given = giving.current;
    const { site, store, setOpen } = latest();
    if (moved && given) {
      const edits = given.target.edits(moved, given.setting);
      if (edits.length === 0) toast('Nothing was changed: it has that already.');
      else store.apply(edits);
    } else if (moved && there) {
      const operations = moveToPlace(site, moved, there.place);
      if (operations.length > 0 && store.apply(operations) === null) {
        if (there.place.parent !== null) setOpen(there.place.parent, true);
      }
    } else if (moved) toast('Nothing was moved: it cannot go there.');
    stop();
  };
  const accessibility = useMemo(
    () =>
      dragWords((id) => {
        const { site } = latest();
        const node = maybeNodeAt(site, id.replace(/^\w+:/, '') as PageId);
        return node ? `‘${textIn(node.title, site.settings.language)}’` : 'The page';
      }, 'By keys, T moves the page to another place, Ctrl and the arrow keys among its siblings, [ out and ] in.'),
    [latest],
  );
  const context = useMemo<DragContext>(() => ({ drag, register, registerGive }), [drag, register, registerGive]);
  return (
    <DragProvider value={context}>
      <DndContext
        sensors={sensors}
        autoScroll={false}
        accessibility={accessibility}
        onDragStart={start}
        onDragEnd={drop}
        onDragCancel={stop}
      >
        {children}
        {drag && <Dragged drag={drag} ref={carried} />}
      </DndContext>
    </DragProvider>
  );
}

/** The setting under a point of the window, of whichever list has it. */
function giveAt(targets: ReadonlySet<GiveTarget>, x: number, y: number) {
  for (const target of targets) {
    const setting = target.at(x, y);
    if (setting !== null) return { target, setting };
  }
  return null;
}

/** What is carried, beside the pointer. */
function Dragged({ drag, ref }: { readonly drag: Drag; readonly ref: Ref<HTMLParagraphElement> }) {
  const { site, lensParts } = useWorkbench();
  const [first] = drag.moved;
  if (first === undefined) return null;
  const below = drag.moved.reduce((count, id) => count + branchOf(site, id).length - 1, 0);
  const title = textIn(nodeAt(site, first).title, site.settings.language);
  return (
    <p
      ref={ref}
      aria-hidden
      // It shows once the pointer has said where it is.
      style={{ transform: 'translate(-999px, 0)' }}
      className="pointer-events-none fixed top-0 left-0 z-50 w-fit max-w-80 truncate rounded-md border border-accent bg-raised px-2.5 py-1 font-medium shadow-sheet"
    >
      {drag.moved.length === 1 ? title : pages(drag.moved.length)}
      <span className="font-normal text-quiet">
        {andBelow(below)}
        {lensParts.dragNote && ` · ${lensParts.dragNote}`}
      </span>
    </p>
  );
}

/** Where a press of the mouse or of a finger is, and in which view of the tree. */
function grabOf(event: Event): Omit<Grab, 'page'> {
  const { clientX, clientY } = 'touches' in event ? (event as TouchEvent).touches[0]! : (event as MouseEvent);
  const isInSheet = (event.target as Element).closest('[role=treegrid]') !== null;
  return { view: isInSheet ? 'sheet' : 'map', x: clientX, y: clientY };
}

const sameLanding = (a: Landing | null, b: Landing | null): boolean =>
  a === b ||
  (a !== null &&
    b !== null &&
    a.view === b.view &&
    a.gap === b.gap &&
    a.isInside === b.isInside &&
    a.place.parent === b.place.parent &&
    a.place.after === b.place.after);
