import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { FIRST_LOOK, SCHEME_NAMES } from '../model/look.ts';
import { holds } from '../testing/holds.ts';
import { contrast, hexOf, readable, shadeOf } from './colours.ts';
import { schemesOf, shiftedColours } from './schemes.ts';

/** WCAG 2.2, written out again from its definition: the relative luminance of an sRGB colour. */
const luminance = (hex: string): number => {
  const [r = 0, g = 0, b = 0] = [1, 3, 5]
    .map((at) => parseInt(hex.slice(at, at + 2), 16) / 255)
    .map((value) => (value <= 0.04045 ? value / 12.92 : ((value + 0.055) / 1.055) ** 2.4));
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
};
const ratio = (one: string, other: string): number => {
  const [low, high] = [luminance(one), luminance(other)].toSorted((a, b) => a - b) as [number, number];
  return (high + 0.05) / (low + 0.05);
};
const anyColour = fc.oneof(
  fc.integer({ min: 0, max: 0xffffff }).map((value) => `#${value.toString(16).padStart(6, '0')}`),
  // Those that are hard to read on anything.
  fc.constantFrom('#ffff00', '#808080', '#39ff14', '#ff00ff', '#00ffff', '#777777', '#000000', '#ffffff', '#ff7f00'),
);

describe('the colour space', () => {
  // CSS Color 4, sample values of oklch() for sRGB colours.
  it.each([
    ['#ff0000', 0.62796, 0.25768, 29.234],
    ['#00ff00', 0.86644, 0.29483, 142.495],
    ['#0000ff', 0.45201, 0.31321, 264.052],
    ['#ffffff', 1, 0, 0],
  ])('has %s where the standard has it', (hex, l, c, h) => {
    const shade = shadeOf(hex);
    expect(shade.l).toBeCloseTo(l, 3);
    expect(shade.c).toBeCloseTo(c, 3);
    if (c > 0) expect(shade.h).toBeCloseTo(h, 1);
  });

  it('gives back each colour of screens', () =>
    holds(
      fc.property(anyColour, (hex) => {
        expect(hexOf(shadeOf(hex))).toBe(hex);
      }),
      { numRuns: 500 },
    ));

  it('measures contrast as the guidelines define it', () =>
    holds(
      fc.property(anyColour, anyColour, (one, other) => {
        expect(contrast(one, other)).toBeCloseTo(ratio(one, other), 2);
      }),
      { numRuns: 500 },
    ));
});

describe('a colour on grounds', () => {
  it('stays as it is where it can be read, and is shifted no further than it must be', () => {
    expect(readable(shadeOf('#0e6470'), ['#ffffff'], 4.5)).toBe('#0e6470');
    const shown = readable(shadeOf('#ffcc00'), ['#ffffff'], 4.5);
    expect(ratio(shown, '#ffffff')).toBeGreaterThanOrEqual(4.5);
    expect(ratio(shown, '#ffffff')).toBeLessThan(4.7);
    expect(Math.abs(shadeOf(shown).h - shadeOf('#ffcc00').h)).toBeLessThan(4);
  });
});

describe('the schemes of a look', () => {
  it('can be read in all parts, on light and dark screens, whatever the colours are', () =>
    holds(
      fc.property(anyColour, fc.option(anyColour), (colour, accent) => {
        const schemes = schemesOf({ colour, accent });
        for (const name of SCHEME_NAMES)
          for (const screen of ['light', 'dark'] as const) {
            const { paper, raised, tint, ink, quiet, accent: link, onAccent, warn } = schemes[name][screen];
            const words = [ink, quiet, link].flatMap((one) => [paper, raised, tint].map((ground) => [one, ground]));
            for (const [one, ground] of [...words, [onAccent, link]])
              if (ratio(one!, ground!) < 4.5)
                throw new Error(`${one} on ${ground} in ${name}, ${screen}: ${ratio(one!, ground!).toFixed(2)}`);
            for (const ground of [paper, raised, tint])
              if (ratio(warn, ground) < 3) throw new Error(`${warn} on ${ground} in ${name}, ${screen}`);
          }
      }),
      // Eight palettes each: more than ten thousand.
      { numRuns: 1500 },
    ));

  it('have the colour itself as the strong ground, and say where another shade is shown', () => {
    expect(schemesOf(FIRST_LOOK).strong.light.paper).toBe('#0e6470');
    expect(schemesOf(FIRST_LOOK).plain.light.accent).toBe('#0e6470');
    const yellow = { colour: '#ffe600', accent: null };
    expect(schemesOf(yellow).strong.light).toMatchObject({ paper: '#ffe600', ink: '#000000' });
    expect(shiftedColours(yellow).find(({ scheme, screen }) => scheme === 'plain' && screen === 'light')).toMatchObject(
      {
        as: 'accent',
        given: '#ffe600',
        shown: schemesOf(yellow).plain.light.accent,
      },
    );
    expect(shiftedColours(yellow).some(({ scheme, screen }) => scheme === 'plain' && screen === 'dark')).toBe(false);
  });
});
