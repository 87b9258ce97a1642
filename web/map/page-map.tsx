import {
  type KeyboardEvent,
  type MouseEvent,
  useCallback,
  useDeferredValue,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
  useSyncExternalStore,
} from 'react';
import { visibleRows } from '#core/derive/visible-rows.ts';
import { NEW_WIDTH } from '#core/drawing/map-nodes.ts';
import { type Area, isIn } from '#core/drawing/map-layout.ts';
import { mapRails } from '#core/drawing/map-rails.ts';
import { sectionNames } from '#core/drawing/section-names.ts';
import type { PageId } from '#core/model/ids.ts';
import { textIn } from '#core/model/texts.ts';
import { useDrag } from '../drag/drag-context.ts';
import { TitleInput } from '../tree/title-input.tsx';
import { toggled } from '../tree/tree-keys.ts';
import { type Adding, placeKey, useNewPage } from '../tree/use-new-page.ts';
import { isTyping } from '../workbench/keys.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { ExportMapDialog } from './export/export-map-dialog.tsx';
import { MapBar } from './map-bar.tsx';
import { MapCamera, type MapView } from './map-camera.ts';
import { mapKey } from './map-keys.ts';
import { firstCorner } from './first-look.ts';
import { MapLanding, areaOf } from './map-landing.tsx';
import { KeptNodes } from './kept-nodes.ts';
import { MapNodeView, mapDomId } from './map-node.tsx';
import { measure } from './measure.ts';
import { Minimap } from './minimap.tsx';
import { NamesLayer } from './names-layer.tsx';
import { nodeData } from './node-data.ts';
import { RailsLayer } from './rails-layer.tsx';
import { type DrawnMap, useMapLayout } from './use-map-layout.ts';
import { useDirection } from './use-direction.ts';
import { useMapTarget } from './use-map-target.ts';
import { passingOf, tintOfBranch } from '../tree/access-of.ts';
import { numberWords } from '../ui/number-words.ts';

/** Nearer than this each page shows; farther only the rails and the names of sections. */
const NEAR = 0.45;
/** So many pages make a large map. */
const LARGE = 3000;

/** The tree as a diagram. What is selected, open and looked for is the same as in the sheet. */
export function PageMap() {
  const workbench = useWorkbench();
  const { site, derived, lensParts, open, found, editing, past, selection, moment, feedback, guest, latest } =
    workbench;
  const [direction] = useDirection();
  const [exported, setExported] = useState<Area | null>(null);
  const adding = editing?.kind === 'add' ? editing : null;
  // A large map follows a moment later, in a piece of work of its own.
  const shownNow = useMemo(
    () => ({ site, derived, open, found, past, adding, lensParts, moment, feedback, guest }),
    [site, derived, open, found, past, adding, lensParts, moment, feedback, guest],
  );
  const shownLater = useDeferredValue(shownNow);
  const shown = derived.outline.nodes.length > LARGE ? shownLater : shownNow;
  const [kept] = useState(() => new KeptNodes());
  const nodes = useMemo(
    () =>
      kept.of({
        site: shown.site,
        derived: shown.derived,
        rows: shown.found ? shown.found.rows : visibleRows(shown.derived.outline, shown.open),
        marks: shown.past?.comparison.earlier ?? null,
        noteOf: shown.lensParts.notesOf?.(shown),
        adding: shown.adding,
        measure,
      }),
    [kept, shown],
  );
  const drawn = useMapLayout(nodes, direction);
  const [camera] = useState(() => new MapCamera());
  const { attach, hold } = camera;
  const view = useSyncExternalStore(camera.onView, camera.getView);
  useMapTarget(drawn, camera);
  const { drag } = useDrag();
  useFirstLook(drawn, camera);
  useSteady(drawn, camera, selection.active);

  const indexOf = (page: PageId | null) =>
    drawn && page !== null ? drawn.nodes.findIndex((one) => one.page === page) : -1;
  const activeIndex = indexOf(selection.active);
  const fitAll = () =>
    drawn && camera.fit({ left: 0, top: 0, right: drawn.layout.extent.width, bottom: drawn.layout.extent.height });
  const fitBranch = () => drawn && camera.fit(branchArea(drawn, Math.max(0, activeIndex)));
  const onPoint = useCallback(
    (event: MouseEvent, page: PageId) => {
      if (event.button !== 0) return;
      const { selection: now, select } = latest();
      const isMore = event.shiftKey || event.ctrlKey || event.metaKey;
      // Pressing one of several keeps them, so that they can be dragged together; letting go selects it alone.
      const isOneOfSeveral = now.chosen.has(page) && now.chosen.size > 1;
      if (event.type === 'click' ? !isOneOfSeveral || isMore : isOneOfSeveral && !isMore) return;
      select(isMore ? toggled(now, page) : { active: page, chosen: new Set([page]), anchor: page });
    },
    [latest],
  );
  const onKeyDown = (event: KeyboardEvent) => {
    // While something is carried Escape is for that.
    if (isTyping(event.target) || drag !== null || !drawn) return;
    if (mapKey(event, { workbench, drawn, zoomBy: camera.zoomBy, fitAll, fitBranch })) {
      event.preventDefault();
      event.stopPropagation();
    }
  };
  const isNear = (view?.scale ?? 1) >= NEAR;
  return (
    <div className="relative flex min-h-0 flex-1 flex-col overflow-hidden bg-paper">
      <MapBar
        onZoom={camera.zoomBy}
        onFitAll={fitAll}
        onFitBranch={fitBranch}
        onExport={() => setExported(camera.seen())}
      />
      <div
        data-tree-view
        role="tree"
        aria-label="Map of the pages"
        aria-multiselectable
        aria-activedescendant={activeIndex > 0 ? mapDomId(selection.active!) : undefined}
        tabIndex={0}
        onKeyDown={onKeyDown}
        className="group/map min-h-0 flex-1 outline-none"
      >
        {/* The shapes between the tree and its items are not for those who hear it. */}
        <svg
          ref={attach}
          role="presentation"
          className="size-full cursor-grab touch-none select-none active:cursor-grabbing"
        >
          <g ref={hold}>
            {drawn && view && (
              <Drawing
                drawn={drawn}
                view={view}
                isNear={isNear}
                onPoint={onPoint}
                activeIndex={activeIndex}
                adding={adding}
              />
            )}
          </g>
        </svg>
      </div>
      {!drawn && <p className="absolute top-14 left-4 text-quiet">Laying out {numberWords(nodes.length)} pages …</p>}
      {drawn && <Minimap layout={drawn.layout} small={drawn.small} camera={camera} />}
      {exported && drawn && <ExportMapDialog drawn={drawn} seen={exported} onClose={() => setExported(null)} />}
    </div>
  );
}

