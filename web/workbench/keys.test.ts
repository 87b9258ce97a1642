import { describe, expect, it } from 'vitest';
import { type CommandName, KEYS, TREE_KEYS, commandOf } from './keys.ts';

const ARROWS: Readonly<Record<string, string>> = { '↑': 'ArrowUp', '↓': 'ArrowDown' };

/** The key stroke that a list of keys such as `Ctrl+Shift+Z` names. */
function strokeOf(keys: string): Partial<KeyboardEvent> {
  const parts = keys.split('+');
  const last = parts.at(-1)!;
  const shiftKey = parts.includes('Shift');
  const letter = last.length === 1 && /[A-Z]/.test(last) ? (shiftKey ? last : last.toLowerCase()) : last;
  return { key: ARROWS[last] ?? letter, shiftKey, ctrlKey: parts.includes('Ctrl'), metaKey: false, altKey: false };
}

const BY_THE_BROWSER: readonly string[] = ['copy', 'cut', 'paste'];
const OURS = (Object.entries(KEYS) as [CommandName, { keys: string }][]).filter(
  ([name]) => !BY_THE_BROWSER.includes(name),
);

describe('the table of keys', () => {
  it.each(OURS)('%s is asked for by its keys', (name, { keys }) =>
    expect(commandOf(strokeOf(keys) as KeyboardEvent)).toBe(name),
  );

  it('leaves the clipboard keys to the browser, whose own events copy, cut and paste', () => {
    for (const key of ['c', 'x', 'v'])
      expect(commandOf(strokeOf(`Ctrl+${key.toUpperCase()}`) as KeyboardEvent)).toBeNull();
  });

  it('gives no key to two commands, nor to the tree as well', () => {
    const all = [...Object.values(KEYS), ...TREE_KEYS].map((one) => one.keys);
    expect(new Set(all).size).toBe(all.length);
  });

  it.each([[{ key: 'n', altKey: true }], [{ key: 'n', ctrlKey: true }], [{ key: 'q' }], [{ key: 'ArrowUp' }]])(
    'takes nothing else: %o',
    (stroke) =>
      expect(
        commandOf({ ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...stroke } as KeyboardEvent),
      ).toBeNull(),
  );

  it('takes the command key of a Mac for Ctrl', () =>
    expect(
      commandOf({ key: 'z', metaKey: true, ctrlKey: false, altKey: false, shiftKey: false } as KeyboardEvent),
    ).toBe('undo'));
});
