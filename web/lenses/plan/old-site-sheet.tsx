import { Globe } from 'lucide-react';
import { useState } from 'react';
import type { FileKind } from '#core/files/file.ts';
import { wordsOfFault } from '../../api/client.ts';
import { removeOldPages, resumeCrawl, startCrawl, stopCrawl, useCrawl, useOldSite } from '../../api/old-site.ts';
import { Button } from '../../ui/button.tsx';
import { Radios, TextField, Tick } from '../../ui/field.tsx';
import { Notice } from '../../ui/notice.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import type { WholeKind } from '../../settings/settings-kind.ts';
import { SheetFoot } from '../../settings/sheet-foot.tsx';
import { BringOldPages } from './bring-old-pages.tsx';
import { numberWords } from '../../ui/number-words.ts';
import { toast } from '../../ui/toast.ts';

type Way = 'crawl' | 'sitemap' | 'file' | 'list';
const WAYS: readonly { readonly value: Way; readonly words: string }[] = [
  { value: 'crawl', words: 'Crawl it' },
  { value: 'sitemap', words: 'Its sitemap' },
  { value: 'file', words: 'A file' },
  { value: 'list', words: 'A list' },
];

/** Brings the addresses of the old site: by a crawl, a sitemap, a file or a list. */
export const OLD_SITE: WholeKind = {
  edits: 'plan',
  title: 'The old site',
  Sign: Globe,
  description:
    'Import its addresses and what is known about them. Spur then proposes which planned page takes over each one.',
  Whole: OldSite,
};

function OldSite() {
  const { site, view, setView, mayEdit } = useWorkbench();
  const [way, setWay] = useState<Way>('crawl');
  const count = useOldSite(site.key)?.pages.length ?? 0;
  return (
    <>
      <fieldset disabled={!mayEdit} className="flex min-w-0 flex-col gap-4 pb-6">
        {count > 0 && (
          <div className="flex flex-wrap items-center gap-2">
            <p className="min-w-48 flex-1">
              {numberWords(count)} addresses are known. An import adds new addresses and updates the known ones.
            </p>
            {view !== 'carry-over' && <Button onClick={() => setView('carry-over')}>Match them to the plan</Button>}
          </div>
        )}
        <Radios legend="Where from" choices={WAYS} value={way} onChoose={setWay} />
        {way === 'crawl' ? <Crawl /> : <BringOldPages key={way} way={way} />}
      </fieldset>
      {mayEdit && count > 0 && (
        <SheetFoot>
          <ForgetAll count={count} />
        </SheetFoot>
      )}
    </>
  );
}

function ForgetAll({ count }: { readonly count: number }) {
  const { site } = useWorkbench();
  const [isAsked, setAsked] = useState(false);
  if (!isAsked)
    return (
      <Button look="quiet" className="mr-auto" onClick={() => setAsked(true)}>
        Forget the old site…
      </Button>
    );
  return (
    <span className="mr-auto flex flex-wrap items-center gap-2">
      <span className="text-small">Accepted matches stay in the plan.</span>
      <Button
        look="danger"
        onClick={() =>
          void removeOldPages(site.key, 'all').then(
            () => setAsked(false),
            (fault: unknown) => toast.error(wordsOfFault(fault)),
          )
        }
      >
        Forget {count} addresses
      </Button>
    </span>
  );
}

const BROUGHT: readonly { readonly of: readonly FileKind[]; readonly words: string }[] = [
  { of: ['picture'], words: 'Pictures' },
  { of: ['document'], words: 'Documents' },
  { of: ['film', 'sound', 'subtitles'], words: 'Films and sound' },
];

const CRAWL_WORDS = {
  running: 'Reading …',
  stopped: 'Stopped.',
  done: 'Done.',
  failed: 'It could not continue.',
} as const;

