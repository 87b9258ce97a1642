import { CircleHelp, Redo2, Undo2 } from 'lucide-react';
import { useDeferredValue, useEffect, useMemo, useRef } from 'react';
import { useNavigate } from 'react-router';
import { AccountMenu } from '../account/account-menu.tsx';
import { useSites } from '../api/sites.ts';
import { ActionMenu } from '../ui/action-menu.tsx';
import { IconButton } from '../ui/button.tsx';
import { Wordmark } from '../ui/wordmark.tsx';
import { numberWords } from '../ui/number-words.ts';
import { FindField } from './find-field.tsx';
import { KEYS } from './keys.ts';
import { countWaiting } from './waiting.ts';
import { LENSES, type Lens } from './lenses.ts';
import { useWorkbench } from './workbench-context.tsx';

const LENS_NAMES: Readonly<Record<Lens, { name: string; keys: string }>> = {
  plan: { name: 'Plan', keys: '1' },
  write: { name: 'Write', keys: '2' },
  access: { name: 'Access', keys: '3' },
  menus: { name: 'Menus', keys: '4' },
  publish: { name: 'Publish', keys: '5' },
  checks: { name: 'Checks', keys: '6' },
};

/** The slim bar on top: the site, the lenses, undo, find, the person. */
export function TopBar() {
  const { site, derived, feedback, findings, settingsFindings, lens, setLens, run, mayEdit, shown } = useWorkbench();
  // The counts may follow a moment later: what is typed and pressed comes first.
  const seen = useDeferredValue(
    useMemo(
      () => ({ site, derived, feedback, findings, settingsFindings }),
      [site, derived, feedback, findings, settingsFindings],
    ),
  );
  const waiting = useMemo(
    () =>
      countWaiting(
        seen.site,
        seen.derived,
        seen.feedback?.totals.open.reduce((sum, one) => sum + one, 0) ?? 0,
        seen.findings,
        seen.settingsFindings,
      ),
    [seen],
  );
  const current = useRef<HTMLButtonElement>(null);
  // Where the bar is too narrow for all lenses, the one at hand is in sight.
  useEffect(() => {
    current.current?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [lens]);
  return (
    <header className="flex min-h-bar flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule bg-raised px-3 py-1 lg:flex-nowrap">
      <SiteSwitcher />
      <nav
        aria-label="Lenses"
        className="flex items-center gap-0.5 max-md:w-full max-md:overflow-x-auto max-md:[scrollbar-width:none] md:ml-2"
      >
        {LENSES.map((one) => (
          <button
            key={one}
            ref={one === lens ? current : undefined}
            type="button"
            aria-current={one === lens ? 'true' : undefined}
            title={`The ${LENS_NAMES[one].name} lens (${LENS_NAMES[one].keys})${waiting[one].words ? `: ${waiting[one].words}` : ''}`}
            onClick={() => setLens(one)}
            className={`relative inline-flex h-8 items-center gap-1.5 rounded-md px-2.5 font-medium ${one === lens ? 'bg-accent-soft text-accent' : 'hover:bg-sunken'}`}
          >
            {LENS_NAMES[one].name}
            {waiting[one].count > 0 && (
              <span
                className={`min-w-5 rounded-full px-1.5 text-center text-tiny leading-5 ${one === lens ? 'bg-accent text-on-accent' : 'bg-sunken text-quiet'}`}
              >
                {numberWords(waiting[one].count)}
                <span className="sr-only"> {waiting[one].words}</span>
              </span>
            )}
          </button>
        ))}
      </nav>
      <div className="flex min-w-0 flex-1 items-center justify-end gap-1">
        <span
          role="status"
          className={`mr-1 text-small max-xl:sr-only ${shown.isConnected ? 'text-quiet' : 'font-medium text-attention'}`}
        >
          {!shown.isConnected ? 'Not connected, trying again' : shown.isSaving ? 'Saving …' : 'Saved'}
        </span>
        <IconButton name="Undo your last change" keys={KEYS.undo.keys} disabled={!mayEdit} onClick={() => run('undo')}>
          <Undo2 size={17} aria-hidden />
        </IconButton>
        <IconButton
          name="Redo your last undone change"
          keys={KEYS.redo.keys}
          disabled={!mayEdit}
          onClick={() => run('redo')}
        >
          <Redo2 size={17} aria-hidden />
        </IconButton>
        <FindField label="Find by title, address or text" />
        <IconButton name="Keys" keys={KEYS.help.keys} onClick={() => run('help')} className="max-md:hidden">
          <CircleHelp size={17} aria-hidden />
        </IconButton>
        <AccountMenu />
      </div>
    </header>
  );
}

function SiteSwitcher() {
  const { site, setDialog, mayEdit } = useWorkbench();
  const { sites } = useSites();
  const navigate = useNavigate();
  return (
    <ActionMenu
      label="Sites"
      actions={[
        ...(sites ?? []).map((one) => ({
          words: one.name,
          isChosen: one.key === site.key,
          run: () => void navigate(`/sites/${one.key}`),
        })),
        null,
        ...(mayEdit ? [{ words: 'Rename this site…', run: () => setDialog('renameSite') }] : []),
        { words: 'All sites', run: () => void navigate('/sites') },
      ]}
      trigger={
        <button type="button" className="inline-flex h-8 max-w-64 items-center gap-2 rounded-md px-1 hover:bg-sunken">
          <span className="max-md:hidden" aria-hidden>
            <Wordmark size={20} />
          </span>
          <span aria-hidden className="h-4 w-px bg-rule max-md:hidden" />
          <span className="truncate font-medium">
            <span className="sr-only">Site: </span>
            {site.settings.name}
          </span>
        </button>
      }
    />
  );
}
