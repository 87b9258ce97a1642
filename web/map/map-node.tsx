import { useDraggable } from '@dnd-kit/core';
import { type MouseEvent, memo } from 'react';
import { TITLE_LINE, noteTop, noteWordsLeft } from '#core/drawing/map-nodes.ts';
import { ORIGIN_SIGNS } from '#core/drawing/origin-signs.ts';
import type { PageId } from '#core/model/ids.ts';
import { RenameInput } from '../tree/rename-input.tsx';
import type { Workbench } from '../workbench/workbench-context.tsx';
import { MAP_TYPE } from './measure.ts';
import { type NodeData, nodeWords, sameNode } from './node-data.ts';

export const mapDomId = (page: PageId): string => `map-${page}`;

interface MapNodeProps {
  readonly data: NodeData;
  readonly title: string;
  readonly latest: () => Workbench;
  readonly onPoint: (event: MouseEvent, page: PageId) => void;
}

/** One page of the map: a plate on its rail, with its number, its title and its signs. */
export const MapNodeView = memo(
  function MapNodeView({ data, title, latest, onPoint }: MapNodeProps) {
    const { node, x, y } = data;
    const page = node.page!;
    const { setNodeRef, listeners } = useDraggable({
      id: `map:${page}`,
      data: { page },
      disabled: !data.mayShape || data.isRenaming,
    });
    return (
      // The map has the focus and names its active node, so nodes take none themselves.
      <g data-map-node="" transform={`translate(${x} ${y})`} opacity={data.isCut ? 0.5 : undefined}>
        <g
          ref={setNodeRef as unknown as (element: SVGGElement | null) => void}
          role="treeitem"
          id={mapDomId(page)}
          aria-label={nodeWords(data, title)}
          aria-level={data.depth + 1}
          aria-posinset={data.place}
          aria-setsize={data.count}
          aria-expanded={data.below > 0 ? data.isOpen : undefined}
          aria-selected={data.isChosen}
          className="cursor-pointer"
          onMouseDown={(event) => {
            listeners?.onMouseDown?.(event);
            onPoint(event, page);
          }}
          onClick={(event) => onPoint(event, page)}
          onDoubleClick={() => data.mayShape && latest().setEditing({ kind: 'rename', page })}
        >
          <Plate data={data} />
          {data.isRenaming ? (
            <foreignObject x={6} y={2} width={Math.max(node.width, 200)} height={30}>
              <RenameInput page={page} title={title} latest={latest} />
            </foreignObject>
          ) : (
            <Words data={data} title={title} />
          )}
          {node.note && <Note data={data} />}
          <Signs data={data} />
        </g>
        {data.below > 0 && <Fold data={data} page={page} latest={latest} />}
      </g>
    );
  },
  (before, after) =>
    before.onPoint === after.onPoint && before.title === after.title && sameNode(before.data, after.data),
);

/** Its border says the state as the rails do: dashed, solid, double, thin and grey. */
function Plate({ data: { node, state, isChosen, isActive, hidden, mark } }: { readonly data: NodeData }) {
  const { width, height } = node;
  return (
    <>
      {state === 'edited' && (
        <rect x={-2.5} y={-2.5} width={width + 5} height={height + 5} rx={8} fill="none" stroke="var(--ink)" />
      )}
      <rect
        width={width}
        height={height}
        rx={6}
        fill={isChosen ? 'var(--accent-soft)' : mark === 'none' ? 'var(--raised)' : 'var(--marked)'}
        stroke={state === 'retired' || hidden !== 'no' ? 'var(--edge)' : 'var(--ink)'}
        strokeWidth={state === 'retired' ? 0.75 : 1}
        strokeDasharray={state === 'draft' ? '3.5 3' : undefined}
      />
      {mark === 'full' && <path d={`M3 6v${height - 12}`} stroke="var(--accent)" strokeWidth={3} />}
      {isActive && (
        <rect
          x={-4}
          y={-4}
          width={width + 8}
          height={height + 8}
          rx={9}
          fill="none"
          stroke="var(--accent)"
          strokeWidth={2}
          className="invisible group-focus-visible/map:visible group-focus/map:visible"
        />
      )}
    </>
  );
}

