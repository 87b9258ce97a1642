import { useEffect, useRef, useState } from 'react';
import type { PageId } from '#core/model/ids.ts';
import { usePreview } from '../workbench/use-preview.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { CARRIED } from './carried-look.ts';
import type { GiveTarget } from './drag-context.ts';
import { followPointer } from './follow-pointer.ts';

/** One of the settings that is carried to rows of the tree, by its id and its name. */
export interface CarriedSetting {
  readonly setting: string;
  readonly name: string;
}

/** What is dragged of the settings, with the row it is over; letting go gives it to that row, or to all that are selected with it. */
export function SettingOnItsWay({
  carried: { setting, name },
  target,
  onOver,
}: {
  readonly carried: CarriedSetting;
  readonly target: GiveTarget;
  /** Is told the pages that it would be given to; none where it is over no row. */
  readonly onOver: (pages: readonly PageId[]) => void;
}) {
  const { latest } = useWorkbench();
  const consider = usePreview();
  const label = useRef<HTMLParagraphElement>(null);
  const [box, setBox] = useState<DOMRect | null>(null);
  useEffect(() => {
    let row: Element | null = null;
    return followPointer((x, y) => {
      label.current?.style.setProperty('transform', `translate(${x + 14}px, ${y + 12}px)`);
      const next = document.elementFromPoint(x, y)?.closest(ROWS) ?? null;
      if (next === row) return;
      row = next;
      setBox(row?.getBoundingClientRect() ?? null);
      const pages = row === null ? [] : pagesAt(row, latest().chosen);
      onOver(pages);
      const edits = target.edits(pages, setting);
      consider(edits.length > 0 ? edits : null);
    });
  }, [latest, consider, onOver, target, setting]);
  return (
    <>
      {box && (
        <div
          aria-hidden
          className="pointer-events-none fixed z-40 rounded-md border-2 border-accent"
          style={{ left: box.left, top: box.top, width: box.width, height: box.height }}
        />
      )}
      <p ref={label} aria-hidden style={{ transform: 'translate(-999px, 0)' }} className={CARRIED}>
        {name}
      </p>
    </>
  );
}

const ROWS = '[role=row][id^="row-"], [role=treeitem][id^="map-"]';

/** A row that is one of several selected ones stands for all of them. */
function pagesAt(row: Element, chosen: readonly PageId[]): readonly PageId[] {
  const page = row.id.replace(/^(row|map)-/, '') as PageId;
  return chosen.includes(page) ? chosen : [page];
}
