import { ChevronDown, CircleHelp, Redo2, TriangleAlert, Undo2 } from 'lucide-react';
import { useDeferredValue, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { AccountMenu } from '../account/account-menu.tsx';
import { useSites } from '../api/sites.ts';
import { ActionMenu } from '../ui/action-menu.tsx';
import { practiceBranch } from '#core/model/practice.ts';
import { addPractice } from '../lenses/practice-actions.tsx';
import { ForYouButton } from '../talk/for-you-button.tsx';
import { Button, IconButton } from '../ui/button.tsx';
import { Wordmark } from '../ui/wordmark.tsx';
import { numberWords } from '../ui/number-words.ts';
import { Popover } from '../ui/popover.tsx';
import { FindField } from './find-field.tsx';
import { KEYS } from './keys.ts';
import { ALL_LENSES } from '../lenses/all-lenses.ts';
import type { Waiting } from '../lenses/lens-definition.ts';
import { FoldedLens } from '../lenses/lens-bar.tsx';
import { LENSES } from './lenses.ts';
import { useTurns } from './use-turns.ts';
import { useCompact } from './use-compact.ts';
import { useWorkbench } from './workbench-context.tsx';

/** The slim bar on top: the site, the lenses, undo, find, the person. */
export function TopBar() {
  const { site, derived, feedback, findings, settingsFindings, run, mayEdit, shown } = useWorkbench();
  // The counts may follow a moment later: what is typed and pressed comes first.
  const seen = useDeferredValue(
    useMemo(
      () => ({ site, derived, feedback, findings, settingsFindings }),
      [site, derived, feedback, findings, settingsFindings],
    ),
  );
  const waiting = useMemo(() => {
    const onPages = seen.feedback?.totals.open.reduce((sum, one) => sum + one, 0) ?? 0;
    const onBoards =
      seen.feedback?.said.comments.filter((one) => one.page === null && one.settledBy === null).length ?? 0;
    const toSettle = onPages + onBoards;
    return LENSES.map((one) => ALL_LENSES[one].waiting({ ...seen, toSettle }));
  }, [seen]);
  const isCompact = useCompact();
  const { mayUndo, mayRedo } = useTurns(site.key, shown, mayEdit);
  return (
    <header>
      <div className="relative flex min-h-bar flex-wrap items-center gap-x-3 gap-y-1 border-b border-rule bg-raised px-3 py-1 compact:min-h-9 compact:flex-nowrap compact:gap-x-1 compact:px-1.5 compact:py-0.5 lg:flex-nowrap">
        <SiteSwitcher />
        {isCompact ? (
          <LensMenu waiting={waiting} />
        ) : (
          <nav
            aria-label="Lenses"
            className="flex shrink-0 items-center gap-0.5 max-lg:order-last max-lg:basis-full lg:ml-2"
          >
            <LensButtons waiting={waiting} />
          </nav>
        )}
        <div className="flex min-w-min flex-1 items-center justify-end gap-1 compact:ml-auto compact:flex-none compact:gap-0.5">
          {!isCompact && <SaveState />}
          <IconButton
            name="Undo your last change"
            keys={KEYS.undo.keys}
            disabled={!mayUndo}
            onClick={() => run('undo')}
          >
            <Undo2 size={17} aria-hidden />
          </IconButton>
          <IconButton
            name="Redo your last undone change"
            keys={KEYS.redo.keys}
            disabled={!mayRedo}
            onClick={() => run('redo')}
          >
            <Redo2 size={17} aria-hidden />
          </IconButton>
          <FindField label="Find by title, address or text" />
          <IconButton name="Keys" keys={KEYS.help.keys} onClick={() => run('help')} className="compact:hidden">
            <CircleHelp size={17} aria-hidden />
          </IconButton>
          <ForYouButton />
          <AccountMenu />
        </div>
      </div>
      {/* A telephone says nothing of a sign that is pointed at: the words stand below the bar. */}
      {isCompact && <SaveState />}
    </header>
  );
}

/** Whether all is saved. Where there is little room only what is wrong shows: as a sign in the bar, or as a line below it. */
function SaveState() {
  const { isConnected, isRefused, isSaving } = useWorkbench().shown;
  const wrong = !isConnected ? 'Not connected, trying again' : isRefused ? 'Not all is saved' : null;
  if (wrong === null)
    return (
      <span role="status" className="mr-1 text-small text-quiet max-xl:sr-only compact:sr-only">
        {isSaving ? 'Saving …' : 'Saved'}
      </span>
    );
  return (
    <span
      role="status"
      title={wrong}
      className="mr-1 flex items-center gap-1.5 text-small font-medium text-attention compact:mr-0 compact:border-b compact:border-rule compact:bg-raised compact:px-2.5 compact:py-1"
    >
      <TriangleAlert size={16} aria-hidden className="xl:hidden compact:block" />
      <span className="max-xl:sr-only compact:not-sr-only">{wrong}</span>
    </span>
  );
}

function LensButtons({
  waiting,
  onOpen = () => undefined,
}: {
  readonly waiting: readonly Waiting[];
  /** Is told that one was chosen. */
  readonly onOpen?: () => void;
}) {
  const { lens, setLens } = useWorkbench();
  return LENSES.map((one, at) => (
    <LensButton
      key={one}
      name={ALL_LENSES[one].name}
      keys={String(at + 1)}
      waiting={waiting[at]!}
      isCurrent={one === lens}
      onOpen={() => {
        onOpen();
        setLens(one);
      }}
    />
  ));
}

function LensButton({
  name,
  keys,
  waiting: { count, words },
  isCurrent,
  onOpen,
}: {
  readonly name: string;
  readonly keys: string;
  readonly waiting: Waiting;
  readonly isCurrent: boolean;
  readonly onOpen: () => void;
}) {
  return (
    <button
      type="button"
      aria-current={isCurrent ? 'true' : undefined}
      title={`The ${name} lens (${keys})${words ? `: ${words}` : ''}`}
      onClick={onOpen}
      className={`relative inline-flex h-8 items-center gap-1.5 rounded-md px-2.5 font-medium ${isCurrent ? 'bg-accent-soft text-accent' : 'hover:bg-sunken'}`}
    >
      {name}
      {count > 0 && (
        <span
          className={`min-w-5 rounded-full px-1.5 text-center text-tiny leading-5 ${isCurrent ? 'bg-accent text-on-accent' : 'bg-sunken text-quiet'}`}
        >
          {numberWords(count)}
          <span className="sr-only"> {words}</span>
        </span>
      )}
    </button>
  );
}

/** Where there is no room for the lenses beside each other: which one it is, the others, and what it says and offers. */
function LensMenu({ waiting }: { readonly waiting: readonly Waiting[] }) {
  const { lens, lensParts } = useWorkbench();
  const [isOpen, setOpen] = useState(false);
  const close = () => setOpen(false);
  return (
    <Popover
      label={`The ${lensParts.name} lens and the others`}
      className="flex w-72 flex-col p-2"
      isOpen={isOpen}
      onOpenChange={setOpen}
      trigger={
        <Button look="chosen" isTight className="shrink-0">
          <span className="sr-only">Lens: </span>
          {lensParts.name}
          <ChevronDown size={15} aria-hidden />
        </Button>
      }
    >
      <nav aria-label="Lenses" className="mb-2 grid grid-cols-2 gap-0.5 border-b border-rule pb-2">
        <LensButtons waiting={waiting} onOpen={close} />
      </nav>
      <FoldedLens key={lens} lens={lensParts} onDone={close} />
    </Popover>
  );
}

function SiteSwitcher() {
  const { site, store, setDialog, may } = useWorkbench();
  const { sites } = useSites();
  const navigate = useNavigate();
  return (
    <ActionMenu
      label="Sites"
      actions={[
        ...(sites ?? []).map((one) => ({
          // Two sites of one name are told apart by their keys.
          words: sites!.some((other) => other !== one && other.name === one.name)
            ? `${one.name} (${one.key})`
            : one.name,
          isChosen: one.key === site.key,
          run: () => void navigate(`/sites/${one.key}`),
        })),
        null,
        ...(may('everything', null) ? [{ words: 'Rename this site…', run: () => setDialog('renameSite') }] : []),
        ...(may('everything', null) && practiceBranch(site).length === 0
          ? [{ words: 'Add a practice page', run: () => addPractice(store) }]
          : []),
        { words: 'All sites', run: () => void navigate('/sites') },
      ]}
      trigger={
        <button
          type="button"
          className="inline-flex h-8 max-w-64 min-w-32 items-center gap-2 rounded-md px-1 hover:bg-sunken compact:max-w-48 compact:min-w-0"
        >
          <span className="compact:hidden" aria-hidden>
            <Wordmark size={20} />
          </span>
          <span aria-hidden className="h-4 w-px bg-rule compact:hidden" />
          <span className="truncate font-medium">
            <span className="sr-only">Site: </span>
            {site.settings.name}
          </span>
        </button>
      }
    />
  );
}