interface DrawingProps {
  readonly drawn: DrawnMap;
  readonly view: MapView;
  readonly isNear: boolean;
  readonly activeIndex: number;
  readonly adding: Adding | null;
  readonly onPoint: (event: MouseEvent, page: PageId) => void;
}

/** What lies on the map: the rails, and the pages or the names of sections. */
function Drawing({ drawn, view, isNear, activeIndex, adding, onPoint }: DrawingProps) {
  const workbench = useWorkbench();
  const { derived, site, moment, latest } = workbench;
  const { nodes, layout } = drawn;
  const { area, scale } = view;
  const railsArea = isNear ? area : null;
  const rails = useMemo(() => {
    const { outline, states, hiddenBy } = derived;
    const passes = passingOf(site, moment);
    return mapRails(
      layout,
      (index) => {
        const page = nodes[index]!.page;
        const row = page === null ? undefined : outline.rowOf.get(page);
        return row === undefined
          ? { state: 'draft', isCovered: false, tint: -1 }
          : {
              state: states[row]!,
              isCovered: hiddenBy[row] !== -1,
              tint: outline.parent[row] === -1 ? -1 : tintOfBranch(passes, outline.parent[row]!),
            };
      },
      { area: railsArea, runsThrough: railsArea === null },
    );
  }, [layout, nodes, site, moment, derived, railsArea]);
  const names = useMemo(
    () => (isNear ? [] : sectionNames(nodes, layout, scale, area, measure)),
    [isNear, nodes, layout, scale, area],
  );
  const seen = useMemo(() => {
    if (!isNear) return activeIndex > 0 ? [activeIndex] : [];
    return [...nodes.keys()].filter((index) => index === activeIndex || isIn(layout, index, area));
  }, [isNear, activeIndex, nodes, layout, area]);
  const { language } = site.settings;
  const typed = adding && placeOfNew(drawn, adding);
  return (
    <>
      <RailsLayer rails={rails} scale={scale} />
      {seen.map((index) => {
        const node = nodes[index]!;
        if (node.kind === 'site') return <SitePlate key="site" drawn={drawn} />;
        if (node.kind === 'new') return null;
        const data = nodeData(workbench, drawn, index);
        const title = textIn(site.nodes.get(node.page!)?.title ?? {}, language);
        return data && <MapNodeView key={node.page} data={data} title={title} latest={latest} onPoint={onPoint} />;
      })}
      {typed && <NewNode adding={adding} {...typed} />}
      {!isNear && <NamesLayer names={names} scale={scale} />}
      <MapLanding drawn={drawn} scale={scale} />
    </>
  );
}

