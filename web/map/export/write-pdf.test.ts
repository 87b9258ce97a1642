import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { PDFDocument } from 'pdf-lib';
import { describe, expect, it } from 'vitest';
import type { Picture } from '#core/drawing/map-picture.ts';
import { type Paper, sheetsFor } from './sheets.ts';
import { writePdf } from './write-pdf.ts';

const font = (path: string) => new Uint8Array(readFileSync(createRequire(import.meta.url).resolve(path)));
const fonts = [
  font('@fontsource/hanken-grotesk/files/hanken-grotesk-latin-500-normal.woff'),
  font('dejavu-fonts-ttf/ttf/DejaVuSans.ttf'),
] as const;
const picture = (width: number, height: number, texts = ['Courses']): Picture => ({
  area: { left: 0, top: 0, right: width, bottom: height },
  shapes: [
    { kind: 'path', d: `M0 0L${width} ${height}`, stroke: '#1D2B33', strokeWidth: 2, dash: [3, 3] },
    ...texts.map((text, at) => ({ kind: 'text' as const, x: 10, y: 20 + at * 20, text, size: 13, color: '#1D2B33' })),
  ],
});
const write = (of: Picture, paper: Paper, isTiled: boolean, shares: number[] = []) =>
  writePdf(
    [{ picture: of, head: 'Pellow Quay', isTiled }],
    { paper, title: 'Pellow Quay', date: '1 May 2026', fonts },
    (share) => shares.push(share),
  );
const make = async (...given: Parameters<typeof write>) => PDFDocument.load((await write(...given)).bytes);

describe('a map on paper', () => {
  it.each([
    ['A4', 500, 900, 210, 297],
    ['A4', 900, 500, 297, 210],
    ['A1', 3000, 900, 841, 594],
  ] as const)('%s: a picture of %i by %i lies on one sheet, turned as it fits', async (paper, width, height, x, y) => {
    const [page, ...others] = (await make(picture(width, height), paper, false)).getPages();
    expect(others).toEqual([]);
    expect(Math.round((page!.getWidth() / 72) * 25.4)).toBe(x);
    expect(Math.round((page!.getHeight() / 72) * 25.4)).toBe(y);
  });

  it('is never larger than full size, and as small as it takes', () => {
    expect(sheetsFor(picture(100, 100), 'A4', false).scale).toBe(0.75);
    const { scale } = sheetsFor(picture(20_000, 4000), 'A3', false);
    expect(20_000 * scale).toBeLessThanOrEqual(420 * (72 / 25.4));
  });

  it('goes over several sheets at full size where that is asked', async () => {
    const sheets = sheetsFor(picture(2000, 1500), 'A4', true);
    expect(sheets.scale).toBe(0.75);
    expect((await make(picture(2000, 1500), 'A4', true)).getPageCount()).toBe(sheets.columns * sheets.rows);
    expect(sheets.columns * sheets.rows).toBeGreaterThan(3);
  });

  it('makes no heap of sheets', async () => {
    await expect(make(picture(200_000, 30_000), 'A4', true)).rejects.toThrow(/sheets; at most 80 are made/);
  });

  it('takes letters of any script', async () => {
    const texts = ['Évening', 'Ναυπηγική', 'Судостроение', 'بناء القوارب', '造船', '⛵', '\u202eabc'];
    const { bytes, missing } = await write(picture(400, 400, texts), 'A4', false);
    expect((await PDFDocument.load(bytes)).getPageCount()).toBe(1);
    // What neither typeface has is named.
    expect(missing).toEqual(expect.arrayContaining(['造', '船']));
    expect(missing.join('')).not.toMatch(/[\p{Script=Greek}\p{Script=Cyrillic}\p{Script=Latin}]/u);
  });

  it('has several pictures one after another, each turned as it fits', async () => {
    const parts = [picture(900, 500), picture(500, 900), picture(2000, 1500)].map((one, n) => ({
      picture: one,
      head: `Part ${n}`,
      isTiled: n === 2,
    }));
    const { bytes } = await writePdf(parts, { paper: 'A4', title: 'Plan', date: '1 May 2026', fonts }, () => undefined);
    const pages = (await PDFDocument.load(bytes)).getPages();
    expect(pages.slice(0, 2).map((page) => page.getWidth() > page.getHeight())).toEqual([true, false]);
    expect(pages).toHaveLength(
      2 + sheetsFor(parts[2]!.picture, 'A4', true).columns * sheetsFor(parts[2]!.picture, 'A4', true).rows,
    );
  });
});
