/** "1 open question, 3 comments to settle": of several things those that there are, else the first with its nothing. */
export const inWords = (...parts: readonly (string | false)[]): string => parts.filter(Boolean).join(', ');
