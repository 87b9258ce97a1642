import { useState } from 'react';

const PREFIX = 'spur.kept.';

/**
 * A text that is being typed and not done with yet. It comes back after its field was gone, in this tab, also when the page was
 * loaded again; '' forgets it. @param name tells it from all others: the site and what it is for
 */
export function useKept(name: string, first = ''): [text: string, set: (text: string) => void] {
  const key = PREFIX + name;
  const [typed, setTyped] = useState(() => ({ key, text: first || read(key) }));
  const text = typed.key === key ? typed.text : read(key);
  return [
    text,
    (next) => {
      setTyped({ key, text: next });
      write(key, next);
    },
  ];
}

/** Forgets a text that is done with, from where its field is not. */
export const forgetKept = (name: string): void => write(PREFIX + name, '');

function read(key: string): string {
  try {
    return sessionStorage.getItem(key) ?? '';
  } catch {
    return '';
  }
}

/** A browser that keeps nothing, or has no room left, is no reason not to type. */
function write(key: string, text: string): void {
  try {
    if (text === '') sessionStorage.removeItem(key);
    else sessionStorage.setItem(key, text);
  } catch {
    // The text is still in the field.
  }
}
