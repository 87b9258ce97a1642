import { selectNextMarked } from '../settings/next-marked.ts';
import { useEffect, useEffectEvent } from 'react';
import { beginComment } from '../talk/begun-comment.ts';
import { gestureForAll } from '#core/arrange/arrange.ts';
import type { PageId } from '#core/model/ids.ts';
import { childrenOf, nodeAt } from '#core/model/site.ts';
import { forbiddenWords } from '#core/people/forbidden.ts';
import { ServerProblem, wordsOfFault } from '../api/client.ts';
import type { SiteStore } from '../api/site-store.ts';
import { putBackPages } from '../api/sites.ts';
import { carriedAndUndone } from '../clipboard/carried-cuts.ts';
import { keptClip } from '../clipboard/clip.ts';
import { type CommandName, commandOf, isInTree, isPlain, isTyping } from './keys.ts';
import { belongsToTyping } from './typing-goes-on.ts';
import type { Workbench } from './workbench-context.tsx';
import { toast } from '../ui/toast.ts';

const NEEDS_EDIT: ReadonlySet<CommandName> = new Set([
  'addAfter',
  'addInside',
  'rename',
  'nest',
  'lift',
  'moveUp',
  'moveDown',
  'moveTo',
  'remove',
  'cut',
  'paste',
  'pasteList',
  'undo',
  'redo',
]);

/** What each command does, and the keys that ask for it: those with Ctrl anywhere in the workbench, the others in the tree and the map. */
export function useCommands(workbench: Omit<Workbench, 'run'>): (command: CommandName) => void {
  const run = (command: CommandName): void => {
    const obstacle = obstacleTo(workbench, command);
    if (obstacle !== null) return void toast(obstacle);
    runCommand(workbench, command);
  };
  const onKey = useEffectEvent((event: KeyboardEvent) => {
    // Wherever the keyboard is, unless something there has taken it: the whole tree shows again.
    if (
      event.key === 'Escape' &&
      !event.defaultPrevented &&
      !isTyping(event.target) &&
      workbench.dialog === null &&
      workbench.found !== null
    )
      return workbench.clearFind();
    // Each letter counts, also one that is no command: a word is typed on as a whole.
    const isTypedOn = isPlain(event) && belongsToTyping(event);
    const command = commandOf(event);
    if (command === null || workbench.dialog !== null || event.defaultPrevented) return;
    // While somebody types, only the command list is a command; undo is the text's own.
    if (isTyping(event.target) && command !== 'commands') return;
    // A letter typed where nothing takes it is no command: the field that it was meant for may have gone.
    if (isPlain(event) && !isInTree(event.target)) return;
    event.preventDefault();
    if (isTypedOn) return;
    run(command);
  });
  useEffect(() => {
    const listener = (event: KeyboardEvent) => onKey(event);
    window.addEventListener('keydown', listener);
    return () => window.removeEventListener('keydown', listener);
  }, []);
  return run;
}

/** Why a command cannot be carried out by who is at the workbench, in words; null where it can. */
function obstacleTo(workbench: Omit<Workbench, 'run'>, command: CommandName): string | null {
  if (!NEEDS_EDIT.has(command)) return null;
  const { past, mayEdit, may, powers, site, selection, chosen } = workbench;
  if (past) return 'This is how the tree was. Back to now to change it.';
  if (command === 'undo' || command === 'redo') return null;
  const lacking = (at: PageId | null) =>
    may('shape', at) ? null : forbiddenWords(powers, { permission: 'shape', at, site });
  if (!mayEdit) return lacking(null);
  const { active } = selection;
  switch (command) {
    case 'addAfter':
      return lacking(active === null ? null : nodeAt(site, active).parent);
    case 'addInside':
    case 'rename':
      return lacking(active);
    case 'nest':
    case 'lift':
    case 'moveUp':
    case 'moveDown':
    case 'moveTo':
    case 'remove':
    case 'cut': {
      const first = chosen.find((page) => !may('shape', page));
      return first === undefined ? null : lacking(first);
    }
    default:
      return may('shape', 'somewhere') ? null : lacking(null);
  }
}

