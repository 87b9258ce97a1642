import { type Look, SCHEME_NAMES, SCREENS, type SchemeName, type Screen } from '../model/look.ts';
import { type Hex, type Shade, contrast, hexOf, leastContrast, readable, shadeOf } from './colours.ts';

/** The least contrast of text to its ground, and of signs and lines that mean something (WCAG 2.2, 1.4.3 and 1.4.11). */
export const TEXT_RATIO = 4.5;
export const SIGN_RATIO = 3;

/** The colours of a part of a page: three grounds, what stands on all of them, and what stands on the accent. */
export interface Palette {
  /** The ground of the part, of what is raised from it, and of what is marked. */
  readonly paper: Hex;
  readonly raised: Hex;
  readonly tint: Hex;
  readonly ink: Hex;
  readonly quiet: Hex;
  /** Of links, and the ground of buttons. */
  readonly accent: Hex;
  readonly onAccent: Hex;
  /** A sign that something is wrong. */
  readonly warn: Hex;
  /** Lines that only part. */
  readonly rule: Hex;
}
/** On screens that are light, and on dark ones. */
export type Scheme = Readonly<Record<Screen, Palette>>;
export type Schemes = Readonly<Record<SchemeName, Scheme>>;

const WARN = shadeOf('#b4540a');
/** On so little of it text stands out as much as on white. */
const NEARLY_GREY = 0.004;

const known = new Map<string, Schemes>();
const MOST_KNOWN = 100;

/** The schemes of a look, worked out once. Text reaches 4.5 to 1 on each ground of its part, and signs 3 to 1, whatever the colours are. */
export function schemesOf(look: Pick<Look, 'colour' | 'accent'>): Schemes {
  const key = `${look.colour} ${look.accent}`;
  let schemes = known.get(key);
  if (!schemes) {
    if (known.size >= MOST_KNOWN) known.clear();
    schemes = computed(look);
    known.set(key, schemes);
  }
  return schemes;
}

function computed({ colour, accent }: Pick<Look, 'colour' | 'accent'>): Schemes {
  const main = shadeOf(colour);
  const link = shadeOf(accent ?? colour);
  const on = (ground: Shade, raised: number, tint: number, tintChroma: number): Palette =>
    paletteOn(
      hexOf(ground),
      hexOf({ ...ground, l: raised, c: ground.c / 2 }),
      hexOf({ ...ground, l: tint, c: Math.min(main.c, tintChroma) }),
      main,
      link,
    );
  const tinged = (l: number, share: number, most: number): Shade => ({
    l,
    c: Math.min(main.c * share, most),
    h: main.h,
  });
  const strong = strongOf(main, link, accent !== null);
  return {
    plain: {
      light: on({ ...tinged(0.983, 1, NEARLY_GREY) }, 0.998, 0.935, 0.03),
      dark: on(tinged(0.205, 0.2, 0.014), 0.25, 0.3, 0.03),
    },
    tinted: {
      light: on(tinged(0.945, 0.35, 0.035), 0.978, 0.905, 0.05),
      dark: on(tinged(0.26, 0.35, 0.035), 0.3, 0.345, 0.045),
    },
    strong: { light: strong, dark: strong },
    dark: {
      light: on(tinged(0.25, 0.35, 0.04), 0.295, 0.34, 0.05),
      dark: on(tinged(0.15, 0.25, 0.025), 0.195, 0.25, 0.035),
    },
  };
}

