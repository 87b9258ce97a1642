/** The longest name of a file, without its ending. */
export const MAX_FILE_NAME_LENGTH = 150;

/** Names that cameras, telephones and scanners give, and such as are a number or a key alone. */
const SAYS_NOTHING = [
  /^(?:img|dsc|dscn|dscf|pxl|vid|mov|mvi|gopr|scan|scanned|image|picture|photo|foto|bild|document|dokument|untitled|unnamed|download|file|clip|whatsapp image|screenshot|bildschirmfoto)(?:[ ._-]*\(?(?:[a-z]{0,2}\d|at\b|am\b|pm\b|um\b)[\d :.,a-z()-]*)?$/i,
  /^[\d ._()-]+$/,
  /^[0-9a-f]{8}[0-9a-f -]{8,}$/i,
];

export interface NameOfFile {
  /** The name to show, without an ending. */
  readonly name: string;
  /** Whether the name that was given says something to people. */
  readonly isReadable: boolean;
}

/**
 * What a file is to be called in the library. A path in front and the ending are left out, and signs that stand in for spaces become such.
 * @param given its name as it was sent: anything @param fallback what it is called where that says nothing, such as "Picture"
 */
export function nameOfFile(given: string, fallback: string): NameOfFile {
  const [last = ''] = given.normalize('NFC').split(/[/\\]/).slice(-1);
  const words = unescaped(last)
    .replace(/[\p{C}\p{Zl}\p{Zp}]/gu, '')
    .replace(/[/\\:*?"<>|]/g, ' ')
    .replace(/\.[A-Za-z0-9]{1,5}$/, '')
    .replace(/[_+]/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
  const short = [...withoutDots(words)].slice(0, MAX_FILE_NAME_LENGTH).join('').trim();
  if (short === '' || SAYS_NOTHING.some((one) => one.test(short))) return { name: fallback, isReadable: false };
  // Words of an address are parted by hyphens alone.
  const spaced = short.includes(' ') ? short : short.replace(/-+/g, ' ').trim() || short;
  return { name: spaced.charAt(0).toUpperCase() + spaced.slice(1), isReadable: true };
}

/** Without dots and spaces around it, which hide a file and mislead some systems. */
function withoutDots(text: string): string {
  let from = 0;
  let to = text.length;
  while (from < to && '. '.includes(text[from]!)) from++;
  while (to > from && '. '.includes(text[to - 1]!)) to--;
  return text.slice(from, to);
}

/** With what is escaped as in an address read, where that can be read. */
function unescaped(text: string): string {
  if (!/%[0-9A-Fa-f]{2}/.test(text)) return text;
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}

/** The last step of a file's address: its name in letters that addresses take, with its ending. */
export function fileStep(name: string, ending: string): string {
  const step = name
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .slice(0, 80)
    .replace(/^-|-$/g, '');
  return `${step === '' ? 'file' : step}.${ending}`;
}
