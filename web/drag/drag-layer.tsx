import { DndContext, type DragStartEvent } from '@dnd-kit/core';
import { type ReactNode, type Ref, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { topmost } from '#core/arrange/arrange.ts';
import { moveToPlace } from '#core/arrange/landing.ts';
import type { PageId } from '#core/model/ids.ts';
import { branchOf, maybeNodeAt, nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import type { Edit } from '../api/site-store.ts';
import { andBelow, pages } from '../tree/words.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { usePreview } from '../workbench/use-preview.ts';
import { CARRIED } from './carried-look.ts';
import { type CarriedSetting, SettingOnItsWay } from './carried-setting.tsx';
import { dragWords } from './drag-words.ts';
import { followPointer } from './follow-pointer.ts';
import { useDragSensors } from './use-drag-sensors.ts';
import {
  type Drag,
  type DragContext,
  type Grab,
  DragProvider,
  type DropTarget,
  type GiveTarget,
  type Landing,
} from './drag-context.ts';
import { toast } from '../ui/toast.ts';

/**
 * Dragging of pages in every view of the tree. While something is dragged the view under the pointer says where it
 * would land, and the trail strip what that changes; letting go moves it, Escape leaves all as it is.
 */
export function DragLayer({ children }: { readonly children: ReactNode }) {
  const { latest } = useWorkbench();
  const setPreview = usePreview();
  const targets = useRef(new Set<DropTarget>());
  /** There is one sheet beside the tree, and so one list of settings at most. */
  const [giveTarget, setGiveTarget] = useState<GiveTarget | null>(null);
  const [drag, setDrag] = useState<Drag | null>(null);
  const landing = useRef<Landing | null>(null);
  const giving = useRef<string | null>(null);
  const carried = useRef<HTMLParagraphElement>(null);
  const [carriedSetting, setCarriedSetting] = useState<CarriedSetting | null>(null);
  const receivers = useRef<readonly PageId[]>([]);
  const onOver = useCallback((pages: readonly PageId[]) => void (receivers.current = pages), []);
  const sensors = useDragSensors();
  const register = useCallback((target: DropTarget) => {
    targets.current.add(target);
    return () => void targets.current.delete(target);
  }, []);

  const registerGive = useCallback((target: GiveTarget) => {
    setGiveTarget(target);
    return () => setGiveTarget((now) => (now === target ? null : now));
  }, []);

  const start = ({ active, activatorEvent }: DragStartEvent) => {
    if (active.data.current && 'setting' in active.data.current) {
      setCarriedSetting(active.data.current as CarriedSetting);
      return;
    }
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
      const given = giveTarget?.at(point.x, point.y) ?? null;
      if (given !== giving.current) {
        giving.current = given;
        setDrag((before) => before && { ...before, giving: given });
        setPreview(given === null ? null : giveTarget!.edits(moved, given));
      }
      let next: Landing | null = null;
      for (const target of given === null ? targets.current : [])
        next ??= target.landingAt(point.x, point.y, moved, grab);
      if (sameLanding(next, landing.current)) return;
      landing.current = next;
      setDrag((before) => before && { ...before, landing: next });
      if (given === null) setPreview(next && moveToPlace(latest().site, moved, next.place));
    };
    const stopFollowing = followPointer((x, y) => Object.assign(point, { x, y }));
    frame = requestAnimationFrame(look);
    return () => {
      stopFollowing();
      cancelAnimationFrame(frame);
      landing.current = null;
      giving.current = null;
    };
  }, [moved, grab, giveTarget, latest, setPreview]);

  const stop = () => {
    setDrag(null);
    setCarriedSetting(null);
    receivers.current = [];
    setPreview(null);
    latest().focusTree();
  };
  const drop = () => {
    const there = landing.current;
    const given = giving.current;
    const { site, store, setOpen } = latest();
    const give = (edits: Edit[]) => {
      if (edits.length === 0) toast('Nothing was changed: it has that already, or cannot have it.');
      else store.apply(edits);
    };
    if (carriedSetting && giveTarget) {
      if (receivers.current.length > 0) give(giveTarget.edits(receivers.current, carriedSetting.setting));
    } else if (moved && given !== null && giveTarget) give(giveTarget.edits(moved, given));
    else if (moved && there) {
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
  const isCarrying = drag !== null || carriedSetting !== null;
  const context = useMemo<DragContext>(
    () => ({ drag, isCarrying, register, registerGive }),
    [drag, isCarrying, register, registerGive],
  );
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
        {carriedSetting && giveTarget && (
          <SettingOnItsWay carried={carriedSetting} target={giveTarget} onOver={onOver} />
        )}
      </DndContext>
    </DragProvider>
  );
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
      className={CARRIED}
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
