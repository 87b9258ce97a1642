/** A letter within this time after the last one belongs to what was being typed. */
const PAUSE_MS = 1000;

let until = 0;

/** Says that somebody was typing until now and that the field is gone: the letters that follow at once are theirs, and no commands. */
export function typingEnds(now = performance.now()): void {
  until = now + PAUSE_MS;
}

/** Whether a key stroke still belongs to what was being typed. A pause ends it, and so does a key that is no character. */
export function belongsToTyping({ key }: Pick<KeyboardEvent, 'key'>, now = performance.now()): boolean {
  const isOf = now < until && key.length === 1;
  until = isOf ? now + PAUSE_MS : 0;
  return isOf;
}
