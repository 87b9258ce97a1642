import { Footprints, History, Undo2 } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import { momentWords } from '#core/model/moment-words.ts';
import type { ReleaseSummary, ScheduledRelease } from '#contract/releases.ts';
import type { WholeKind } from '../../../settings/settings-kind.ts';
import { wordsOfFault } from '../../../api/client.ts';
import { callOffRelease, useReleases, useScheduled } from '../../../api/releases.ts';
import { listOf, pages } from '../../../tree/words.ts';
import { Button, IconButton } from '../../../ui/button.tsx';
import { TextField, Tick } from '../../../ui/field.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { SETTINGS_WORDS } from '../publish-words.ts';
import { CompareReleases } from './compare-releases.tsx';
import { TakeBackPart } from './take-back-part.tsx';

/** So long after its moment a release was late. */
const LATE_MS = 120_000;

/** The releases to come and those that were: each can be taken back, walked through, and compared with another. */
export const RELEASES: WholeKind = {
  title: 'Releases',
  Sign: History,
  description:
    'Each is a set of changes that visitors got at once. Taking one back is a release too, so it can be taken back in turn.',
  Whole: Releases,
};

function Releases() {
  const { site, shown, mayPublish } = useWorkbench();
  const releases = useReleases(site.key, shown.revision);
  const scheduled = useScheduled(site.key) ?? [];
  const [taking, setTaking] = useState<number | null>(null);
  const waiting = scheduled.filter(({ state }) => state === 'waiting');
  const came = scheduled.filter(({ state }) => state === 'done' || state === 'failed');
  return (
    <div className="flex flex-col gap-5">
      {waiting.length > 0 && (
        <section aria-labelledby="to-come">
          <h3 id="to-come" className="font-display text-large font-semibold">
            Scheduled
          </h3>
          <ul className="divide-y divide-rule">
            {waiting.map((one) => (
              <ToCome key={one.id} scheduled={one} />
            ))}
          </ul>
        </section>
      )}
      {!releases ? (
        <p className="text-quiet">Loading …</p>
      ) : releases.length === 0 ? (
        <p className="text-quiet">
          No release has been made here yet. Choose pages in the tree, and make them live by “Make live…”.
        </p>
      ) : (
        <section aria-labelledby="that-were">
          <h3 id="that-were" className="font-display text-large font-semibold">
            Past
          </h3>
          <ul className="divide-y divide-rule">
            {releases.map((one) => (
              <li key={one.number} className="py-2">
                <OneRelease
                  release={one}
                  scheduled={came.find(({ release }) => release === one.number)}
                  onTakeBack={mayPublish ? () => setTaking(taking === one.number ? null : one.number) : null}
                  isTaking={taking === one.number}
                />
                {taking === one.number && <TakeBackPart release={one.number} onDone={() => setTaking(null)} />}
              </li>
            ))}
          </ul>
        </section>
      )}
      {came.some(({ state }) => state === 'failed') && (
        <section aria-labelledby="not-made">
          <h3 id="not-made" className="font-display text-large font-semibold">
            Could not be made
          </h3>
          <ul className="divide-y divide-rule">
            {came
              .filter(({ state }) => state === 'failed')
              .map((one) => (
                <li key={one.id} className="py-1.5 text-small">
                  {one.name || 'A release'} for {momentWords(one.at, site.settings.timeZone)}: {one.fault}
                </li>
              ))}
          </ul>
        </section>
      )}
      {releases && releases.length > 1 && <CompareReleases releases={releases} />}
      {site.liveSettings !== null && <TakeElsewhere />}
    </div>
  );
}

