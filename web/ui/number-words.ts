const NUMBERS = new Intl.NumberFormat('en');

/** A number with its thousands apart. The format is made once: making it costs more than a row of the tree. */
export const numberWords = (value: number): string => NUMBERS.format(value);
