import { format, parseISO } from 'date-fns';
import { useState } from 'react';
import type { EngineAnswer } from '#contract/visitors.ts';
import { wordsOfFault } from '../../api/client.ts';
import { lookAsEngine } from '../../api/visitors.ts';
import { Button } from '../../ui/button.tsx';
import { Dialog } from '../../ui/dialog.tsx';
import { Notice } from '../../ui/notice.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

const DIFFERENCE_WORDS: Readonly<Record<EngineAnswer['findings'][number]['difference'], string>> = {
  missed: 'Should be indexed, and would not be',
  uninvited: 'Would be indexed, and should not be',
  'not in the sitemap file': 'Not in the sitemap file',
  'named in vain': 'In the sitemap file, and would not be indexed',
  'broken link': 'Linked, and not there',
};

/** What a search engine's robot sees of the live site, and where that differs from what is intended. */
export function EngineDialog({ onClose }: { readonly onClose: () => void }) {
  const { site } = useWorkbench();
  const [report, setReport] = useState<EngineAnswer | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [isBusy, setBusy] = useState(false);
  const look = async () => {
    setBusy(true);
    setFault(null);
    await lookAsEngine(site.key).then(setReport, (problem: unknown) => setFault(wordsOfFault(problem)));
    setBusy(false);
  };
  return (
    <Dialog
      title="The search engine’s eye"
      description="A robot reads the live site without an account: robots.txt, the sitemap file, and every page that links lead to. What it would index stands next to what is intended."
      isOpen
      isWide
      onClose={onClose}
      actions={
        <>
          <Button onClick={onClose}>Close</Button>
          <Button look="main" disabled={isBusy} onClick={() => void look()}>
            {isBusy ? 'Reading …' : report === null ? 'Read the live site' : 'Read it again'}
          </Button>
        </>
      }
    >
      <div className="flex flex-col gap-3 pb-2" aria-busy={isBusy}>
        {fault && <Notice>{fault}</Notice>}
        {report === null ? (
          !fault && <p className="text-quiet">Nothing was read yet.</p>
        ) : (
          <Report report={report} onClose={onClose} />
        )}
      </div>
    </Dialog>
  );
}

function Report({ report, onClose }: { readonly report: EngineAnswer; readonly onClose: () => void }) {
  const { site, select } = useWorkbench();
  const { readAt, addresses, isWhole, indexed, intended, count, findings } = report;
  return (
    <>
      <p role="status" className="font-medium">
        {count === 0
          ? `As intended: ${indexed === 1 ? '1 page' : `all ${indexed} pages`} would be indexed, and nothing else.`
          : `${indexed} pages would be indexed, ${intended} are meant to be. ${count === 1 ? '1 thing differs' : `${count} things differ`}.`}
      </p>
      <p className="text-small text-quiet">
        {addresses} addresses read at {format(parseISO(readAt), 'HH:mm:ss')}
        {!isWhole && '; it stopped there, and there are more'}.
      </p>
      {findings.length > 0 && (
        <ul aria-label="What differs" className="divide-y divide-rule border-y border-rule">
          {findings.map(({ address, page, difference, because }) => (
            <li key={`${difference} ${address}`} className="py-1.5">
              <p className="flex items-baseline gap-3">
                <span className="min-w-0 flex-1 truncate font-mono text-small">{address}</span>
                <span className="text-attention">{DIFFERENCE_WORDS[difference]}</span>
              </p>
              <p className="text-small text-quiet">
                {because}{' '}
                {page !== null && site.nodes.has(page) && (
                  <button
                    type="button"
                    className="text-accent underline"
                    onClick={() => {
                      select({ active: page, chosen: new Set([page]), anchor: page });
                      onClose();
                    }}
                  >
                    Show it in the tree
                  </button>
                )}
              </p>
            </li>
          ))}
        </ul>
      )}
    </>
  );
}
