import type { Ref } from 'react';
import { SCREEN_WIDTHS, type ScreenWidth } from '#core/drawing/screen-widths.ts';
import { useWidth } from '../ui/use-width.ts';

/** A page in a screen of a given width; one that is wider than the room for it is seen smaller, as a whole. */
export function ScreenFrame({
  title,
  address,
  width: name,
  ref,
  className,
}: {
  readonly title: string;
  readonly address: string | null;
  readonly width: ScreenWidth;
  readonly ref: Ref<HTMLIFrameElement>;
  readonly className: string;
}) {
  const width = SCREEN_WIDTHS[name];
  const [measure, room] = useWidth();
  const scale = room === 0 ? 1 : Math.min(1, room / width);
  return (
    <div ref={measure} className={`overflow-hidden bg-sunken ${className}`}>
      {address !== null && (
        <iframe
          ref={ref}
          key={address}
          title={title}
          style={{
            width,
            height: `${100 / scale}%`,
            marginLeft: Math.max(0, (room - width) / 2),
            transform: `scale(${scale})`,
            transformOrigin: 'top left',
          }}
          className="border-0 bg-paper shadow-sheet"
        />
      )}
    </div>
  );
}
