import { format } from 'date-fns';
import { useEffect, useMemo, useRef, useState } from 'react';
import { type Picture, mapPicture } from '#core/drawing/map-picture.ts';
import type { Area } from '#core/drawing/map-layout.ts';
import { Button } from '../../ui/button.tsx';
import { Dialog } from '../../ui/dialog.tsx';
import { Choice } from '../../ui/field.tsx';
import { Notice } from '../../ui/notice.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import type { DrawnMap } from '../use-map-layout.ts';
import { download, pdfFile, pngFile, svgFile } from './map-files.ts';
import { signsOf } from './node-signs.ts';
import { MAX_SHEETS, PAPERS, type Paper, sheetsFor } from './sheets.ts';
import { toast } from '../../ui/toast.ts';

type Kind = 'pdf' | 'svg' | 'png';
const KINDS: readonly { readonly kind: Kind; readonly words: string }[] = [
  { kind: 'pdf', words: 'PDF, for paper' },
  { kind: 'svg', words: 'SVG, to edit further' },
  { kind: 'png', words: 'PNG, for slides and mail' },
];

/** Takes the map along as a file: what is seen or all of it, as SVG, PNG or PDF. */
export function ExportMapDialog({
  drawn,
  seen,
  onClose,
}: {
  readonly drawn: DrawnMap;
  readonly seen: Area;
  readonly onClose: () => void;
}) {
  const workbench = useWorkbench();
  const { site } = workbench;
  const [kind, setKind] = useState<Kind>('pdf');
  const [isAll, setAll] = useState(true);
  const [paper, setPaper] = useState<Paper>('A3');
  const [isTiled, setTiled] = useState(false);
  const [share, setShare] = useState<number | null>(null);
  const cancel = useRef<(() => void) | null>(null);
  useEffect(() => () => cancel.current?.(), []);
  const picture = useMemo(
    () => mapPicture(drawn.nodes, drawn.layout, (index) => signsOf(workbench, drawn.nodes, index), isAll ? null : seen),
    // What is taken along is the map as it was when the dialog was opened.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [drawn, seen, isAll],
  );
  const sheets = sheetsFor(picture, paper, isTiled);
  const count = sheets.columns * sheets.rows;
  const isTooMany = kind === 'pdf' && count > MAX_SHEETS;
  const named = { title: site.settings.name, date: format(new Date(), 'd MMMM yyyy') };
  const make = async () => {
    setShare(0);
    try {
      download(await file(), `${site.key}-map.${kind}`);
      onClose();
    } catch {
      toast.error('The file could not be made. Choose a smaller part of the map, or another file type.');
    } finally {
      setShare(null);
    }
  };
  const file = async (): Promise<Blob> => {
    if (kind === 'svg') return svgFile(picture, named);
    if (kind === 'png') return pngFile(picture, named);
    const making = pdfFile([{ picture, head: named.title, isTiled }], { ...named, paper }, setShare);
    cancel.current = making.cancel;
    const { file: made, missing } = await making.made;
    if (missing.length > 0)
      toast.warning(
        `The PDF has no letters for ${missing.slice(0, MAX_MISSING).join(' ')}${missing.length > MAX_MISSING ? ' and others' : ''}. Choose SVG or PNG to keep them.`,
      );
    return made;
  };
  return (
    <Dialog
      title="Export the map"
      description="As shown now, with the title and today’s date."
      isOpen
      onClose={onClose}
      actions={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" disabled={share !== null || isTooMany} onClick={() => void make()}>
            {kind === 'pdf' && count > 1 ? `Make ${count} sheets` : `Make the ${kind.toUpperCase()}`}
          </Button>
        </>
      }
    >
      <div className="grid gap-3 pb-2 sm:grid-cols-2">
        <Choice label="Kind of file" value={kind} onChange={(event) => setKind(event.target.value as Kind)}>
          {KINDS.map((one) => (
            <option key={one.kind} value={one.kind}>
              {one.words}
            </option>
          ))}
        </Choice>
        <Choice label="What" value={isAll ? 'all' : 'seen'} onChange={(event) => setAll(event.target.value === 'all')}>
          <option value="all">All that is open</option>
          <option value="seen">What the window shows</option>
        </Choice>
        {kind === 'pdf' && (
          <>
            <Choice label="Paper" value={paper} onChange={(event) => setPaper(event.target.value as Paper)}>
              {Object.keys(PAPERS).map((one) => (
                <option key={one}>{one}</option>
              ))}
            </Choice>
            <Choice
              label="Size"
              value={isTiled ? 'tiled' : 'one'}
              onChange={(event) => setTiled(event.target.value === 'tiled')}
            >
              <option value="one">On one sheet</option>
              <option value="tiled">Full size, over several sheets</option>
            </Choice>
            <p role="status" className="text-quiet sm:col-span-2">
              {sheetWords(picture, sheets)}
            </p>
          </>
        )}
        {isTooMany && (
          <div className="sm:col-span-2">
            <Notice>
              That takes {count} sheets; at most {MAX_SHEETS} are made. Choose larger paper or one sheet.
            </Notice>
          </div>
        )}
        {share !== null && (
          <div className="sm:col-span-2">
            <progress aria-label="How far it is made" max={1} value={share} className="w-full" />
          </div>
        )}
      </div>
    </Dialog>
  );
}

/** So many characters that a PDF lacks are named. */
const MAX_MISSING = 12;

/** Letters are 13 pixels high at full size; on paper that is so many points. */
const TITLE_SIZE = 13;
const MIN_READABLE = 5;

function sheetWords({ shapes }: Picture, { columns, rows, scale, isWide }: ReturnType<typeof sheetsFor>): string {
  if (shapes.length === 0) return 'There is nothing to draw.';
  const points = Math.round(TITLE_SIZE * scale * 10) / 10;
  const turned = isWide ? 'lying' : 'upright';
  if (columns * rows > 1)
    return `${columns * rows} sheets, ${turned}: ${columns} across, ${rows} down. Titles are ${points} pt.`;
  return `One sheet, ${turned}. Titles are ${points} pt${points < MIN_READABLE ? ': too small to be read. Choose larger paper, several sheets, or close some branches' : ''}.`;
}
