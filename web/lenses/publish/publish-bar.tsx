import { CornerUpRight, DoorOpen, Layers } from 'lucide-react';
import { settingsItems } from '#core/changes/settings-items.ts';
import { waitingSettings } from '#core/changes/waiting-settings.ts';
import type { SettingsPart } from '#core/model/settings-parts.ts';
import { useMissed, useScheduled, useWorks } from '../../api/releases.ts';
import { momentWords } from '../../fields/site-moment.ts';
import { Button } from '../../ui/button.tsx';
import { Popover } from '../../ui/popover.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { toSettle } from './redirects/to-settle.ts';
import { SETTINGS_WORDS, capital, itemsWords } from './publish-words.ts';

/** Releases, redirects and whether the site is open; and what of its settings differs. It stands above the tree in the Publish lens. */
export function PublishBar() {
  const { site, setDialog } = useWorkbench();
  const works = useWorks(site.key);
  const missed = toSettle(useMissed(site.key) ?? [], site).length;
  const next = useScheduled(site.key)?.find(({ state }) => state === 'waiting');
  const settings = waitingSettings(site);
  return (
    <div className="border-b border-rule bg-paper px-4 py-1 text-small max-md:px-2">
      <div className="flex min-h-7 flex-wrap items-center gap-x-3 gap-y-1">
        <p className={works || next ? 'font-medium text-attention' : 'text-quiet max-md:hidden'}>
          {works
            ? 'Closed for works: visitors see only a notice.'
            : site.liveSettings === null
              ? 'Nothing is live yet.'
              : next
                ? `A release is set for ${momentWords(next.at, site.settings.timeZone)}.`
                : 'Visitors have what was live with the last release.'}
        </p>
        <div className="ml-auto flex flex-wrap items-center gap-0.5">
          <Button look="quiet" isTight onClick={() => setDialog('releases')}>
            <Layers size={15} aria-hidden /> Releases
          </Button>
          <Button look="quiet" isTight onClick={() => setDialog('redirects')}>
            <CornerUpRight size={15} aria-hidden /> Redirects
            {missed > 0 && <span className="text-attention">({missed} not found)</span>}
          </Button>
          <Button look="quiet" isTight onClick={() => setDialog('opening')}>
            <DoorOpen size={15} aria-hidden />{' '}
            {site.liveSettings === null ? 'Open the site' : works ? 'Closed for works' : 'Open to visitors'}
          </Button>
        </div>
      </div>
      {settings.length > 0 && (
        <div className="flex flex-wrap items-center gap-x-1 gap-y-0.5 pb-0.5">
          <span id="settings-that-differ" className="mr-1 text-quiet">
            Settings that differ:
          </span>
          <ul aria-labelledby="settings-that-differ" className="flex flex-wrap gap-1">
            {settings.map((part) => (
              <li key={part}>
                <OnePart part={part} />
              </li>
            ))}
          </ul>
        </div>
      )}
    </div>
  );
}

function OnePart({ part }: { readonly part: SettingsPart }) {
  const { site } = useWorkbench();
  const words = SETTINGS_WORDS[part];
  return (
    <Popover
      label={`What differs in the ${words}`}
      className="w-80 p-4"
      trigger={
        <button type="button" className="rounded-full border border-edge px-2.5 py-px hover:border-ink">
          {capital(words)}
        </button>
      }
    >
      <h3 className="font-display text-large font-semibold">{capital(words)}</h3>
      <ul className="mt-1 flex flex-col gap-0.5 text-small">
        {itemsWords(settingsItems(site.liveSettings!, site.settings, part)).map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
      <p className="mt-2 text-small text-quiet">They go live with a release.</p>
    </Popover>
  );
}
