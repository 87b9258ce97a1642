import { ArchiveX, Rocket } from 'lucide-react';
import { useMemo, useState, useSyncExternalStore } from 'react';
import { homeOfRelease } from '#core/changes/home-of-release.ts';
import { liveEffects } from '#core/changes/live-effects.ts';
import { linkFindings, newFindings } from '#core/checks/link-findings.ts';
import { newPageFindings, pageFindings } from '#core/checks/page-checks.ts';
import { liveSiteOf } from '#core/derive/live-site.ts';
import { type ReleasePlan, planRelease } from '#core/changes/release-plan.ts';
import type { PageId } from '#core/model/ids.ts';
import type { LeadsTo } from '#core/model/redirect.ts';
import type { SettingsPart } from '#core/model/settings-parts.ts';
import { momentWords } from '#core/model/moment-words.ts';
import { wordsOfFault } from '../../../api/client.ts';
import { useTextLinks } from '../../../api/links.ts';
import { scheduleRelease, useRedirects } from '../../../api/releases.ts';
import type { Progress } from '../../../api/site-store.ts';
import { momentOfField } from '../../../fields/site-moment.ts';
import { listOf, pages } from '../../../tree/words.ts';
import { useKept } from '../../../fields/use-kept.ts';
import { MomentField } from '../../../fields/day-field.tsx';
import { Button } from '../../../ui/button.tsx';
import { Radios, TextArea, TextField } from '../../../ui/field.tsx';
import { Notice } from '../../../ui/notice.tsx';
import { numberWords } from '../../../ui/number-words.ts';
import { useNow } from '../../../ui/use-now.ts';
import { type Marks, useWorkbench } from '../../../workbench/workbench-context.tsx';
import type { WholeKind } from '../../../settings/settings-kind.ts';
import { SheetFoot } from '../../../settings/sheet-foot.tsx';
import { useCloseSheet } from '../../../settings/use-close-sheet.ts';
import { useMarkRows } from '../../../settings/use-mark-rows.ts';
import { SETTINGS_WORDS } from '../publish-words.ts';
import { warnOfUnconfirmed } from '../unconfirmed.ts';
import { Lacking } from './lacking.tsx';
import { Along, PageList, alongWords } from './along.tsx';
import { HomeChoice } from './home-choice.tsx';
import { Effects } from './effects.tsx';
import { ReleaseScope, type Scopes, SettingsScope, useScopes } from './release-scope.tsx';
import { TakeDownChoices } from './take-down-choices.tsx';
import { toast } from '../../../ui/toast.ts';

/** Makes pages and settings live, picked in the tree beside it. */
export const GOING_LIVE: WholeKind = {
  title: 'Make live',
  Sign: Rocket,
  description:
    'Visitors get the pages as they are drafted, at their places in the tree. They see all of it at once. What goes live is ticked in the tree.',
  needs: 'publish',
  isForBranches: true,
  Whole: () => <Release kind="live" />,
};

/** Takes the selected pages down. */
export const TAKING_DOWN: WholeKind = {
  title: 'Take down',
  Sign: ArchiveX,
  description: 'Visitors no longer find these pages. The drafts stay as they are.',
  needs: 'publish',
  isForBranches: true,
  Whole: () => <Release kind="retire" />,
};