function Crawl() {
  const { site } = useWorkbench();
  const state = useCrawl(site.key);
  const crawl = state?.crawl ?? null;
  const [typed, setTyped] = useState<string | null>(null);
  const [most, setMost] = useState('2000');
  const [kinds, setKinds] = useState<readonly FileKind[]>([]);
  const [largest, setLargest] = useState('10');
  const [fault, setFault] = useState<string | null>(null);
  const start = typed ?? crawl?.start ?? '';
  const run = (work: Promise<void>) => {
    setFault(null);
    work.catch((problem: unknown) => setFault(wordsOfFault(problem)));
  };
  const isRunning = crawl?.state === 'running';
  return (
    <form
      className="flex flex-col gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        const files = { kinds, largest: Math.round((Number(largest) || 0) * 1_000_000) };
        run(startCrawl(site.key, { start, mostPages: Number(most) || 2000, files }));
      }}
    >
      <p className="text-quiet">
        Spur obeys robots.txt, stays on the host and waits between pages. You can close this while it runs.
      </p>
      <div className="grid gap-3 sm:grid-cols-[minmax(0,1fr)_8rem]">
        <TextField
          label="Start at"
          placeholder="https://old.school.example/"
          value={start}
          maxLength={2000}
          onChange={(event) => setTyped(event.target.value)}
        />
        <TextField
          label="At most pages"
          type="number"
          min={1}
          max={20000}
          value={most}
          onChange={(event) => setMost(event.target.value)}
        />
      </div>
      <fieldset className="flex flex-wrap items-end gap-x-5 gap-y-2">
        <legend className="mb-1 text-small font-medium">Bring into the library</legend>
        {BROUGHT.map(({ of, words }) => (
          <Tick
            key={words}
            label={words}
            checked={of.every((one) => kinds.includes(one))}
            onChange={(event) =>
              setKinds((was) =>
                event.target.checked
                  ? [...was, ...of]
                  : was.filter((one) => !(of as readonly FileKind[]).includes(one)),
              )
            }
          />
        ))}
        {kinds.length > 0 && (
          <TextField
            label="Up to MB each"
            type="number"
            min={1}
            max={100}
            className="w-28"
            value={largest}
            onChange={(event) => setLargest(event.target.value)}
          />
        )}
      </fieldset>
      {fault && <Notice>{fault}</Notice>}
      {crawl && (
        <div role="status" className="rounded-md bg-sunken px-3 py-2.5">
          <p className="font-medium">
            {CRAWL_WORDS[crawl.state]} {crawl.read} {crawl.read === 1 ? 'page' : 'pages'} read
            {crawl.waiting > 0 && `, ${crawl.waiting} found but not read yet`}
            {crawl.left > 0 && `, ${crawl.left} left out`}
          </p>
          <progress
            aria-label="Pages read"
            className="mt-1 h-2 w-full"
            max={Math.max(1, crawl.read + crawl.waiting)}
            value={crawl.read}
          />
          {crawl.why && <p className="mt-1 text-attention">{crawl.why}</p>}
          {state!.faults.length > 0 && (
            <details className="mt-1 text-small">
              <summary className="cursor-pointer">What was left out</summary>
              <ul className="mt-1 max-h-40 overflow-y-auto">
                {state!.faults.map(({ address, fault: why }) => (
                  <li key={address} className="border-b border-rule py-0.5">
                    <span className="font-mono break-all">{address}</span> <span className="text-quiet">{why}</span>
                  </li>
                ))}
              </ul>
            </details>
          )}
        </div>
      )}
      <div className="flex flex-wrap gap-2">
        {isRunning ? (
          <Button onClick={() => run(stopCrawl(site.key))}>Stop</Button>
        ) : (
          <>
            <Button type="submit" look="main" disabled={start.trim() === ''}>
              {crawl ? 'Read it from the beginning' : 'Read the old site'}
            </Button>
            {crawl && crawl.state !== 'done' && <Button onClick={() => run(resumeCrawl(site.key))}>Go on</Button>}
          </>
        )}
      </div>
    </form>
  );
}
