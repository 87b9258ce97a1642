import { FIRST_LOOK, type Look } from '../model/look.ts';
import { type Hex, hexOf, shadeOf } from './colours.ts';
import { TYPE_PAIRS } from './type-pairs.ts';

/** Characters that a look can have besides its colours; what they leave is as in the first look. */
const SHAPES: readonly Partial<Look>[] = [
  { header: 'strong', footer: 'dark' },
  {
    scale: 'bold',
    weight: 'heavy',
    width: 'wide',
    room: 'roomy',
    corners: 'square',
    lines: 'strong',
    header: 'dark',
    footer: 'strong',
  },
  {
    size: 'large',
    scale: 'calm',
    weight: 'light',
    width: 'narrow',
    room: 'roomy',
    corners: 'round',
    lines: 'none',
    header: 'tinted',
    footer: 'tinted',
  },
];

/** How far around the circle of hues the colour of links can be from the first one, in degrees: beside it, across, and in thirds. */
const TURNS = [180, 40, 120, -40, 150, -120, 60] as const;
export const SUGGESTED_AT_ONCE = 3;

/**
 * Looks to try: three that differ in colours, type and character. @param colours of a picture or of the organisation, the most telling first;
 * at least one @param round other ones for each
 */
export function suggestLooks(colours: readonly Hex[], round: number): Look[] {
  return SHAPES.map((shape, at) => {
    const turn = round * SUGGESTED_AT_ONCE + at;
    const colour = colours[Math.floor(turn / colours.length) % colours.length] ?? FIRST_LOOK.colour;
    // Each colour is tried with the others; one alone with what is around it on the circle.
    const others = colours.filter((one) => one !== colour);
    const accent = others.length > 0 ? others[turn % others.length]! : turned(colour, TURNS[turn % TURNS.length]!);
    return {
      ...FIRST_LOOK,
      ...shape,
      colour,
      accent: turn % 3 === 2 ? null : accent,
      pair: TYPE_PAIRS[(turn * 5 + 1) % TYPE_PAIRS.length]!.id,
    };
  });
}

/** A colour at another place on the circle of hues, strong enough to be one. */
function turned(colour: Hex, degrees: number): Hex {
  const { l, c, h } = shadeOf(colour);
  return hexOf({ l: Math.min(0.7, Math.max(0.42, l)), c: Math.max(c, 0.11), h: (h + degrees + 360) % 360 });
}
