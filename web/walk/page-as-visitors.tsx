import type { ScreenWidth } from '#core/drawing/screen-widths.ts';
import { useEffect, useMemo, useRef, useState } from 'react';
import { accessReason } from '#core/derive/access.ts';
import { EVERYONE, closureOf } from '#core/model/audience.ts';
import type { PageId } from '#core/model/ids.ts';
import { Button } from '../ui/button.tsx';
import { Notice } from '../ui/notice.tsx';
import { useLookedAt } from '../workbench/use-looked-at.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { ScreenFrame } from './screen-frame.tsx';
import { useWalk } from './use-walk.ts';

const WIDTHS: readonly { readonly width: ScreenWidth; readonly words: string }[] = [
  { width: 'desktop', words: 'On a desk' },
  { width: 'telephone', words: 'On a telephone' },
];

/** A page of the draft as visitors will get it, followed as the site is changed. It is shown to somebody who can open it. */
export function PageAsVisitors({
  page,
  className = 'h-80',
}: {
  readonly page: PageId;
  /** How tall it is. */
  readonly className?: string;
}) {
  const { site, derived, shown } = useWorkbench();
  const { audiences } = site.settings;
  const at = useLookedAt();
  const [width, setWidth] = useState<ScreenWidth>('desktop');
  const who = useMemo(
    () =>
      [EVERYONE, ...audiences.map(({ id }) => id)].find(
        (one) => accessReason(site, page, closureOf(audiences, [one]), at).opens,
      ) ?? EVERYONE,
    [site, audiences, page, at],
  );
  const { address, fault } = useWalk(site.key, { isDraft: true, release: null, who, moment: '', hasPassphrases: true });
  const frame = useRef<HTMLIFrameElement>(null);
  const path = derived.addresses[derived.outline.rowOf.get(page) ?? -1] ?? null;
  const { revision, isSaving } = shown;
  useEffect(() => {
    // What is on its way is not on the server yet: the page is fetched when it is.
    if (address === null || path === null || isSaving || !frame.current) return;
    frame.current.src = address + encodeURI(path.slice(1));
  }, [address, path, revision, isSaving]);
  if (path === null) return null;
  return (
    <section aria-label="As visitors get it">
      <div className="mb-1.5 flex flex-wrap items-center gap-1">
        <h3 className="flex-1 font-medium">As visitors get it</h3>
        {WIDTHS.map((one) => (
          <Button
            key={one.width}
            isTight
            look={one.width === width ? 'chosen' : 'quiet'}
            aria-pressed={one.width === width}
            onClick={() => setWidth(one.width)}
          >
            {one.words}
          </Button>
        ))}
      </div>
      {fault && <Notice>{fault}</Notice>}
      <ScreenFrame
        title="The page as visitors get it"
        address={address}
        width={width}
        ref={frame}
        className={`rounded-md border border-edge ${className}`}
      />
    </section>
  );
}
