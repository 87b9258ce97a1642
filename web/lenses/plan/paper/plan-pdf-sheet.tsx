import { format } from 'date-fns';
import { FileText } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { type Paper, PAPERS, MAX_SHEETS } from '../../../map/export/sheets.ts';
import { download, pdfFile } from '../../../map/export/map-files.ts';
import type { WholeKind } from '../../../settings/settings-kind.ts';
import { pages } from '../../../tree/words.ts';
import { Button } from '../../../ui/button.tsx';
import { Choice, Tick } from '../../../ui/field.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { planParts, sheetsOfSketches } from './plan-parts.ts';
import { toast } from '../../../ui/toast.ts';

/** The plan for paper: the map of the site, then what its pages will contain. */
export const PLAN_PDF: WholeKind = {
  title: 'The plan as PDF',
  Sign: FileText,
  description:
    'The map of the whole site first, then a sheet for what is sketched: for meetings, and for whoever pays.',
  Whole: PlanPdf,
};

function PlanPdf() {
  const workbench = useWorkbench();
  const { site } = workbench;
  const [paper, setPaper] = useState<Paper>('A3');
  const [isEachPage, setEachPage] = useState(true);
  const [hasVariants, setVariants] = useState(true);
  const [share, setShare] = useState<number | null>(null);
  const cancel = useRef<(() => void) | null>(null);
  useEffect(() => () => cancel.current?.(), []);
  const sheets = sheetsOfSketches(workbench, isEachPage);
  const isTooMany = sheets.length > MAX_SHEETS;
  const make = async () => {
    setShare(0);
    let isStopped = false;
    cancel.current = () => (isStopped = true);
    try {
      const parts = await planParts(workbench, sheets, hasVariants);
      if (isStopped) return;
      const named = { title: `${site.settings.name}: the plan`, date: format(new Date(), 'd MMMM yyyy') };
      const making = pdfFile(parts, { ...named, paper }, setShare);
      cancel.current = () => {
        isStopped = true;
        making.cancel();
        setShare(null);
      };
      const { file, missing } = await making.made;
      download(file, `${site.key}-plan.pdf`);
      if (missing.length > 0) toast.warning(`The PDF has no letters for ${missing.slice(0, 12).join(' ')}.`);
    } catch {
      if (!isStopped) toast.error('The file could not be made. Choose larger paper, or a sheet for each sketch.');
    } finally {
      cancel.current = null;
      setShare(null);
    }
  };
  return (
    <div className="flex flex-col gap-4">
      <Choice label="Paper" value={paper} onChange={(event) => setPaper(event.target.value as Paper)}>
        {Object.keys(PAPERS).map((one) => (
          <option key={one}>{one}</option>
        ))}
      </Choice>
      {site.sketches.length > 0 && (
        <>
          <Choice
            label="A sheet for"
            value={isEachPage ? 'page' : 'sketch'}
            onChange={(event) => setEachPage(event.target.value === 'page')}
          >
            <option value="page">Each page that has a sketch</option>
            <option value="sketch">Each sketch, with the pages that have it</option>
          </Choice>
          <Tick
            label="All variants of what is still open"
            hint="Otherwise only the first one."
            checked={hasVariants}
            onChange={(event) => setVariants(event.target.checked)}
          />
        </>
      )}
      <p role="status" className={isTooMany ? 'text-attention' : 'text-quiet'}>
        {isTooMany
          ? `${pages(sheets.length)} have a sketch; at most ${MAX_SHEETS} sheets are made. Choose a sheet for each sketch.`
          : sheets.length === 0
            ? 'One sheet: the map. No page has a sketch yet.'
            : `${sheets.length + 1} sheets: the map, and ${sheets.length === 1 ? 'one sketch' : `${sheets.length} with sketches`}.`}
      </p>
      <div className="flex items-center gap-3">
        <Button look="main" disabled={share !== null || isTooMany} onClick={() => void make()}>
          Make the PDF
        </Button>
        {share !== null && (
          <>
            <progress aria-label="How far it is made" max={1} value={share} className="min-w-0 flex-1" />
            <Button look="quiet" onClick={() => cancel.current?.()}>
              Cancel
            </Button>
          </>
        )}
      </div>
    </div>
  );
}
