import { Bot } from 'lucide-react';
import { format, parseISO } from 'date-fns';
import { useMemo, useState } from 'react';
import type { EngineReport } from '#contract/engine.ts';
import { useMarkRows } from '../../settings/use-mark-rows.ts';
import type { WholeKind } from '../../settings/settings-kind.ts';
import { wordsOfFault } from '../../api/client.ts';
import { lookAsEngine, stopEngine, useEngineLook } from '../../api/engine.ts';
import { Button } from '../../ui/button.tsx';
import { Notice } from '../../ui/notice.tsx';
import { type Marks, useWorkbench } from '../../workbench/workbench-context.tsx';

const DIFFERENCE_WORDS: Readonly<Record<EngineReport['findings'][number]['difference'], string>> = {
  missed: 'Should be indexed, but would not be',
  uninvited: 'Would be indexed, but should not be',
  'not in the sitemap file': 'Not in the sitemap file',
  'in the sitemap by mistake': 'In the sitemap file, but would not be indexed',
  'broken link': 'Linked, but not found',
};

/** What a search engine's robot sees of the live site, and where that differs from what is intended. */
export const ENGINE: WholeKind = {
  edits: 'access',
  title: 'The search engine’s eye',
  Sign: Bot,
  description:
    'A robot reads the live site without an account: robots.txt, the sitemap file, and every page that links lead to. Compare what it would index with what you intend.',
  Whole: EnginesEye,
};

function EnginesEye() {
  const { site, mayEdit } = useWorkbench();
  const look = useEngineLook(site.key);
  const [fault, setFault] = useState<string | null>(null);
  const report = look?.report ?? null;
  const isBusy = look?.state === 'running';
  const during = (work: Promise<void>) => {
    setFault(null);
    work.catch((problem: unknown) => setFault(wordsOfFault(problem)));
  };
  return (
    <div className="flex flex-col gap-3" aria-busy={isBusy}>
      {mayEdit && (
        <div>
          {isBusy ? (
            <Button onClick={() => during(stopEngine(site.key))}>Stop reading</Button>
          ) : (
            <Button look="main" disabled={look === undefined} onClick={() => during(lookAsEngine(site.key))}>
              {report === null ? 'Read the live site' : 'Read it again'}
            </Button>
          )}
        </div>
      )}
      {fault && <Notice>{fault}</Notice>}
      {look?.state === 'failed' && <Notice>The robot did not finish. Let it read the site again.</Notice>}
      {look?.state === 'stopped' && <p className="text-quiet">The robot was stopped.</p>}
      {isBusy && (
        <div>
          <p className="mb-1 text-small text-quiet">
            {look.addressesKnown === 0
              ? 'The robot reads robots.txt and the sitemap file …'
              : `${look.addressesRead} of ${look.addressesKnown} known addresses read`}
          </p>
          <progress
            aria-label="How far the robot is"
            className="h-2 w-full"
            value={look.addressesRead}
            max={Math.max(1, look.addressesKnown)}
          />
        </div>
      )}
      {report === null ? (
        !fault && !isBusy && <p className="text-quiet">Nothing has been read yet.</p>
      ) : (
        <Report report={report} />
      )}
    </div>
  );
}

/** The pages that a robot sees otherwise than is intended. */
const marksOf = ({ findings }: EngineReport): Marks => ({
  name: 'The engine’s eye',
  words: new Map(
    findings.flatMap(({ page, difference }) => (page === null ? [] : [[page, DIFFERENCE_WORDS[difference]]])),
  ),
});

function Report({ report }: { readonly report: EngineReport }) {
  const { site, select } = useWorkbench();
  useMarkRows(useMemo(() => marksOf(report), [report]));
  const { readAt, addresses, isWhole, indexed, intended, count, findings } = report;
  return (
    <>
      <p role="status" className="font-medium">
        {count === 0
          ? `As intended: ${indexed === 1 ? '1 page' : `all ${indexed} pages`} would be indexed, and nothing else.`
          : `${indexed} pages would be indexed; ${intended} should be. ${count === 1 ? '1 thing differs' : `${count} things differ`}.`}
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
                    onClick={() => select({ active: page, chosen: new Set([page]), anchor: page })}
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