/** One text, so that what is read is what is seen: the number, the title, what has become of it. */
function Words({
  data: { node, isQuiet, isHeading },
  title: whole,
}: {
  readonly data: NodeData;
  readonly title: string;
}) {
  const { title, number } = MAP_TYPE;
  return (
    <text
      x={10}
      y={20}
      fontFamily={title.family}
      fontSize={title.size}
      fontWeight={title.weight}
      fontStyle={isHeading ? 'italic' : undefined}
      fill={isQuiet || isHeading ? 'var(--quiet)' : 'var(--ink)'}
    >
      {node.lines.at(-1)?.endsWith('…') && <title>{whole}</title>}
      <tspan
        fontFamily={number.family}
        fontSize={number.size}
        fontWeight={number.weight}
        fontStyle="normal"
        fill="var(--quiet)"
      >
        {`${node.number} `}
      </tspan>
      {node.lines.map((line, at) => (
        <tspan key={at} x={node.textLeft} y={20 + at * TITLE_LINE}>
          {`${line} `}
        </tspan>
      ))}
      {node.mark && (
        <tspan
          x={node.textLeft}
          y={19 + node.lines.length * TITLE_LINE}
          fontFamily={number.family}
          fontSize={number.size}
          fontStyle="normal"
          fill="var(--attention)"
        >
          {node.mark}
        </tspan>
      )}
    </text>
  );
}

/** What the lens says of it: words, after the sign of where it comes from. */
function Note({ data: { node } }: { readonly data: NodeData }) {
  const { number } = MAP_TYPE;
  const note = node.note!;
  const y = noteTop(node);
  return (
    <>
      {note.origin !== null && (
        <path
          d={ORIGIN_SIGNS[note.origin]}
          transform={`translate(${node.textLeft} ${y - 11})`}
          fill="none"
          stroke="var(--accent)"
          strokeWidth={1.75}
          strokeLinejoin="round"
        />
      )}
      <text
        x={node.textLeft + noteWordsLeft(note)}
        y={y}
        fontFamily={number.family}
        fontSize={number.size}
        fontWeight={number.weight}
        fill="var(--quiet)"
      >
        {note.words}
      </text>
    </>
  );
}

/** The stop where the rail arrives, the cover of what is hidden, and the signs at the far end. */
function Signs({
  data: { node, isAcross, inMenus, hasGate, hidden, state, isHome, isLink },
}: {
  readonly data: NodeData;
}) {
  const [x, y] = isAcross ? [0, node.height / 2] : [node.width / 2, 0];
  const stroke = hidden !== 'no' || state === 'retired' ? 'var(--edge)' : 'var(--ink)';
  const signX = node.width - 15;
  return (
    <>
      {hasGate && (
        <path
          d={isAcross ? `M${x - 12} ${y - 5}v10M${x - 8} ${y - 5}v10` : `M${x - 5} ${y - 12}h10M${x - 5} ${y - 8}h10`}
          stroke="var(--accent)"
          strokeWidth={2}
        />
      )}
      {inMenus && <circle cx={x} cy={y} r={4.5} fill="var(--raised)" stroke={stroke} strokeWidth={2} />}
      {hidden !== 'no' && (
        <path
          d={isAcross ? `M${x - 8} ${y + 8}a8 8.5 0 0 1 0 -16` : `M${x - 8} ${y - 6}a8 8.5 0 0 1 16 0`}
          fill="none"
          stroke="var(--attention)"
          strokeWidth={2.25}
          strokeLinecap="round"
        />
      )}
      {isHome && (
        <path
          d={`M${signX - 5} 16.5l5 -5l5 5M${signX - 3.5} 15.5v5h7v-5`}
          fill="none"
          stroke="var(--accent)"
          strokeWidth={1.5}
        />
      )}
      {isLink && (
        <path
          d={`M${signX - 3} 20l6.5 -6.5m-5 0h5v5`}
          fill="none"
          stroke="var(--quiet)"
          strokeWidth={1.5}
          transform={isHome ? 'translate(-19 0)' : undefined}
        />
      )}
    </>
  );
}

/** Opens and closes the branch; closed, it says how many pages are below. */
function Fold({
  data: { node, isAcross, isOpen, below },
  page,
  latest,
}: {
  readonly data: NodeData;
  readonly page: PageId;
  readonly latest: () => Workbench;
}) {
  const words = isOpen ? '–' : `+${below}`;
  const width = isOpen ? 16 : 14 + words.length * 6;
  const [x, y] = isAcross ? [node.width + 4, node.height / 2 - 8] : [node.width / 2 - width / 2, node.height + 3];
  return (
    // For the pointer: the node itself says that it is open, and the keys open it.
    <g
      transform={`translate(${x} ${y})`}
      aria-hidden
      onMouseDown={(event) => event.stopPropagation()}
      onDoubleClick={(event) => event.stopPropagation()}
      onClick={(event) => {
        event.stopPropagation();
        latest().setOpen(page, !isOpen);
      }}
    >
      <rect
        width={width}
        height={16}
        rx={8}
        fill={isOpen ? 'var(--paper)' : 'var(--accent)'}
        stroke={isOpen ? 'var(--edge)' : 'none'}
      />
      <text
        x={width / 2}
        y={11.5}
        textAnchor="middle"
        fontFamily={MAP_TYPE.number.family}
        fontSize={10}
        fill={isOpen ? 'var(--quiet)' : 'var(--on-accent)'}
      >
        {words}
      </text>
    </g>
  );
}
