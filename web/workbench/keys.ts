/** Every key of the workbench, by what it does: the handler, the list of keys and the tooltips read this table. */
export const KEYS = {
  addAfter: { keys: 'N', words: 'New page after the selected one' },
  addInside: { keys: 'Shift+N', words: 'New page inside the selected one' },
  rename: { keys: 'F2', words: 'Rename in place' },
  nest: { keys: ']', words: 'Nest under the page above' },
  lift: { keys: '[', words: 'Lift out one level' },
  moveUp: { keys: 'Ctrl+↑', words: 'Move up among siblings' },
  moveDown: { keys: 'Ctrl+↓', words: 'Move down among siblings' },
  moveTo: { keys: 'T', words: 'Move to…' },
  remove: { keys: 'Delete', words: 'Remove' },
  undo: { keys: 'Ctrl+Z', words: 'Undo your last change' },
  redo: { keys: 'Ctrl+Shift+Z', words: 'Make your last undone change again' },
  find: { keys: '/', words: 'Find by title' },
  commands: { keys: 'Ctrl+K', words: 'Commands' },
  lensWrite: { keys: '2', words: 'The Write lens' },
  lensMenus: { keys: '4', words: 'The Menus lens' },
  lensPublish: { keys: '5', words: 'The Publish lens' },
  help: { keys: '?', words: 'The list of these keys' },
} as const;
export type CommandName = keyof typeof KEYS;

/** Keys of the tree itself, from the treegrid pattern of WAI-ARIA. */
export const TREE_KEYS: readonly { readonly keys: string; readonly words: string }[] = [
  { keys: '↑ ↓', words: 'To the row above or below' },
  { keys: '→', words: 'Open the branch, then go along the columns' },
  { keys: '←', words: 'Back along the columns; close the branch, then go to the page above' },
  { keys: 'Home End', words: 'To the first or last row' },
  { keys: 'Page ↑ Page ↓', words: 'A screen up or down' },
  { keys: 'Shift+↑ Shift+↓', words: 'Select more rows' },
  { keys: 'Space', words: 'Select the row or take it out of the selection; in a column, change it' },
  { keys: 'Ctrl+A', words: 'Select all rows that show' },
  { keys: 'Enter', words: 'Rename; in a column, change it' },
  { keys: 'Escape', words: 'Leave what is being typed, clear the find field' },
];

/** The command that a key stroke asks for. */
export function commandOf(event: KeyboardEvent): CommandName | null {
  const control = event.ctrlKey || event.metaKey;
  if (control && !event.altKey) {
    const key = event.key.toLowerCase();
    if (key === 'z') return event.shiftKey ? 'redo' : 'undo';
    if (key === 'k') return 'commands';
    if (event.key === 'ArrowUp') return 'moveUp';
    if (event.key === 'ArrowDown') return 'moveDown';
    return null;
  }
  if (event.altKey) return null;
  switch (event.key) {
    case 'n':
      return 'addAfter';
    case 'N':
      return 'addInside';
    case 'F2':
      return 'rename';
    case ']':
      return 'nest';
    case '[':
      return 'lift';
    case 't':
      return 'moveTo';
    case 'Delete':
      return 'remove';
    case '/':
      return 'find';
    case '2':
      return 'lensWrite';
    case '4':
      return 'lensMenus';
    case '5':
      return 'lensPublish';
    case '?':
      return 'help';
    default:
      return null;
  }
}

/** Whether the person is typing there, so that letters are letters. */
export const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));
