import { type KeyboardEvent, type PointerEvent, memo, useState } from 'react';
import { useMedia } from '../ui/use-media.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { type ColumnLayout, NARROWEST, TITLE, WIDEST, useColumnLayout } from './column-layout.ts';
import type { Column } from './columns.tsx';

/** The names of the columns. Between them stand handles that make a column wider or narrower, by pointer or arrow keys. */
export const HeaderRow = memo(function HeaderRow({ columns }: { readonly columns: readonly Column[] }) {
  const { lensParts, site, filter } = useWorkbench();
  const { layout, setLayout } = useColumnLayout(lensParts.columns, site, filter);
  const handles = !useMedia('(pointer: coarse)');
  return (
    <div
      role="rowgroup"
      className="shrink-0 overflow-hidden border-b border-rule bg-paper"
      style={{ scrollbarGutter: 'stable' }}
    >
      <div
        role="row"
        aria-rowindex={1}
        className="grid h-7 items-center pr-2 text-small text-quiet"
        style={{ gridTemplateColumns: 'var(--columns)' }}
      >
        <div role="columnheader" aria-label="Title" className="relative flex h-full items-center pl-13.5">
          Title
          {handles && <WidthHandle column={TITLE} name="Title" layout={layout} onChange={setLayout} />}
        </div>
        {columns.map((one) => (
          <div
            key={one.key}
            role="columnheader"
            aria-label={one.name}
            className="relative flex h-full min-w-0 items-center pr-2"
          >
            <span className="truncate">{one.name}</span>
            {handles && <WidthHandle column={one.key} name={one.name} layout={layout} onChange={setLayout} />}
          </div>
        ))}
      </div>
    </div>
  );
});

const STEP = 16;

interface WidthHandleProps {
  readonly column: string;
  readonly name: string;
  readonly layout: ColumnLayout;
  readonly onChange: (layout: ColumnLayout) => void;
}

function WidthHandle({ column, name, layout, onChange }: WidthHandleProps) {
  const [from, setFrom] = useState<{ x: number; width: number } | null>(null);
  const widthNow = (element: Element) => element.parentElement!.getBoundingClientRect().width;
  const set = (width: number | null) => {
    const widths = { ...layout.widths };
    if (width === null) delete widths[column];
    else widths[column] = Math.round(Math.max(NARROWEST, Math.min(WIDEST, width)));
    onChange({ ...layout, widths });
  };
  const onPointerDown = (event: PointerEvent) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    setFrom({ x: event.clientX, width: widthNow(event.currentTarget) });
  };
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight') return;
    event.preventDefault();
    event.stopPropagation();
    set(widthNow(event.currentTarget) + (event.key === 'ArrowRight' ? STEP : -STEP));
  };
  return (
    // A separator that has a value is a control of WAI-ARIA: it is moved by the pointer and by keys.
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions
    <div
      role="separator"
      aria-orientation="vertical"
      aria-label={`Width of ${name}`}
      aria-valuenow={layout.widths[column] ?? 0}
      aria-valuemin={NARROWEST}
      aria-valuemax={WIDEST}
      aria-valuetext={layout.widths[column] === undefined ? 'as it fits' : `${layout.widths[column]} pixels`}
      // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
      tabIndex={0}
      title="Drag to set the width; double-click to fit"
      onPointerDown={onPointerDown}
      onPointerMove={(event) => from && set(from.width + event.clientX - from.x)}
      onPointerUp={() => setFrom(null)}
      onDoubleClick={() => set(null)}
      onKeyDown={onKeyDown}
      className="absolute top-0 -right-2 z-1 h-full w-6 cursor-col-resize touch-none after:absolute after:inset-y-1.5 after:left-1/2 after:w-px after:bg-rule hover:after:bg-accent focus-visible:after:bg-accent"
    />
  );
}
