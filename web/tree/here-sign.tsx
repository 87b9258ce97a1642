/** So many people show beside a title; the others are counted. */
const MAX_SHOWN = 2;

/** The first letters of somebody's name. */
const initialsOf = (name: string): string => {
  const parts = name.trim().split(/\s+/);
  return [parts[0], parts.length > 1 ? parts.at(-1) : ''].map((part) => [...(part ?? '')][0] ?? '').join('');
};

export const hereWords = (names: readonly string[]): string =>
  names.length === 1 ? `${names[0]} is here now` : `${names.slice(0, -1).join(', ')} and ${names.at(-1)} are here now`;

/** Who else has a page selected: small letters that take no room from the title. @param names parted by line ends */
export function HereSign({ names }: { readonly names: string }) {
  const all = names.split('\n');
  const words = hereWords(all);
  return (
    <span role="img" aria-label={words} title={words} className="ml-2 flex shrink-0 gap-0.5">
      {all.slice(0, MAX_SHOWN).map((name) => (
        <span
          key={name}
          aria-hidden
          className="inline-flex h-5 min-w-5 items-center justify-center rounded-full bg-accent-soft px-1 text-tiny font-medium text-accent forced-colors:bg-transparent forced-colors:text-inherit"
        >
          {initialsOf(name)}
        </span>
      ))}
      {all.length > MAX_SHOWN && <span className="text-tiny text-quiet">+{all.length - MAX_SHOWN}</span>}
    </span>
  );
}
