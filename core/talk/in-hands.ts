import { type Mentionable, mentionedIn } from './mentions.ts';

/**
 * Whether a conversation that is not settled is in somebody's hands: it was handed over to them, or they began it or are mentioned in it and
 * have not handed it over.
 * @param people all who can be mentioned, and the person among them
 */
export const isInHands = (
  thread: {
    readonly isBegunByThem: boolean;
    readonly isHandedToThem: boolean;
    readonly isHandedByThem: boolean;
    readonly texts: readonly string[];
  },
  person: string,
  people: readonly Mentionable[],
): boolean =>
  thread.isHandedToThem ||
  (!thread.isHandedByThem &&
    (thread.isBegunByThem || thread.texts.some((text) => mentionedIn(text, people).includes(person))));
