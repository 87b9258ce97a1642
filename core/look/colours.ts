import {
  type Oklch,
  clampChroma,
  converter,
  formatHex,
  modeLrgb,
  modeOklch,
  modeRgb,
  useMode,
  wcagContrast,
} from 'culori/fn';

useMode(modeRgb);
useMode(modeLrgb);
useMode(modeOklch);

/** An sRGB colour as # and six signs. */
export type Hex = string;

/** A colour by lightness (0 to 1), chroma (0 to about 0.37) and hue (degrees), as eyes tell them apart: Björn Ottosson's Oklab. */
export interface Shade {
  readonly l: number;
  readonly c: number;
  readonly h: number;
}

const toOklch = converter('oklch');
const toRgb = converter('rgb');

export function shadeOf(hex: Hex): Shade {
  const { l, c, h = 0 } = toOklch(hex)!;
  return { l, c, h };
}

/** Less than a half step of a screen's channel: so far beyond its range counts as its end. */
const HALF_A_STEP = 0.5 / 255;

/** The colour on screens; where no screen shows so much chroma, as much of it as there is at that lightness. */
export function hexOf({ l, c, h }: Shade): Hex {
  const colour: Oklch = { mode: 'oklch', l: Math.min(1, Math.max(0, l)), c, h };
  const { r, g, b } = toRgb(colour);
  const isShown = [r, g, b].every((channel) => channel > -HALF_A_STEP && channel < 1 + HALF_A_STEP);
  return formatHex(isShown ? colour : clampChroma(colour, 'oklch'));
}

/** How much two colours stand out from each other, 1 to 21 (WCAG 2.2, relative luminance). */
export const contrast = (one: Hex, other: Hex): number => wcagContrast(one, other);

/** The least of the contrasts between a colour and its grounds. */
export const leastContrast = (colour: Hex, grounds: readonly Hex[]): number =>
  Math.min(...grounds.map((ground) => contrast(colour, ground)));

/** Halvings of the way to black or white: the last is finer than the steps of sRGB. */
const HALVINGS = 12;

/**
 * A colour that can be read on all of the grounds: itself where it can be, else shifted in lightness as little as it must be; black or white where
 * nothing else does. @param ratio the contrast that is needed
 */
export function readable(shade: Shade, grounds: readonly Hex[], ratio: number): Hex {
  const as = (l: number) => hexOf({ ...shade, l });
  const isEnough = (hex: Hex) => leastContrast(hex, grounds) >= ratio;
  if (isEnough(as(shade.l))) return as(shade.l);
  const end = leastContrast('#000000', grounds) >= leastContrast('#ffffff', grounds) ? 0 : 1;
  let far = end;
  let near = shade.l;
  for (let step = 0; step < HALVINGS; step++) {
    const between = (far + near) / 2;
    if (isEnough(as(between))) far = between;
    else near = between;
  }
  return far === end ? (end === 0 ? '#000000' : '#ffffff') : as(far);
}
