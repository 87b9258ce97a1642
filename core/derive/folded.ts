/** Text without upper case and accents, for finding. */
export const folded = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();
