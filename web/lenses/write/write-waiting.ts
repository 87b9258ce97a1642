import type { Waiting, WaitingFacts } from '../lens-definition.ts';

/** Pages without a text. */
export function writeWaiting({ derived }: WaitingFacts): Waiting {
  let unwritten = 0;
  for (const { type, content } of derived.outline.nodes) if (type === 'page' && content === null) unwritten++;
  return { count: unwritten, words: `${unwritten} without text` };
}
