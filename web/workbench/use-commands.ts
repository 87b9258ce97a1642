import { useEffect, useEffectEvent } from 'react';
import { toast } from 'sonner';
import { lift, nest, shift } from '#core/arrange/arrange.ts';
import { childrenOf, nodeAt } from '#core/model/site.ts';
import { ServerProblem, wordsOfFault } from '../api/client.ts';
import { type CommandName, commandOf, isTyping } from './keys.ts';
import type { Workbench } from './workbench-context.tsx';

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
  'undo',
  'redo',
]);

/** What each command does, and the keys that ask for it anywhere in the workbench. */
export function useCommands(workbench: Omit<Workbench, 'run'>): (command: CommandName) => void {
  const run = (command: CommandName): void => {
    if (NEEDS_EDIT.has(command) && !workbench.mayEdit) {
      toast('Your account may read this site, not change it.');
      return;
    }
    runCommand(workbench, command);
  };
  const onKey = useEffectEvent((event: KeyboardEvent) => {
    const command = commandOf(event);
    if (command === null || workbench.dialog !== null || event.defaultPrevented) return;
    // While somebody types, only the command list is a command; undo is the text's own.
    if (isTyping(event.target) && command !== 'commands') return;
    event.preventDefault();
    run(command);
  });
  useEffect(() => {
    const listener = (event: KeyboardEvent) => onKey(event);
    window.addEventListener('keydown', listener);
    return () => window.removeEventListener('keydown', listener);
  }, []);
  return run;
}

function runCommand(workbench: Omit<Workbench, 'run'>, command: CommandName): void {
  const { site, store, selection, chosen, setEditing, setDialog, setLens, setOpen } = workbench;
  const { active } = selection;
  switch (command) {
    case 'addAfter': {
      // After a page that stands open the new one would land out of sight: it comes right below that branch.
      setEditing({ kind: 'add', parent: active === null ? null : nodeAt(site, active).parent, after: active });
      return;
    }
    case 'addInside': {
      if (active !== null && nodeAt(site, active).type === 'link') {
        toast.error('A link cannot hold pages. Choose a page or a heading.');
        return;
      }
      if (active !== null) setOpen(active, true);
      setEditing({ kind: 'add', parent: active, after: childrenOf(site, active).at(-1) ?? null });
      return;
    }
    case 'rename':
      if (active !== null) setEditing({ kind: 'rename', page: active });
      return;
    case 'nest':
      if (active !== null) {
        const operations = nest(site, active);
        if (operations.length === 0) toast('There is no page above to nest it under.');
        store.apply(operations);
        if (operations[0]?.place.parent != null) setOpen(operations[0].place.parent, true);
      }
      return;
    case 'lift':
      if (active !== null) {
        const operations = lift(site, active);
        if (operations.length === 0) toast('It stands at the top level already.');
        store.apply(operations);
      }
      return;
    case 'moveUp':
      if (active !== null) store.apply(shift(site, active, -1));
      return;
    case 'moveDown':
      if (active !== null) store.apply(shift(site, active, 1));
      return;
    case 'moveTo':
      if (chosen.length > 0) setDialog('move');
      return;
    case 'remove':
      if (chosen.length > 0) setDialog('remove');
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
    case 'lensWrite':
      setLens('write');
      return;
    case 'lensMenus':
      setLens('menus');
      return;
    case 'lensPublish':
      setLens('publish');
      return;
    case 'help':
      setDialog('keys');
      return;
  }
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
  } catch (fault) {
    if (fault instanceof ServerProblem && fault.problem.code === 'undo-blocked') {
      toast.error(fault.message, {
        duration: 20_000,
        action: { label: 'Undo both', onClick: () => void turn(workbench, direction, { anyway: true }) },
        cancel: { label: 'Leave it', onClick: () => void turn(workbench, direction, { skip: true }) },
      });
    } else if (fault instanceof ServerProblem && /^(undo|redo)-nothing$/.test(fault.problem.code)) toast(fault.message);
    else toast.error(wordsOfFault(fault));
  }
}