/** What is live as files, for a host of files. */
function TakeElsewhere() {
  const { site, liveOrigin } = useWorkbench();
  const [address, setAddress] = useState(`${liveOrigin}/${site.key}`);
  const [isFromDisk, setFromDisk] = useState(false);
  const isAddress = /^https?:\/\/[^\s"'<>]+$/.test(address);
  return (
    <section aria-labelledby="elsewhere" className="flex flex-col gap-2 border-t border-rule pt-4">
      <h3 id="elsewhere" className="font-display text-large font-semibold">
        Export as files
      </h3>
      <p className="text-small text-quiet">
        Everything on the live site that is open to everyone, as files with relative links, for any static host. Locked
        pages, the search and sign-in are left out.
      </p>
      <div className="flex flex-wrap items-end gap-3">
        <div className="min-w-64 flex-1">
          <TextField
            label="The address they will be served from"
            value={address}
            onChange={(event) => setAddress(event.target.value)}
          />
        </div>
        {isAddress && (
          <a
            className="mb-0.5 inline-flex h-8 items-center rounded-md border border-edge bg-raised px-3 font-medium hover:border-ink"
            href={`/api/sites/${site.key}/static-site?address=${encodeURIComponent(address)}${isFromDisk ? '&opens=files' : ''}`}
            download
          >
            Download the files (ZIP)
          </a>
        )}
      </div>
      <Tick
        label="Make them open without a server"
        hint="Links name the file in each folder, so that the pages work from a disk or a USB stick."
        checked={isFromDisk}
        onChange={() => setFromDisk(!isFromDisk)}
      />
    </section>
  );
}

function OneRelease({
  release,
  scheduled,
  onTakeBack,
  isTaking,
}: {
  readonly release: ReleaseSummary;
  readonly scheduled: ScheduledRelease | undefined;
  readonly onTakeBack: (() => void) | null;
  readonly isTaking: boolean;
}) {
  const { site } = useWorkbench();
  const { timeZone } = site.settings;
  const did = [
    release.pages > 0 && `${pages(release.pages)} live`,
    release.retired > 0 && `${pages(release.retired)} down`,
    release.settings.length > 0 && listOf(release.settings.map((part) => SETTINGS_WORDS[part])),
  ].filter((words) => words !== false);
  const isLate =
    scheduled?.doneAt != null && new Date(scheduled.doneAt).getTime() - new Date(scheduled.at).getTime() > LATE_MS;
  return (
    <div className="flex items-start gap-3">
      <span className="w-8 shrink-0 pt-0.5 text-right font-mono text-small text-quiet">{release.number}</span>
      <div className="min-w-0 flex-1">
        <p>
          <span className="font-medium">{release.name || did.join(', ') || 'A release'}</span>
          {release.name !== '' && did.length > 0 && <span className="text-quiet"> · {did.join(', ')}</span>}
        </p>
        <p className="text-small text-quiet">
          {momentWords(release.at, timeZone)} · {release.by}
          {isLate && (
            <span className="text-attention">
              {' '}
              · late: it was set for {momentWords(scheduled.at, timeZone)}, and Spur was not running then
            </span>
          )}
        </p>
        {release.note !== '' && <p className="mt-0.5 text-small whitespace-pre-line">{release.note}</p>}
      </div>
      <div className="flex shrink-0 gap-0.5">
        <IconButton
          name={`Walk through the site as it was after release ${release.number}`}
          onClick={() => window.open(`/sites/${site.key}/walk?release=${release.number}`, '_blank')}
        >
          <Footprints size={16} aria-hidden />
        </IconButton>
        {onTakeBack && (
          <IconButton
            name={`Take back release ${release.number}…`}
            aria-expanded={isTaking}
            onClick={onTakeBack}
            className={isTaking ? 'bg-accent-soft text-accent' : ''}
          >
            <Undo2 size={16} aria-hidden />
          </IconButton>
        )}
      </div>
    </div>
  );
}

function ToCome({ scheduled }: { readonly scheduled: ScheduledRelease }) {
  const { site, mayPublish } = useWorkbench();
  const what = [
    scheduled.pages === 'all'
      ? 'all that waits then'
      : scheduled.pages.length > 0 && `${pages(scheduled.pages.length)} live`,
    scheduled.retire.length > 0 && `${pages(scheduled.retire.length)} down`,
  ].filter(Boolean);
  const callOff = async () => {
    try {
      await callOffRelease(site.key, scheduled.id);
      toast.success('The release is cancelled.');
    } catch (fault) {
      toast.error(wordsOfFault(fault));
    }
  };
  return (
    <li className="flex items-center gap-3 py-2">
      <div className="min-w-0 flex-1">
        <p>
          <span className="font-medium">{momentWords(scheduled.at, site.settings.timeZone)}</span> ·{' '}
          {scheduled.name || what.join(', ') || 'settings of the site'}
        </p>
        <p className="text-small text-quiet">
          {scheduled.name !== '' && what.length > 0 && `${what.join(', ')} · `}set by {scheduled.by}
        </p>
      </div>
      {mayPublish && (
        <Button isTight onClick={() => void callOff()}>
          Cancel it
        </Button>
      )}
    </li>
  );
}
