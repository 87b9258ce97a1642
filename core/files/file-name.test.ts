import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { lengthWords } from './file.ts';
import { MAX_FILE_NAME_LENGTH, fileStep, nameOfFile } from './file-name.ts';
import { widthsOf } from './picture-sizes.ts';

describe('what a file is called', () => {
  it.each([
    ['harbour_at_dawn.jpg', 'Harbour at dawn'],
    ['C:\\Users\\somebody\\Term dates.pdf', 'Term dates'],
    ['../../etc/passwd', 'Passwd'],
    ['price-list-2027.xlsx', 'Price list 2027'],
    ['Caf%C3%A9 menu.pdf', 'Café menu'],
    ['Saw\u0000\u202Eroom.pdf', 'Sawroom'],
    ['...hidden.. ', 'Hidden'],
  ])('%s: %s', (given, name) => expect(nameOfFile(given, 'Picture')).toEqual({ name, isReadable: true }));
  it.each([
    'IMG_20260312_093312.jpg',
    'DSC00123.JPG',
    'PXL_20260312.jpg',
    'scan0001.pdf',
    'image(1).png',
    '2026-03-12.png',
    '3f2a9c81d4e04b7f.png',
    'Screenshot 2026-03-12 at 09.33.12.png',
    '.jpg',
    '',
  ])('%s says nothing, so that another name is proposed', (given) =>
    expect(nameOfFile(given, 'Picture')).toEqual({ name: 'Picture', isReadable: false }),
  );
  it('is short, is one line, leads nowhere, and its address is plain, whatever came', () =>
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 400 }), (given) => {
        const { name } = nameOfFile(given, 'Picture');
        expect([...name].length).toBeLessThanOrEqual(MAX_FILE_NAME_LENGTH);
        expect(name).not.toMatch(/[\p{Cc}/\\]|^\.|^$/u);
        expect(nameOfFile(name, 'Picture').name.length).toBeGreaterThan(0);
        expect(fileStep(name, 'jpg')).toMatch(/^[a-z0-9]+(?:-[a-z0-9]+)*\.jpg$/);
      }),
    ));
});

describe('the sizes of a picture', () => {
  it('are narrower than it or as wide, in order, and one is nearly as wide', () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 20_000 }), (width) => {
        const widths = widthsOf(width);
        expect(widths).toEqual([...new Set(widths)].sort((a, b) => a - b));
        expect(widths.at(-1)).toBe(Math.min(width, 2400));
      }),
    ));
});

it('says lengths as people do', () =>
  expect([1, 999, 1500, 999_999, 1_440_000, 15_300_000, 1e9].map((one) => lengthWords(one))).toEqual([
    '1 kB',
    '1 kB',
    '2 kB',
    '1,000 kB',
    '1.4 MB',
    '15 MB',
    '1 GB',
  ]));
