import { type KeyboardEvent, type MouseEvent, useEffect, useEffectEvent, useState } from 'react';
import { type LibraryFile, type SetFileBody, fileAddress } from '#contract/files.ts';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';

type Point = Required<Pick<SetFileBody, 'focalX' | 'focalY'>>;

const REST_MS = 400;
const STEP = 0.05;
const MOVES: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-STEP, 0],
  ArrowRight: [STEP, 0],
  ArrowUp: [0, -STEP],
  ArrowDown: [0, STEP],
};

const within = (share: number): number => Math.round(Math.min(1, Math.max(0, share)) * 100) / 100;

/** A picture, with the point that stays in sight where it is cut: set by a click on it, or by the arrow keys. */
export function FocalPoint({
  file,
  onSet,
}: {
  readonly file: LibraryFile;
  /** Null where it cannot be set. */
  readonly onSet: ((set: Point) => void) | null;
}) {
  const { site } = useWorkbench();
  // What is pointed out is shown at once, and said once it rests.
  const [pointed, setPointed] = useState<Point | null>(null);
  const { focalX, focalY } = pointed ?? file;
  const say = useEffectEvent((point: Point) => onSet?.(point));
  useEffect(() => {
    if (!pointed) return;
    const timer = window.setTimeout(() => {
      say(pointed);
      setPointed(null);
    }, REST_MS);
    return () => window.clearTimeout(timer);
  }, [pointed]);
  const picture = (
    <img
      src={fileAddress(site.key, file, 1024)}
      alt={file.alternative || file.name}
      width={file.width ?? undefined}
      height={file.height ?? undefined}
      className="block h-auto max-h-80 w-auto max-w-full"
    />
  );
  if (onSet === null || file.width === null)
    return <div className="self-start overflow-hidden rounded-md border border-rule">{picture}</div>;
  const point = (event: MouseEvent<HTMLButtonElement>) => {
    // A press of a key has no place.
    if (event.detail === 0) return;
    const box = event.currentTarget.getBoundingClientRect();
    setPointed({
      focalX: within((event.clientX - box.left) / box.width),
      focalY: within((event.clientY - box.top) / box.height),
    });
  };
  const move = (event: KeyboardEvent) => {
    const by = MOVES[event.key];
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    setPointed((now) => ({
      focalX: within((now ?? file).focalX + by[0]),
      focalY: within((now ?? file).focalY + by[1]),
    }));
  };
  return (
    <figure className="flex flex-col gap-1">
      <button
        type="button"
        onClick={point}
        onKeyDown={move}
        aria-label={`What stays in sight of ${file.name}: ${Math.round(focalX * 100)} % from the left, ${Math.round(focalY * 100)} % from the top. The arrow keys move it.`}
        className="relative cursor-crosshair self-start overflow-hidden rounded-md border border-rule"
      >
        {picture}
        <span
          aria-hidden
          className="absolute size-6 -translate-1/2 rounded-full border-2 border-white bg-accent/50 shadow-[0_0_0_2px_#0008]"
          style={{ left: `${focalX * 100}%`, top: `${focalY * 100}%` }}
        />
      </button>
      <figcaption className="text-small text-quiet">
        Click on what has to stay in sight where the picture is cut.
      </figcaption>
    </figure>
  );
}
