import type { ScreenWidth } from '#core/drawing/screen-widths.ts';
import { useMemo, useRef } from 'react';
import { leastContrastOfWords } from '#core/look/schemes.ts';
import { TYPE_PAIRS, pairName } from '#core/look/type-pairs.ts';
import type { Look, Screen } from '#core/model/look.ts';
import type { Site } from '#core/model/site.ts';
import { Button } from '../ui/button.tsx';
import { Notice } from '../ui/notice.tsx';
import { ScreenFrame } from '../walk/screen-frame.tsx';
import { useStep } from '../walk/use-step.ts';
import { useWalk } from '../walk/use-walk.ts';
import type { NamedLook } from './looks-to-compare.ts';

/** One look on a page of the draft, as everyone has it, with what it is made of and the way to take it. */
export function OneLook({
  site,
  named: { name, look },
  width,
  screen,
  path,
  onGo,
  onTake,
}: {
  readonly site: Site;
  readonly named: NamedLook;
  readonly width: ScreenWidth;
  readonly screen: Screen;
  readonly path: string;
  /** Is told each page that is gone to by a link. */
  readonly onGo: (path: string) => void;
  /** Null for who may not. */
  readonly onTake: ((look: Look) => void) | null;
}) {
  const frame = useRef<HTMLIFrameElement>(null);
  const { address, fault } = useWalk(site.key, {
    isDraft: true,
    release: null,
    who: 'everyone',
    moment: '',
    hasPassphrases: false,
    look,
    screen,
  });
  useStep(frame, address, path, onGo);
  const made = look ?? site.settings.look;
  const pair = TYPE_PAIRS.find(({ id }) => id === made.pair)!;
  return (
    <section
      aria-label={name}
      className="flex min-h-0 min-w-0 flex-1 flex-col border-r border-rule last:border-0 max-md:min-h-[30rem]"
    >
      <div className="flex min-h-14 flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule bg-paper px-3 py-1.5">
        <div className="min-w-0 flex-1">
          <h2 className="flex items-center gap-2 font-medium">
            {name}
            {[made.colour, made.accent].map(
              (colour) =>
                colour !== null && (
                  <span
                    key={colour}
                    title={colour}
                    className="size-4 rounded-sm border border-rule"
                    style={{ background: colour }}
                  >
                    <span className="sr-only">{colour}</span>
                  </span>
                ),
            )}
          </h2>
          <p className="text-small text-quiet">
            {pairName(pair)}
            <br />
            <Contrasts look={made} />
          </p>
        </div>
        {look && onTake && (
          <Button isTight look="main" aria-label={`Take this look: ${name}`} onClick={() => onTake(look)}>
            Take this look
          </Button>
        )}
      </div>
      {fault && <Notice>{fault}</Notice>}
      <ScreenFrame title={`${name}: the site`} address={address} width={width} ref={frame} className="min-h-0 flex-1" />
    </section>
  );
}

/** The least contrast that occurs in the look, of words; signs need less (WCAG 2.2, 1.4.3 and 1.4.11). */
function Contrasts({ look: { colour, accent } }: { readonly look: Look }) {
  const words = useMemo(() => leastContrastOfWords({ colour, accent }), [colour, accent]);
  // What is cut off is never said to be more than it is.
  return <>Contrast {(Math.floor(words * 10) / 10).toFixed(1)} : 1 or more</>;
}