/** Where a new page is typed; until the layout has a place for it, below the page that it will follow. */
function placeOfNew({ nodes, layout }: DrawnMap, { after, parent }: Adding) {
  const placed = nodes.findIndex((node) => node.kind === 'new');
  if (placed !== -1) return { x: layout.x[placed]!, y: layout.y[placed]!, width: nodes[placed]!.width };
  const near = Math.max(
    0,
    nodes.findIndex((node) => node.page === (after ?? parent)),
  );
  return { x: layout.x[near]! + 12, y: layout.y[near]! + layout.height[near]! + 2, width: NEW_WIDTH };
}

function SitePlate({ drawn: { nodes, layout } }: { readonly drawn: DrawnMap }) {
  const node = nodes[0]!;
  return (
    <g transform={`translate(${layout.x[0]!} ${layout.y[0]!})`} aria-hidden>
      <rect width={node.width} height={node.height} rx={6} fill="var(--ink)" />
      {node.lines.map((line, at) => (
        <text key={at} x={node.textLeft} y={20 + at * 17} fontSize={13} fontWeight={650} fill="var(--paper)">
          {line}
        </text>
      ))}
    </g>
  );
}

function NewNode({
  adding,
  x,
  y,
  width,
}: {
  readonly adding: Adding;
  readonly x: number;
  readonly y: number;
  readonly width: number;
}) {
  const input = useNewPage(adding);
  return (
    <foreignObject x={x} y={y} width={width} height={32} data-map-node="">
      <div className="flex h-8 items-center rounded-md border border-dashed border-accent bg-accent-soft px-1">
        <TitleInput key={placeKey(adding)} {...input} />
      </div>
    </foreignObject>
  );
}

/** At first all of the map is in the window, if that can be read; else the selected page is. */
function useFirstLook(drawn: DrawnMap | null, camera: MapCamera): void {
  const { latest } = useWorkbench();
  const looked = useRef<DrawnMap['layout']['direction'] | null>(null);
  useLayoutEffect(() => {
    if (!drawn || looked.current === drawn.layout.direction) return;
    // The window has its size in the next frame.
    const frame = requestAnimationFrame(() => {
      looked.current = drawn.layout.direction;
      const { extent } = drawn.layout;
      camera.fit({ left: 0, top: 0, right: extent.width, bottom: extent.height });
      if (camera.seen().scale >= NEAR) return;
      const { active } = latest().selection;
      const at = Math.max(
        0,
        drawn.nodes.findIndex((node) => node.page !== null && node.page === active),
      );
      camera.from(firstCorner(drawn.layout, at, camera.box()));
    });
    return () => cancelAnimationFrame(frame);
  }, [drawn, camera, latest]);
}

/** Where the layout changes the selected page stays where it is on the screen; where another one is selected it comes into the window. */
function useSteady(drawn: DrawnMap | null, camera: MapCamera, active: PageId | null): void {
  const stood = useRef<{ page: PageId; layout: DrawnMap['layout']; x: number; y: number } | null>(null);
  const { editing } = useWorkbench();
  const isAdding = editing?.kind === 'add';
  useEffect(() => {
    if (!drawn) return;
    const { nodes, layout } = drawn;
    const index = nodes.findIndex((node) => node.page !== null && node.page === active);
    const before = stood.current;
    stood.current = null;
    if (index !== -1) {
      const [x, y] = [layout.x[index]!, layout.y[index]!];
      stood.current = { page: active!, layout, x, y };
      if (before?.page === active && before.layout !== layout && before.layout.direction === layout.direction) {
        const { scale } = camera.seen();
        camera.moveBy((before.x - x) * scale, (before.y - y) * scale);
      } else if (before && before.page !== active) camera.reveal(areaOf(layout, index));
    }
    const typed = isAdding ? nodes.findIndex((node) => node.kind === 'new') : -1;
    if (typed !== -1) camera.reveal(areaOf(layout, typed));
  }, [drawn, camera, active, isAdding]);
}

/** The area of a node with all that is drawn below it. */
function branchArea({ nodes, layout }: DrawnMap, top: number) {
  const area = { ...areaOf(layout, top) };
  const within = new Set([top]);
  for (let index = top + 1; index < nodes.length && within.has(nodes[index]!.parent); index++) {
    within.add(index);
    const one = areaOf(layout, index);
    area.left = Math.min(area.left, one.left);
    area.top = Math.min(area.top, one.top);
    area.right = Math.max(area.right, one.right);
    area.bottom = Math.max(area.bottom, one.bottom);
  }
  return area;
}
