import { SCREEN_WIDTHS, type ScreenWidth } from '#core/drawing/screen-widths.ts';
import { useMemo } from 'react';
import { type SketchShape, type Tone, drawSketch } from '#core/sketch/draw-sketch.ts';
import type { Surround } from '#core/sketch/surround.ts';
import type { Box, BoxId } from '#core/model/sketch.ts';

/** What is written into a drawing is so high on the screen, in pixels. */
const LETTER_ON_SCREEN = 11;
const NARROWEST = 60;

const FILLS: Readonly<Record<Tone, string>> = {
  paper: 'fill-(--sketch-paper)',
  plate: 'fill-(--sketch-plate)',
  deep: 'fill-(--sketch-deep)',
  line: 'fill-(--sketch-line)',
  quiet: 'fill-quiet',
  ink: 'fill-ink',
};
const EDGES: Readonly<Record<Tone, string>> = {
  paper: 'stroke-(--sketch-paper)',
  plate: 'stroke-(--sketch-plate)',
  deep: 'stroke-(--sketch-deep)',
  line: 'stroke-(--sketch-line)',
  quiet: 'stroke-quiet',
  ink: 'stroke-ink',
};

/**
 * A variant of a sketch, drawn. A press on a box chooses it; whoever has no pointer chooses it in the list that stands beside each drawing.
 * @param room how wide it is shown, in pixels
 */
export function SketchPicture({
  boxes,
  surround,
  at,
  room,
  name,
  chosen = null,
  onChoose,
  onPress,
}: {
  readonly boxes: readonly Box[];
  readonly surround: Surround;
  readonly at: ScreenWidth;
  readonly room: number;
  readonly name: string;
  readonly chosen?: BoxId | null;
  readonly onChoose?: (box: BoxId) => void;
  /** Is told of a press beside the boxes. */
  readonly onPress?: () => void;
}) {
  const width = Math.max(NARROWEST, room);
  const scale = width / SCREEN_WIDTHS[at];
  const drawn = useMemo(() => drawSketch(boxes, surround, at, LETTER_ON_SCREEN / scale), [boxes, surround, at, scale]);
  // Pressing, choosing and typing elsewhere leave it as it is.
  const shapes = useMemo(
    () => drawn.shapes.map((shape, n) => <Drawn key={n} shape={shape} scale={scale} />),
    [drawn, scale],
  );
  return (
    <svg
      role="img"
      aria-label={name}
      viewBox={`0 0 ${drawn.width} ${drawn.height}`}
      width={width}
      height={drawn.height * scale}
      className="block bg-(--sketch-paper) font-sans"
    >
      {shapes}
      {onPress && <rect width={drawn.width} height={drawn.height} className="fill-transparent" onClick={onPress} />}
      {drawn.boxes.map(({ id, x, y, width: wide, height }) => (
        <rect
          key={id}
          x={x}
          y={y}
          width={wide}
          height={height}
          rx={6}
          data-drawn-box={id}
          onClick={onChoose && (() => onChoose(id))}
          strokeWidth={(id === chosen ? 2.5 : 1) / scale}
          className={`fill-transparent ${id === chosen ? 'stroke-accent' : 'stroke-transparent'} ${onChoose ? 'cursor-pointer hover:stroke-accent' : ''}`}
        />
      ))}
    </svg>
  );
}

function Drawn({ shape, scale }: { readonly shape: SketchShape; readonly scale: number }) {
  switch (shape.kind) {
    case 'plate':
      return (
        <rect
          x={shape.x}
          y={shape.y}
          width={shape.width}
          height={shape.height}
          rx={shape.radius}
          strokeWidth={shape.edge ? 1 / scale : 0}
          className={`${shape.fill ? FILLS[shape.fill] : 'fill-none'} ${shape.edge ? EDGES[shape.edge] : ''}`}
        />
      );
    case 'stroke':
      return (
        <polyline
          points={shape.points.map(([x, y]) => `${x},${y}`).join(' ')}
          strokeWidth={1 / scale}
          className={`fill-none ${EDGES[shape.tone]}`}
        />
      );
    case 'text':
      return (
        <text
          x={shape.x}
          y={shape.y}
          fontSize={shape.size}
          fontWeight={shape.isStrong ? 600 : 400}
          className={FILLS[shape.tone]}
        >
          {shape.text}
        </text>
      );
  }
}