/** What stands on grounds that are all light, or all dark. */
function paletteOn(paper: Hex, raised: Hex, tint: Hex, main: Shade, link: Shade): Palette {
  const grounds = [paper, raised, tint];
  const isDark = leastContrast('#ffffff', grounds) > leastContrast('#000000', grounds);
  const tinge = Math.min(main.c, 0.025);
  const accent = readable(link, grounds, TEXT_RATIO);
  return {
    paper,
    raised,
    tint,
    ink: readable({ l: isDark ? 0.94 : 0.25, c: tinge, h: main.h }, grounds, 7),
    quiet: readable({ l: isDark ? 0.78 : 0.46, c: tinge, h: main.h }, grounds, TEXT_RATIO),
    accent,
    onAccent: outstanding(accent, [paper, isDark ? '#000000' : '#ffffff']),
    warn: readable(WARN, grounds, SIGN_RATIO),
    rule: hexOf({ ...shadeOf(paper), l: shadeOf(paper).l + (isDark ? 0.12 : -0.11) }),
  };
}

/** The colour itself as ground. It is shifted where neither black nor white could be read on what is raised from it. */
function strongOf(main: Shade, link: Shade, hasAccent: boolean): Palette {
  const paper = hexOf(main);
  const end = contrast('#ffffff', paper) >= contrast('#000000', paper) ? '#ffffff' : '#000000';
  const away = end === '#ffffff' ? -1 : 1;
  // What is raised goes away from the words on it, so that they stand out there the more.
  const at = (l: number) => hexOf({ ...main, l });
  const ground = readable(main, [end], TEXT_RATIO);
  const { l } = shadeOf(ground);
  const grounds = [ground, at(l + away * 0.045), at(l + away * 0.08)] as const;
  const accent = hasAccent && leastContrast(hexOf(link), grounds) >= TEXT_RATIO ? hexOf(link) : end;
  return {
    paper: grounds[0],
    raised: grounds[1],
    tint: grounds[2],
    ink: end,
    quiet: readable({ l: end === '#ffffff' ? 0.9 : 0.2, c: 0.02, h: main.h }, grounds, TEXT_RATIO),
    accent,
    onAccent: outstanding(accent, [ground, '#ffffff', '#000000']),
    warn: readable(WARN, grounds, SIGN_RATIO),
    rule: hexOf({ ...main, l: l + away * 0.12 }),
  };
}

/** The first of the colours that can be read on a ground, else the one that stands out most. */
const outstanding = (ground: Hex, colours: readonly Hex[]): Hex =>
  colours.find((one) => contrast(one, ground) >= TEXT_RATIO) ??
  colours.toSorted((one, other) => contrast(other, ground) - contrast(one, ground))[0]!;

/** The least contrast of words to their grounds that occurs in any scheme of a look, on light screens or dark ones. */
export function leastContrastOfWords(look: Pick<Look, 'colour' | 'accent'>): number {
  const palettes = SCHEME_NAMES.flatMap((name) => SCREENS.map((screen) => schemesOf(look)[name][screen]));
  return Math.min(
    ...palettes.flatMap(({ paper, raised, tint, ink, quiet, accent, onAccent }) => [
      ...[ink, quiet, accent].map((colour) => leastContrast(colour, [paper, raised, tint])),
      contrast(onAccent, accent),
    ]),
  );
}

/** Where a colour could not be as it was given. */
export interface ShiftedColour {
  readonly scheme: SchemeName;
  readonly screen: Screen;
  /** As what it is shown. */
  readonly as: 'accent' | 'paper';
  readonly given: Hex;
  readonly shown: Hex;
}

/** The colours of a look that are shown in another shade, so that what they say or carry can be read. */
export function shiftedColours(look: Pick<Look, 'colour' | 'accent'>): ShiftedColour[] {
  const schemes = schemesOf(look);
  const link = look.accent ?? look.colour;
  const found: ShiftedColour[] = [];
  for (const scheme of SCHEME_NAMES)
    for (const screen of SCREENS) {
      const { accent, paper } = schemes[scheme][screen];
      if (scheme !== 'strong' && accent !== hexOf(shadeOf(link)))
        found.push({ scheme, screen, as: 'accent', given: link, shown: accent });
      if (scheme === 'strong' && screen === 'light' && paper !== hexOf(shadeOf(look.colour)))
        found.push({ scheme, screen, as: 'paper', given: look.colour, shown: paper });
    }
  return found;
}
