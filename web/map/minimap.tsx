import { type PointerEvent, memo, useEffect, useRef } from 'react';
import type { MapLayout } from '#core/drawing/map-layout.ts';
import type { SmallMap } from '#core/drawing/minimap.ts';
import type { MapCamera } from './map-camera.ts';

/** The whole map, small, with the part that is in the window; pressing it goes there. */
export const Minimap = memo(function Minimap({
  layout: { extent },
  small: { scale, rails },
  camera,
}: {
  readonly layout: MapLayout;
  readonly small: SmallMap;
  readonly camera: MapCamera;
}) {
  const frame = useRef<SVGRectElement>(null);
  const [width, height] = [Math.max(24, extent.width * scale), Math.max(24, extent.height * scale)];
  useEffect(() => {
    const follow = () => {
      const { left, top, right, bottom } = camera.seen();
      const box = frame.current;
      if (!box) return;
      box.setAttribute('x', `${left}`);
      box.setAttribute('y', `${top}`);
      box.setAttribute('width', `${right - left}`);
      box.setAttribute('height', `${bottom - top}`);
    };
    follow();
    return camera.onMove(follow);
  }, [camera, extent]);
  const go = (event: PointerEvent<SVGSVGElement>) => {
    if (event.buttons === 0) return;
    const box = event.currentTarget.getBoundingClientRect();
    camera.centre((event.clientX - box.left) / scale, (event.clientY - box.top) / scale);
  };
  return (
    <div className="absolute right-3 bottom-3 rounded-md border border-rule bg-raised/95 p-1.5 shadow-sheet max-md:hidden">
      <svg
        width={width}
        height={height}
        viewBox={`0 0 ${width / scale} ${height / scale}`}
        aria-hidden
        className="block cursor-crosshair touch-none overflow-hidden"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          go(event);
        }}
        onPointerMove={go}
      >
        <path
          d={rails}
          transform={`scale(${1 / scale})`}
          fill="none"
          stroke="var(--quiet)"
          strokeWidth={1}
          vectorEffect="non-scaling-stroke"
        />
        <rect
          ref={frame}
          fill="var(--accent)"
          fillOpacity={0.12}
          stroke="var(--accent)"
          strokeWidth={1.5}
          vectorEffect="non-scaling-stroke"
        />
      </svg>
    </div>
  );
});
