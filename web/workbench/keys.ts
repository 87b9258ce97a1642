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
  remove: { keys: 'Delete', words: 'Remove the selected pages' },
  cut: { keys: 'Ctrl+X', words: 'Cut the selected pages' },
  copy: { keys: 'Ctrl+C', words: 'Copy the selected pages' },
  paste: { keys: 'Ctrl+V', words: 'Paste pages, or a list of titles' },
  pasteList: { keys: 'L', words: 'Make pages from a list…' },
  undo: { keys: 'Ctrl+Z', words: 'Undo your last change' },
  redo: { keys: 'Ctrl+Shift+Z', words: 'Redo your last undone change' },
  find: { keys: '/', words: 'Find by title, address or text' },
  commands: { keys: 'Ctrl+K', words: 'Commands' },
  nextMarked: { keys: 'G', words: 'Go to the next marked row' },
  walk: { keys: 'W', words: 'Walk through the site as a visitor' },
  lensPlan: { keys: '1', words: 'The Plan lens' },
  lensWrite: { keys: '2', words: 'The Write lens' },
  lensAccess: { keys: '3', words: 'The Access lens' },
  lensMenus: { keys: '4', words: 'The Menus lens' },
  lensPublish: { keys: '5', words: 'The Publish lens' },
  lensChecks: { keys: '6', words: 'The Checks lens' },
  comment: { keys: 'C', words: 'Comment on the selected page' },
  desk: { keys: 'D', words: 'The desk, to write on the page, and back' },
  map: { keys: 'M', words: 'The map, and back to the rows' },
  history: { keys: 'H', words: 'History' },
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
  { keys: 'Escape', words: 'Leave what is being typed, let go of what was cut, show the whole tree again' },
];

/** Keys while the title of a new page is typed. */
export const TYPING_KEYS: readonly { readonly keys: string; readonly words: string }[] = [
  { keys: 'Enter', words: 'Make the page, and type the next one after it; in an empty row, end' },
  { keys: 'Tab', words: 'Make the page, and type the next one inside it; in an empty row, go inside the page above' },
  { keys: 'Shift+Tab', words: 'Make the page, and type the next one a level further out; in an empty row, go out' },
  { keys: 'Escape', words: 'Leave without making a page' },
];

/** Keys of the map. */
export const MAP_KEYS: readonly { readonly keys: string; readonly words: string }[] = [
  { keys: '↑ ↓ ← →', words: 'To the page above, the first below, and the ones beside, as they are drawn' },
  { keys: 'Space', words: 'Open or close the branch' },
  { keys: '+ −', words: 'Nearer, farther' },
  { keys: '0', words: 'All of the tree' },
  { keys: '.', words: 'The selected branch' },
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
    case 'l':
      return 'pasteList';
    case 'c':
      return 'comment';
    case 'd':
      return 'desk';
    case 'm':
      return 'map';
    case 'g':
      return 'nextMarked';
    case 'w':
      return 'walk';
    case 'h':
      return 'history';
    case '/':
      return 'find';
    case '1':
      return 'lensPlan';
    case '2':
      return 'lensWrite';
    case '3':
      return 'lensAccess';
    case '4':
      return 'lensMenus';
    case '5':
      return 'lensPublish';
    case '6':
      return 'lensChecks';
    case '?':
      return 'help';
    default:
      return null;
  }
}

/** Whether the person is typing there, so that letters are letters. */
export const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && (target.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName));

/** Whether a key stroke is a key by itself, as letters are. */
export const isPlain = ({ ctrlKey, metaKey, altKey }: KeyboardEvent): boolean => !ctrlKey && !metaKey && !altKey;

/** Whether something is in the tree or the map: there alone keys by themselves are commands. */
export const isInTree = (target: EventTarget | null): boolean =>
  target instanceof Element && target.closest('[data-tree-view]') !== null;
