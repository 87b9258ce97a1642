import { Download, Globe } from 'lucide-react';
import { useState } from 'react';
import { acceptPairs } from '#core/carryover/settle.ts';
import { EXPORTS } from '#contract/exports.ts';
import type { Edit } from '../../../api/site-store.ts';
import { useCrawl } from '../../../api/old-site.ts';
import { pages } from '../../../tree/words.ts';
import { ActionMenu } from '../../../ui/action-menu.tsx';
import { Button } from '../../../ui/button.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { useCarryOverState } from './carry-over-context.ts';
import { percent } from './old-words.ts';
import { toast } from '../../../ui/toast.ts';

const REDIRECTS = ['redirects.csv', 'redirects.nginx', 'redirects.apache'] as const;
const STEPS = [0.95, 0.85, 0.7, 0.5] as const;

/** How much is settled, what is left over on either side, and what can be done for all of it. */
export function CarryOverBar() {
  const { site, setBeside, mayEdit } = useWorkbench();
  const { settled, isMatching } = useCarryOverState();
  const crawl = useCrawl(site.key)?.crawl;
  const { oldPages, settledOldPages, visits, withoutPlace, withoutSource } = settled;
  return (
    <div className="flex min-h-11 flex-wrap items-center gap-x-5 gap-y-1 border-b border-rule bg-paper px-4 py-1.5">
      {oldPages > 0 && (
        <>
          <p className="flex items-center gap-2.5" aria-live="polite">
            <Meter share={settledOldPages / oldPages} />
            <span>
              <strong className="font-semibold">
                {settledOldPages} of {oldPages}
              </strong>{' '}
              old pages settled
              {visits && visits.all > 0 && (
                <span className="text-quiet">, {percent(visits.settled / visits.all)} of visits</span>
              )}
            </span>
          </p>
          <p className="text-small text-quiet">
            {withoutPlace.length} without a place · {withoutSource.length} planned without a source
          </p>
        </>
      )}
      {crawl?.state === 'running' && (
        <p role="status" className="text-small font-medium text-accent">
          Reading the old site: {crawl.read} read, {crawl.waiting} to go
        </p>
      )}
      {isMatching && oldPages > 0 && (
        <p role="status" className="text-small text-quiet">
          Matching …
        </p>
      )}
      <div className="ml-auto flex flex-wrap items-center gap-1.5">
        {mayEdit && oldPages > 0 && <AcceptAll />}
        {oldPages > 0 && (
          <ActionMenu
            label="Export the redirects"
            actions={REDIRECTS.map((name) => ({
              words: EXPORTS[name].words,
              run: () => window.location.assign(`/api/sites/${site.key}/exports/${name}`),
            }))}
            trigger={
              <Button title="Export the redirects">
                <Download size={15} aria-hidden /> Redirects
              </Button>
            }
          />
        )}
        <Button onClick={() => setBeside({ kind: 'old-site', id: null })}>
          <Globe size={15} aria-hidden /> Old site…
        </Button>
      </div>
    </div>
  );
}

function Meter({ share }: { readonly share: number }) {
  return (
    <svg width="96" height="8" aria-hidden className="rounded-sm">
      <rect width="96" height="8" className="fill-rule" />
      <rect width={96 * share} height="8" className="fill-accent" />
    </svg>
  );
}

/** Accepts all proposals from a confidence on. */
function AcceptAll() {
  const { site, store } = useWorkbench();
  const { proposals, acceptFrom, section, pairOf } = useCarryOverState();
  const [from, setFrom] = useState<number>(acceptFrom);
  const meant = proposals.filter(
    ({ old, planned, confidence }) =>
      confidence >= from && (section === null || (section.old.has(old) && section.planned.has(planned))),
  );
  const accept = () => {
    const operations = acceptPairs(
      site,
      meant.map(({ old, planned }) => pairOf(old, planned)),
    );
    if (store.apply(operations as Edit[]) !== null) return;
    toast(`Accepted ${pages(meant.length)}.`, {
      action: { label: 'Undo', onClick: () => void store.turn('undo').catch(() => undefined) },
    });
  };
  return (
    <span className="flex items-center">
      <Button look="main" disabled={meant.length === 0} onClick={accept} className="rounded-r-none">
        Accept {meant.length} from
      </Button>
      <select
        aria-label="Accept from this confidence"
        value={from}
        onChange={(event) => setFrom(Number(event.target.value))}
        className="h-8 rounded-r-md border border-l-0 border-edge bg-raised px-1.5"
      >
        {[...new Set([...STEPS, acceptFrom])]
          .sort((a, b) => b - a)
          .map((step) => (
            <option key={step} value={step}>
              {percent(step)}
            </option>
          ))}
      </select>
    </span>
  );
}