/** Makes pages and settings live or takes pages down, now or at a moment, after saying what comes along and what visitors notice. */
function Release({ kind }: { readonly kind: 'live' | 'retire' }) {
  const { site, store, chosen: selected, shown, approvals, may } = useWorkbench();
  // Looking at other rows meanwhile changes nothing of what is about to be done.
  const [chosen, setChosen] = useState(selected);
  const onClose = useCloseSheet();
  const { timeZone } = site.settings;
  const scopes = useScopes(kind, chosen);
  const [settings, setSettings] = useState<readonly SettingsPart[]>(scopes.settings);
  const [leadsTo, setLeadsTo] = useState<Readonly<Record<PageId, NonNullable<LeadsTo>>>>({});
  const [name, setName] = useKept(`release ${site.key} name`);
  const [note, setNote] = useKept(`release ${site.key} note`);
  const [when, setWhen] = useState<'now' | 'later'>('now');
  const [moment, setMoment] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const [isRunning, setRunning] = useState(false);
  const progress = useSyncExternalStore(store.subscribe, store.getReleaseProgress);
  const now = useNow();
  const { scope } = scopes;
  const [taken, setTaken] = useState<readonly PageId[]>([]);
  const asked = useMemo(() => [...scopes.asked, ...taken], [scopes.asked, taken]);
  const links = useTextLinks(site.key, shown.revision);
  const needs = links?.needs;
  const plan = useMemo(
    () =>
      kind === 'retire'
        ? planRelease(site, { pages: [], retire: chosen, settings: [], leadsTo })
        : planRelease(site, { pages: asked, retire: [], settings, leadsTo, ...(needs && { needs }) }),
    [site, kind, chosen, asked, settings, leadsTo, needs],
  );
  const home = useMemo(() => (kind === 'live' ? homeOfRelease(site, plan.after) : null), [kind, site, plan]);
  const redirects = useRedirects(site.key, shown.revision);
  const former = useMemo(
    () => new Set(redirects?.filter((one) => !one.isResting).map(({ path }) => path)),
    [redirects],
  );
  const effects = useMemo(() => liveEffects(site, plan.after, now, former), [site, plan, now, former]);
  const found = useMemo(() => {
    if (!links) return { broken: [], lacking: [] };
    const made = new Set(plan.operation.pages);
    const afterIt = <Of extends { readonly page: PageId }>(drafted: readonly Of[], live: readonly Of[]): Of[] => [
      ...drafted.filter(({ page }) => made.has(page)),
      ...live.filter(({ page }) => !made.has(page)),
    ];
    const linksAfter = afterIt(links.draft, links.live);
    const faultsAfter = afterIt(links.draftFaults, links.liveFaults);
    const [before, after] = [site.liveSettings === null ? null : liveSiteOf(site), liveSiteOf(plan.after)];
    return {
      broken: newFindings(before ? linkFindings(before, now, links.live) : [], linkFindings(after, now, linksAfter)),
      lacking: newPageFindings(
        before ? pageFindings(before, now, links.live, links.liveFaults) : [],
        pageFindings(after, now, linksAfter, faultsAfter),
      ),
    };
  }, [site, plan, now, links]);
  const { pages: made, retire } = plan.operation;
  useMarkRows(useReleaseMarks(kind, scopes, plan));
  const parts = [...settings, ...plan.parts.map(({ part }) => part)].filter((part) => scopes.settings.includes(part));
  const what = [made.length > 0 && `${pages(made.length)} live`, retire.length > 0 && `${pages(retire.length)} down`];
  const isSettingsOnly = made.length + retire.length === 0;
  const doing = isSettingsOnly
    ? parts.length > 0 && kind === 'live'
      ? `Make the ${listOf(parts.map((part) => SETTINGS_WORDS[part]))} live`
      : ''
    : [what[0] && `Make ${what[0]}`, what[1] && `${what[0] ? 'take' : 'Take'} ${what[1]}`]
        .filter(Boolean)
        .join(' and ');
  const at = when === 'later' ? momentOfField(moment, timeZone) : null;
  const isHomeOpen = home?.kind === 'not-chosen' && home.isParent;
  const lacking = useMemo(() => approvals?.lacking(made, retire) ?? [], [approvals, made, retire]);
  const [reason, setReason] = useState('');
  const isAgreed = lacking.length === 0 || (may('everything', null) && reason.trim() !== '');
  const isReady =
    isAgreed && doing !== '' && !isRunning && !isHomeOpen && (when === 'now' || (at !== null && at.getTime() > now));
  const run = async () => {
    setRunning(true);
    setFault(null);
    const body = {
      pages: kind === 'live' && scope === 'all' ? ('all' as const) : kind === 'live' ? [...asked] : [],
      retire: kind === 'retire' ? [...chosen] : [],
      settings: kind === 'retire' ? [] : [...settings],
      leadsTo: { ...leadsTo },
      name,
      note,
      ...(lacking.length > 0 && { override: reason.trim() }),
    };
    try {
      if (at) {
        await scheduleRelease(site.key, { ...body, at: at.toISOString() });
        toast.success(`The release is set for ${momentWords(at.toISOString(), timeZone)}.`);
      } else {
        const done = await store.release(body);
        warnOfUnconfirmed(done.unconfirmed);
        toast.success(
          [
            done.pages > 0 && `${pages(done.pages)} made live.`,
            done.retired > 0 && `${pages(done.retired)} taken down.`,
          ]
            .filter(Boolean)
            .join(' ') || `Visitors have the ${listOf(parts.map((part) => SETTINGS_WORDS[part]))} now.`,
        );
      }
      setName('');
      setNote('');
      onClose();
    } catch (reason) {
      setFault(wordsOfFault(reason));
      setRunning(false);
    }
  };
  return (
    <div className="flex flex-col gap-4">
      {fault && <Notice>{fault}</Notice>}
      {kind === 'live' && <ReleaseScope scopes={scopes} />}
      {selected.join() !== chosen.join() && (
        <Button className="self-start" onClick={() => setChosen(selected)}>
          Use what is selected now
        </Button>
      )}
      {kind === 'live' && scopes.settings.length > 0 && (
        <SettingsScope all={scopes.settings} chosen={settings} along={plan.parts} onChoose={setSettings} />
      )}
      {home && doing !== '' && <HomeChoice home={home} onTake={(page) => setTaken((before) => [...before, page])} />}
      <PageList
        heading="These"
        ids={(kind === 'retire' ? retire : made).filter((id) => !plan.along.some((one) => one.page === id))}
      />
      {plan.along.length > 0 && <Along along={plan.along} />}
      {kind === 'live' && <PageList heading="Removed from the tree, so taken down" ids={retire} />}
      {lacking.length > 0 && (
        <Lacking
          pages={lacking}
          isTakingDown={kind === 'retire'}
          onLeaveOut={lacking.every((page) => asked.includes(page)) ? () => scopes.leaveOut(lacking) : null}
          reason={reason}
          onReason={setReason}
        />
      )}
      {retire.length > 0 && (
        <TakeDownChoices pages={retire} after={plan.after} chosen={leadsTo} onChoose={setLeadsTo} />
      )}
      <section aria-labelledby="effects" className="rounded-md border border-rule px-3 py-2.5">
        <h3 id="effects" className="mb-1.5 font-display text-large font-semibold">
          What visitors notice
        </h3>
        <Effects effects={effects} after={plan.after} {...found} />
      </section>
      <div className="grid items-start gap-3 @lg:grid-cols-2">
        <TextField
          label="Name of the release"
          hint="For the list of releases. May be left empty."
          maxLength={120}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <TextArea
          label="Note"
          rows={2}
          maxLength={2000}
          value={note}
          onChange={(event) => setNote(event.target.value)}
        />
      </div>
      <div className="flex flex-wrap items-start gap-x-6 gap-y-3">
        <Radios
          legend="When"
          choices={[
            { value: 'now', words: 'Now' },
            { value: 'later', words: 'Later' },
          ]}
          value={when}
          onChoose={setWhen}
        />
        {when === 'later' && (
          <MomentField
            label="Day and time"
            value={moment}
            hint={`In ${timeZone} time. The pages go live as they are drafted at that moment.`}
            fault={at !== null && at.getTime() <= now ? 'That time has passed. Choose a later one.' : undefined}
            onSet={setMoment}
          />
        )}
      </div>
      <SheetFoot>
        {isRunning && when === 'now' && <Running progress={progress} />}
        <Button onClick={onClose}>{isRunning ? 'Close' : 'Cancel'}</Button>
        <Button look="main" disabled={!isReady} onClick={() => void run()}>
          {isRunning ? 'Working …' : doing === '' ? 'Nothing to make live' : when === 'later' ? `Set: ${doing}` : doing}
        </Button>
      </SheetFoot>
    </div>
  );
}

