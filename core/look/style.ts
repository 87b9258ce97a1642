import { type Look, SCHEME_NAMES, type SchemeName, type Screen } from '../model/look.ts';
import { type Palette, schemesOf } from './schemes.ts';
import { type Family, TYPE_PAIRS, stackOf } from './type-pairs.ts';

/** How large text is, in pixels at a root size of 16. */
export const TEXT_PIXELS = { small: 16, usual: 17, large: 19 } as const;
const H1 = {
  calm: 'clamp(1.6rem, 4vw, 2.15rem)',
  usual: 'clamp(1.9rem, 5vw, 2.75rem)',
  bold: 'clamp(2.2rem, 8vw, 4.2rem)',
} as const;
const H2 = { calm: '1.25rem', usual: '1.4rem', bold: '1.75rem' } as const;
const WEIGHTS = { light: [430, 480], usual: [650, 620], heavy: [820, 760] } as const;
const WIDTHS = { narrow: '36rem', usual: '42rem', wide: '54rem' } as const;
const ROOM = { dense: '0.72', usual: '1', roomy: '1.4' } as const;
const CORNERS = { square: '0px', soft: '6px', round: '16px' } as const;
const LINES = { none: '0px', fine: '1px', strong: '2px' } as const;

/** How heavy the largest headings of a look are, as CSS has it. */
export const headingWeight = ({ weight }: Pick<Look, 'weight'>): number => WEIGHTS[weight][0];

/** The families of a look: of headings, then of text; one where they are the same. */
export function familiesOf({ pair }: Pick<Look, 'pair'>): readonly Family[] {
  const { headings, text } = TYPE_PAIRS.find(({ id }) => id === pair)!;
  return headings === text ? [text] : [headings, text];
}

/** The ranges of signs that are fetched by themselves (Unicode): those of western languages, and more Latin ones. */
const RANGES = {
  latin:
    'U+0000-00FF, U+0131, U+0152-0153, U+02BB-02BC, U+02C6, U+02DA, U+02DC, U+2000-206F, U+20AC, U+2122, U+2190-2193, U+2212, U+2215, U+FEFF, U+FFFD',
  'latin-ext':
    'U+0100-02BA, U+02BD-02C5, U+02C7-02CC, U+02CE-02D7, U+02DD-02FF, U+1E00-1E9F, U+1EF2-1EFF, U+20A0-20AB, U+20AD-20C0, U+2C60-2C7F, U+A720-A7FF',
} as const;
export const FONT_RANGES = Object.keys(RANGES) as (keyof typeof RANGES)[];
export type FontRange = keyof typeof RANGES;

/**
 * The faces of a look's type. @param urlOf where a family's file for a range of signs is
 * @param display `optional` for visitors: what they read does not move when a font comes late
 */
export const lookFaces = (
  look: Pick<Look, 'pair'>,
  urlOf: (family: Family, range: FontRange) => string,
  display: 'optional' | 'swap' = 'optional',
): string =>
  familiesOf(look)
    .flatMap((family) =>
      FONT_RANGES.map(
        (range) =>
          `@font-face { font-family: '${family.name}'; src: url('${urlOf(family, range)}') format('woff2'); font-weight: 100 900; font-display: ${display}; unicode-range: ${RANGES[range]}; }`,
      ),
    )
    .join('\n');

/**
 * A look as the variables that the stylesheet of visitors' pages goes by, with the colours of header and footer. `docs/look.md` names them.
 * @param screen for one kind of screens alone, whatever the browser has; null for both
 */
export function lookVariables(look: Look, screen: Screen | null = null): string {
  const schemes = schemesOf(look);
  const pair = TYPE_PAIRS.find(({ id }) => id === look.pair)!;
  const [h1Weight, h2Weight] = WEIGHTS[look.weight];
  const parts: readonly (readonly [selector: string, scheme: SchemeName, more: string])[] = [
    [':root', 'plain', ' --head-ground: var(--raised);'],
    ['.head, .menu-utility', look.header, ' --head-ground: var(--paper); color: var(--ink);'],
    ['.foot', look.footer, ' color: var(--quiet); background: var(--paper);'],
    ...SCHEME_NAMES.map((name) => [`.in-${name}`, name, ' --head-ground: var(--paper);'] as const),
  ];
  // What is plain is as the page; a band in plain colours may stand in one that is not.
  const own = parts.filter(([selector, scheme]) => !/^\.(head|foot)/.test(selector) || scheme !== 'plain');
  const paletteOf = (scheme: SchemeName, of: Screen) => paletteVariables(schemes[scheme][of]);
  const onDark = `
@media (prefers-color-scheme: dark) {
${own.map(([selector, scheme]) => `  ${selector} { ${paletteOf(scheme, 'dark')} }`).join('\n')}
}`;
  return `:root {
  color-scheme: ${screen ?? 'light dark'};
  --text: ${stackOf(pair.text)}; --display: ${stackOf(pair.headings)};
  --size: ${TEXT_PIXELS[look.size] / 16}rem; --h1: ${H1[look.scale]}; --h2: ${H2[look.scale]}; --h1-weight: ${h1Weight}; --h2-weight: ${h2Weight};
  --measure: ${WIDTHS[look.width]}; --room: ${ROOM[look.room]}; --radius: ${CORNERS[look.corners]}; --line: ${LINES[look.lines]};
}
${own.map(([selector, scheme, more]) => `${selector} { ${paletteOf(scheme, screen ?? 'light')}${more} }`).join('\n')}${screen === null ? onDark : ''}`;
}

const paletteVariables = ({ paper, raised, tint, ink, quiet, rule, accent, onAccent, warn }: Palette): string =>
  `--paper: ${paper}; --raised: ${raised}; --tint: ${tint}; --ink: ${ink}; --quiet: ${quiet}; --rule: ${rule}; --accent: ${accent}; --on-accent: ${onAccent}; --warn: ${warn};`;
