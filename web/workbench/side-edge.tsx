import { type KeyboardEvent, type PointerEvent, useRef } from 'react';

export const NARROWEST_SIDE = 320;
export const WIDEST_SIDE = 900;
const STEP = 24;

const within = (width: number): number => Math.max(NARROWEST_SIDE, Math.min(WIDEST_SIDE, Math.round(width)));

/** The edge between the tree and what stands beside it: dragged, or moved by the arrow keys, it makes the sheet wider or narrower. */
export function SideEdge({ width, onWidth }: { readonly width: number; readonly onWidth: (width: number) => void }) {
  const from = useRef<{ readonly x: number; readonly width: number } | null>(null);
  const down = (event: PointerEvent<HTMLDivElement>) => {
    event.preventDefault();
    event.currentTarget.setPointerCapture(event.pointerId);
    from.current = { x: event.clientX, width };
  };
  const move = (event: PointerEvent) => {
    if (from.current) onWidth(within(from.current.width + from.current.x - event.clientX));
  };
  const key = (event: KeyboardEvent) => {
    const step = { ArrowLeft: STEP, ArrowRight: -STEP }[event.key];
    if (step === undefined) return;
    event.preventDefault();
    onWidth(within(width + step));
  };
  return (
    // A separator that can be moved is a control, with the keys of one.
    // eslint-disable-next-line jsx-a11y/no-noninteractive-element-interactions
    <div
      role="separator"
      aria-label="Between the tree and the settings"
      aria-orientation="vertical"
      aria-valuenow={width}
      aria-valuemin={NARROWEST_SIDE}
      aria-valuemax={WIDEST_SIDE}
      // eslint-disable-next-line jsx-a11y/no-noninteractive-tabindex
      tabIndex={0}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={() => (from.current = null)}
      onPointerCancel={() => (from.current = null)}
      onKeyDown={key}
      className="absolute inset-y-0 -left-3 z-10 w-6 cursor-col-resize touch-none outline-none after:absolute after:inset-y-0 after:left-[11px] after:w-0.5 hover:after:bg-accent focus-visible:after:bg-accent max-md:hidden"
    />
  );
}