/** The rows that go live or down, with why; those that differ from what is live can be ticked. */
function useReleaseMarks(kind: 'live' | 'retire', { pagesOf, asked, pick }: Scopes, plan: ReleasePlan): Marks {
  const { site } = useWorkbench();
  return useMemo(() => {
    const words = new Map<PageId, string>();
    for (const page of plan.operation.pages) words.set(page, 'goes live');
    for (const one of plan.along) words.set(one.page, alongWords(site, one));
    for (const page of plan.operation.retire) words.set(page, 'is taken down');
    const name = kind === 'live' ? 'Goes live' : 'Taken down';
    return kind === 'live'
      ? { name, words, ticks: { on: new Set(asked), of: new Set(pagesOf.all), pick } }
      : { name, words };
  }, [site, kind, plan, asked, pagesOf, pick]);
}

/** How far the release is, where it takes long enough for that to be told. */
function Running({ progress }: { readonly progress: Progress | null }) {
  return (
    <span role="status" className="mr-auto flex min-w-0 flex-1 items-center gap-2 text-small text-quiet">
      <progress
        aria-label="The release is being made"
        className="h-2 w-20 shrink-0"
        {...(progress && { value: progress.done, max: progress.total })}
      />
      <span>
        {progress && `${numberWords(progress.done)} of ${pages(progress.total)}. `}
        Visitors keep the previous release until this one is complete.
      </span>
    </span>
  );
}
