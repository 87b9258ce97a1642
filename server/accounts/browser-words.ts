/** The names by which browsers and systems give themselves away, the more special ones first. */
const BROWSERS = [
  ['Edg/', 'Edge'],
  ['OPR/', 'Opera'],
  ['Firefox/', 'Firefox'],
  ['Chrome/', 'Chrome'],
  ['Safari/', 'Safari'],
] as const;
const SYSTEMS = [
  ['iPhone', 'iPhone'],
  ['iPad', 'iPad'],
  ['Android', 'Android'],
  ['Windows', 'Windows'],
  ['Mac OS', 'macOS'],
  ['Linux', 'Linux'],
] as const;

/** A browser in words, as its User-Agent says: "Firefox on Linux". Empty where it says nothing that is known. */
export function browserWords(agent = ''): string {
  const named = (names: readonly (readonly [string, string])[]) => names.find(([sign]) => agent.includes(sign))?.[1];
  const [browser, system] = [named(BROWSERS), named(SYSTEMS)];
  return browser && system ? `${browser} on ${system}` : (browser ?? system ?? '');
}
