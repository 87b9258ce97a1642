import { type LucideIcon, Monitor, Smartphone, Tablet } from 'lucide-react';
import type { SketchWidth } from '#core/sketch/draw-sketch.ts';
import { IconButton } from '../ui/button.tsx';

const WIDTHS: readonly { readonly at: SketchWidth; readonly words: string; readonly Sign: LucideIcon }[] = [
  { at: 'desktop', words: 'As on a desktop', Sign: Monitor },
  { at: 'tablet', words: 'As on a tablet', Sign: Tablet },
  { at: 'telephone', words: 'As on a telephone', Sign: Smartphone },
];

/** At which width sketches are drawn. */
export function WidthChoice({
  at,
  onChoose,
}: {
  readonly at: SketchWidth;
  readonly onChoose: (at: SketchWidth) => void;
}) {
  return (
    <span role="group" aria-label="Width of the drawings" className="flex">
      {WIDTHS.map(({ at: one, words, Sign }) => (
        <IconButton
          key={one}
          name={words}
          aria-pressed={one === at}
          onClick={() => onChoose(one)}
          className={one === at ? 'bg-accent-soft text-accent' : ''}
        >
          <Sign size={16} aria-hidden />
        </IconButton>
      ))}
    </span>
  );
}
