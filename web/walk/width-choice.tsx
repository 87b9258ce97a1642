import type { ScreenWidth } from '#core/drawing/screen-widths.ts';
import { type LucideIcon, Monitor, Smartphone, Tablet } from 'lucide-react';
import { IconButton } from '../ui/button.tsx';

const WIDTHS: readonly { readonly width: ScreenWidth; readonly words: string; readonly Sign: LucideIcon }[] = [
  { width: 'desktop', words: 'As on a desktop', Sign: Monitor },
  { width: 'tablet', words: 'As on a tablet', Sign: Tablet },
  { width: 'telephone', words: 'As on a telephone', Sign: Smartphone },
];

/** How wide the screen is on which something is seen. */
export function WidthChoice({
  label,
  width,
  className = 'flex',
  onChoose,
}: {
  readonly label: string;
  readonly width: ScreenWidth;
  readonly className?: string;
  readonly onChoose: (width: ScreenWidth) => void;
}) {
  return (
    <span role="group" aria-label={label} className={className}>
      {WIDTHS.map(({ width: one, words, Sign }) => (
        <IconButton
          key={one}
          name={words}
          aria-pressed={one === width}
          onClick={() => onChoose(one)}
          className={one === width ? 'bg-accent-soft text-accent' : ''}
        >
          <Sign size={16} aria-hidden />
        </IconButton>
      ))}
    </span>
  );
}
