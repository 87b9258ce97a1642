import { History } from 'lucide-react';
import { useMemo, useState } from 'react';
import { momentWords } from '#core/model/moment-words.ts';
import type { ScheduledRelease } from '#contract/releases.ts';
import { ListOfSettings, ListedItem } from '../../../settings/listed-item.tsx';
import type { AskedKind, Named } from '../../../settings/settings-kind.ts';
import { wordsOfFault } from '../../../api/client.ts';
import { callOffRelease, useReleases, useScheduled } from '../../../api/releases.ts';
import { pages } from '../../../tree/words.ts';
import { Button } from '../../../ui/button.tsx';
import { TextField, Tick } from '../../../ui/field.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { CompareReleases } from './compare-releases.tsx';
import { OneRelease } from './one-release.tsx';
import { releaseName, releaseWords } from './release-words.ts';
import { toast } from '../../../ui/toast.ts';

/** So long after its moment a release was late. */
const LATE_MS = 120_000;

/** The releases to come and those that were: each can be taken back, walked through, and compared with another. */
export const RELEASES: AskedKind = {
  title: 'Releases',
  one: 'release',
  Sign: History,
  description:
    'Each is a set of changes that visitors got at once. Taking one back is a release too, so it can be taken back in turn.',
  useItems: useMade,
  List: Releases,
  One: OneRelease,
};

function useMade(): readonly Named[] | undefined {
  const { site, shown } = useWorkbench();
  const releases = useReleases(site.key, shown.revision);
  return useMemo(
    () => releases?.map((one) => ({ id: String(one.number), name: `Release ${releaseName(one)}` })),
    [releases],
  );
}

function Releases() {
  const { site, shown } = useWorkbench();
  const releases = useReleases(site.key, shown.revision);
  const scheduled = useScheduled(site.key) ?? [];
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
          <h3 id="that-were" className="mb-1 font-display text-large font-semibold">
            Past
          </h3>
          <ListOfSettings label="Past releases">
            {releases.map((one) => (
              <ListedItem
                key={one.number}
                to={{ kind: 'releases', id: String(one.number) }}
                sign={<span className="inline-block w-6 text-right font-mono text-small">{one.number}</span>}
                name={one.name || releaseWords(one) || 'A release'}
                says={[one.name !== '' && releaseWords(one), momentWords(one.at, site.settings.timeZone), one.by]
                  .filter(Boolean)
                  .join(' · ')}
                waits={lateWords(
                  site.settings.timeZone,
                  came.find(({ release }) => release === one.number),
                )}
              />
            ))}
          </ListOfSettings>
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

/** That a release came late, and why. */
function lateWords(timeZone: string, scheduled: ScheduledRelease | undefined): string | undefined {
  if (scheduled?.doneAt == null) return undefined;
  if (new Date(scheduled.doneAt).getTime() - new Date(scheduled.at).getTime() <= LATE_MS) return undefined;
  return `Late: it was set for ${momentWords(scheduled.at, timeZone)}, and Spur was not running then.`;
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
