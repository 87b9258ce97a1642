import { CornerUpRight, DoorOpen, Layers, UserCheck } from 'lucide-react';
import { settingsItems } from '#core/changes/settings-items.ts';
import { waitingSettings } from '#core/changes/waiting-settings.ts';
import type { SettingsPart } from '#core/model/settings-parts.ts';
import { useMissed, useScheduled, useWorks } from '../../api/releases.ts';
import { momentWords } from '#core/model/moment-words.ts';
import { Popover } from '../../ui/popover.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import type { BarAction } from '../../workbench/bar-action.ts';
import { toSettle } from './redirects/to-settle.ts';
import { SETTINGS_WORDS, capital, itemsWords } from './publish-words.ts';

/** Whether the site is open, and what is to go live by itself. */
export function PublishSays() {
  const { site } = useWorkbench();
  const works = useWorks(site.key);
  const next = useScheduled(site.key)?.find(({ state }) => state === 'waiting');
  return (
    <p className={works || next ? 'font-medium text-attention' : 'text-quiet'}>
      {works
        ? 'Closed for works: visitors see only a notice.'
        : site.liveSettings === null
          ? 'Nothing is live yet.'
          : next
            ? `A release is set for ${momentWords(next.at, site.settings.timeZone)}.`
            : 'Visitors have what was live with the last release.'}
    </p>
  );
}

const OPEN_IT = 'Open the site';

/** Releases, redirects, and whether the site is open. */
export function usePublishActions(): readonly BarAction[] {
  const { site, setBeside, approvals } = useWorkbench();
  const toDecide = approvals?.answer.proposals.filter((one) => one.toDecide.length > 0).length ?? 0;
  const works = useWorks(site.key);
  const opening = site.liveSettings === null ? OPEN_IT : works ? 'Closed for works' : 'Open to visitors';
  const missed = toSettle(useMissed(site.key) ?? [], site).length;
  return [
    {
      label: 'Releases',
      words: 'Releases: take back, compare, scheduled…',
      also: ['versions', 'revert', 'roll back', 'later', 'planned'],
      Sign: Layers,
      run: () => setBeside({ kind: 'releases', id: null }),
    },
    {
      label: 'Proposals',
      words: 'Proposals and approval…',
      also: ['review', 'sign off', 'workflow', 'agree'],
      ...(toDecide > 0 && { attention: `${toDecide} for you` }),
      Sign: UserCheck,
      run: () => setBeside({ kind: 'proposals', id: null }),
    },
    {
      label: 'Redirects',
      words: 'Redirects and pages not found…',
      also: ['404', 'moved', 'old addresses', 'broken', 'forward'],
      ...(missed > 0 && { attention: `${missed} not found` }),
      Sign: CornerUpRight,
      run: () => setBeside({ kind: 'redirects', id: null }),
    },
    {
      label: opening,
      words: opening === OPEN_IT ? `${OPEN_IT}…` : `${opening}: open the site, or close it for works…`,
      also: ['maintenance', 'launch', 'offline'],
      Sign: DoorOpen,
      run: () => setBeside({ kind: 'opening', id: null }),
    },
  ];
}

/** Which settings of the draft visitors do not have yet. */
export function SettingsThatDiffer() {
  const { site } = useWorkbench();
  const settings = waitingSettings(site);
  if (settings.length === 0) return null;
  return (
    <div className="flex flex-wrap items-center gap-x-1 gap-y-0.5 border-rule px-4 py-1 text-small not-in-data-folded:border-b not-in-data-folded:bg-paper in-data-folded:px-2 compact:hidden">
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