function runCommand(workbench: Omit<Workbench, 'run'>, command: CommandName): void {
  const { site, selection, chosen, setEditing, setDialog, setLens, setOpen } = workbench;
  const { active } = selection;
  switch (command) {
    case 'addAfter': {
      // After a page that stands open the new one would land out of sight: it comes right below that branch.
      const parent = active === null ? null : nodeAt(site, active).parent;
      const siblings = childrenOf(site, parent);
      // The place to practise stays last.
      const after =
        active !== null && active === site.practice ? (siblings[siblings.indexOf(active) - 1] ?? null) : active;
      setEditing({ kind: 'add', parent, after });
      return;
    }
    case 'addInside': {
      if (active !== null && nodeAt(site, active).type === 'link') {
        toast.error('A link cannot hold pages. Choose a page or a heading.');
        return;
      }
      if (active !== null) setOpen(active, true);
      // The place to practise stays last.
      const others = childrenOf(site, active).filter((page) => page !== site.practice);
      setEditing({ kind: 'add', parent: active, after: others.at(-1) ?? null });
      return;
    }
    case 'rename':
      if (active !== null) setEditing({ kind: 'rename', page: active });
      return;
    case 'nest':
      return gesture(workbench, 'nest', 'There is no page above to nest it under.');
    case 'lift':
      return gesture(workbench, 'lift', 'It is already at the top level.');
    case 'moveUp':
      return gesture(workbench, 'up', 'It is the first among its siblings.');
    case 'moveDown':
      return gesture(workbench, 'down', 'It is the last among its siblings.');
    case 'moveTo':
      if (chosen.length > 0) setDialog('move');
      return;
    case 'remove':
      if (chosen.length > 0) setDialog('remove');
      return;
    case 'cut':
    case 'copy':
      // The browser takes what is selected by its own command, so that the clipboard holds it for other programs too.
      workbench.focusTree();
      document.execCommand(command);
      return;
    case 'paste': {
      const clip = keptClip();
      workbench.paste(clip ? { kind: 'pages', clip } : { kind: 'list', text: '' });
      return;
    }
    case 'pasteList':
      workbench.paste({ kind: 'list', text: '' });
      return;
    case 'map':
      workbench.setView(workbench.view === 'map' ? 'sheet' : 'map');
      return;
    case 'comment':
      if (active === null) return;
      workbench.setBeside({ kind: 'comments', id: active });
      beginComment(active, null);
      return;
    case 'desk':
      if (workbench.lens !== 'write') setLens('write');
      workbench.setView(workbench.view === 'desk' ? 'sheet' : 'desk');
      return;
    case 'walk': {
      const row = active === null ? undefined : workbench.derived.outline.rowOf.get(active);
      const address = row === undefined ? null : workbench.derived.addresses[row];
      window.open(`/sites/${site.key}/walk?from=${encodeURIComponent(address ?? '/')}`, '_blank');
      return;
    }
    case 'nextMarked':
      return selectNextMarked(workbench);
    case 'history':
      workbench.setHistoryOpen(!workbench.isHistoryOpen || workbench.beside !== null);
      return;
    case 'undo':
    case 'redo':
      void turn(workbench, command);
      return;
    case 'find':
      document.getElementById('find-field')?.focus();
      return;
    case 'commands':
      setDialog('commands');
      return;
    case 'lensPlan':
      setLens('plan');
      return;
    case 'lensWrite':
      setLens('write');
      return;
    case 'lensAccess':
      setLens('access');
      return;
    case 'lensMenus':
      setLens('menus');
      return;
    case 'lensPublish':
      setLens('publish');
      return;
    case 'lensChecks':
      setLens('checks');
      return;
    case 'help':
      setDialog('keys');
      return;
  }
}

/** Nests, lifts or shifts all that is selected; says why where that cannot be. */
function gesture(
  { site, chosen, store, setOpen }: Omit<Workbench, 'run'>,
  name: 'nest' | 'lift' | 'up' | 'down',
  otherwise: string,
): void {
  if (chosen.length === 0) return;
  const operations = gestureForAll(site, chosen, name);
  if (operations.length === 0) toast(otherwise);
  else if (store.apply(operations) === null)
    for (const { place } of operations) if (place.parent !== null) setOpen(place.parent, true);
}

/** Says where a branch is kept that was brought here from another site, where undoing took it out of this one; and offers to put it back. */
function offerBack(store: SiteStore): void {
  for (const { from, fromName, pages: gone } of carriedAndUndone(store.getShown().site))
    toast(
      `In ‘${fromName}’, where ${gone.length === 1 ? 'it was' : 'they were'} cut, this is kept under ‘Removed pages’.`,
      {
        duration: 20_000,
        action: {
          label: 'Put back there',
          onClick: () =>
            void putBackPages(from, gone).then(
              () => toast(`Put back in ‘${fromName}’.`),
              (fault: unknown) => toast.error(wordsOfFault(fault)),
            ),
        },
      },
    );
}

/** Undoes or makes again; where somebody else's later change stands in the way, says so and offers the ways out. */
async function turn(
  workbench: Pick<Workbench, 'store'>,
  direction: 'undo' | 'redo',
  how: { anyway?: boolean; skip?: boolean } = {},
): Promise<void> {
  try {
    const words = await workbench.store.turn(direction, how);
    toast(words.charAt(0).toUpperCase() + words.slice(1), { duration: 3000 });
    if (direction === 'undo') offerBack(workbench.store);
  } catch (fault) {
    if (fault instanceof ServerProblem && fault.problem.code === 'undo-blocked') {
      toast.error(fault.message, {
        duration: 20_000,
        action: { label: 'Undo both', onClick: () => void turn(workbench, direction, { anyway: true }) },
        cancel: { label: 'Skip it', onClick: () => void turn(workbench, direction, { skip: true }) },
      });
    } else if (fault instanceof ServerProblem && /^(undo|redo)-nothing$/.test(fault.problem.code)) toast(fault.message);
    else toast.error(wordsOfFault(fault));
  }
}
