import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lookSchema } from '../model/look.ts';
import { holds } from '../testing/holds.ts';
import { shadeOf } from './colours.ts';
import { coloursOfPicture } from './picture-colours.ts';
import { suggestLooks } from './suggest.ts';

const anyColour = fc.integer({ min: 0, max: 0xffffff }).map((value) => `#${value.toString(16).padStart(6, '0')}`);
const pixelsOf = (...some: [hex: string, count: number][]): number[] =>
  some.flatMap(([hex, count]) =>
    Array.from({ length: count }, () => [1, 3, 5].map((at) => parseInt(hex.slice(at, at + 2), 16)).concat(255)).flat(),
  );

describe('suggested looks', () => {
  it('are looks, differ from each other in colours, type and character, and come in other ones for ever', () =>
    holds(
      fc.property(fc.array(anyColour, { minLength: 1, maxLength: 5 }), fc.nat(200), (colours, round) => {
        const looks = suggestLooks(colours, round);
        for (const look of looks) expect(lookSchema.parse(look)).toEqual(look);
        expect(new Set(looks.map(({ pair }) => pair)).size).toBe(3);
        expect(new Set(looks.map(({ header }) => header)).size).toBe(3);
        for (const { colour } of looks) expect(colours).toContain(colour);
        expect(suggestLooks(colours, round + 1)).not.toEqual(looks);
      }),
    ));

  it('have links of another hue than the one colour that they begin with', () => {
    const [first] = suggestLooks(['#0e6470'], 0);
    const turn = Math.abs(shadeOf(first!.accent!).h - shadeOf('#0e6470').h);
    expect(Math.min(turn, 360 - turn)).toBeGreaterThan(30);
  });
});

describe('the colours of a picture', () => {
  it('are those that tell most, and neither its white ground nor a stray dot', () => {
    const pixels = pixelsOf(['#ffffff', 900], ['#12305a', 300], ['#c4480c', 120], ['#13315b', 40], ['#222222', 60]);
    expect(coloursOfPicture(pixels, 3)).toEqual(['#c4480c', '#12305a']);
  });

  it('are a grey where there is nothing else, and none where nothing shows', () => {
    expect(coloursOfPicture(pixelsOf(['#808080', 10]), 3)).toEqual(['#808080']);
    expect(coloursOfPicture([10, 20, 200, 0], 3)).toEqual([]);
    expect(coloursOfPicture([], 3)).toEqual([]);
  });

  it('do not depend on where they are in it', () =>
    holds(
      fc.property(fc.array(anyColour, { minLength: 1, maxLength: 30 }), (some) => {
        const of = (colours: readonly string[]) =>
          coloursOfPicture(pixelsOf(...colours.map((one): [string, number] => [one, 1])), 4);
        expect(of(some.toReversed())).toEqual(of(some));
        expect(of(some).length).toBeLessThanOrEqual(4);
      }),
    ));
});
