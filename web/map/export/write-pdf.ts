import fontkit from '@pdf-lib/fontkit';
import {
  PDFDocument,
  type PDFFont,
  type PDFPage,
  clip,
  endPath,
  popGraphicsState,
  pushGraphicsState,
  rectangle,
  rgb,
} from 'pdf-lib';
import type { Picture, Shape } from '#core/drawing/map-picture.ts';
import { HEAD, MARGIN, MAX_SHEETS, type Paper, roomOf, sheetsFor, sizeOf } from './sheets.ts';

/** A picture with the words at the head of its sheets. */
export interface PdfPart {
  readonly picture: Picture;
  readonly head: string;
  /** Over as many sheets as it takes at full size; else on one sheet, as large as it fits. */
  readonly isTiled: boolean;
}

export interface PdfOptions {
  readonly paper: Paper;
  readonly title: string;
  readonly date: string;
  /** The typeface of the map, and one that has the letters which that one lacks; as TrueType or WOFF. */
  readonly fonts: readonly [Uint8Array, Uint8Array];
}

/** A document, and the characters that it has no letters for: neither of the typefaces has them. */
export interface WrittenPdf {
  readonly bytes: Uint8Array;
  readonly missing: readonly string[];
}

/** After so many shapes the one who waits is told how far it is. */
const TELL_EVERY = 400;

/**
 * Pictures as a PDF document, one after another, in lines and letters that stay sharp at any size, with their head and the date on each
 * sheet. `onProgress` is told the share that is done, from 0 to 1. @throws RangeError for a picture on more than `MAX_SHEETS`.
 */
export async function writePdf(
  parts: readonly PdfPart[],
  options: PdfOptions,
  onProgress: (share: number) => void,
): Promise<WrittenPdf> {
  const laid = parts.map((part) => ({ ...part, sheets: sheetsFor(part.picture, options.paper, part.isTiled) }));
  for (const { sheets } of laid) {
    const count = sheets.columns * sheets.rows;
    if (count > MAX_SHEETS) throw new RangeError(`That takes ${count} sheets; at most ${MAX_SHEETS} are made.`);
  }
  const document = await PDFDocument.create();
  document.registerFontkit(fontkit);
  document.setTitle(options.title);
  document.setCreator('Spur');
  const missing = new Set<string>();
  const write = writerOf(
    await document.embedFont(options.fonts[0], { subset: true }),
    await document.embedFont(options.fonts[1], { subset: true }),
    missing,
  );
  const all = laid.reduce((sum, { picture, sheets }) => sum + sheets.columns * sheets.rows * picture.shapes.length, 0);
  let done = 0;
  for (const { picture, head, sheets } of laid) {
    const count = sheets.columns * sheets.rows;
    const [roomX, roomY] = roomOf(options.paper, sheets.isWide);
    for (let sheet = 0; sheet < count; sheet++) {
      const page = document.addPage(sizeOf(options.paper, sheets.isWide));
      drawHead(page, head, [count > 1 && `Sheet ${sheet + 1} of ${count}`, options.date], write);
      const shift = { x: (sheet % sheets.columns) * roomX, y: Math.floor(sheet / sheets.columns) * roomY };
      page.pushOperators(pushGraphicsState(), rectangle(MARGIN, MARGIN, roomX, roomY), clip(), endPath());
      for (const shape of picture.shapes) {
        if (isOn(shape, picture, sheets.scale, shift, roomX, roomY))
          draw(page, shape, picture, sheets.scale, shift, write);
        if (++done % TELL_EVERY === 0) {
          onProgress(done / all);
          await Promise.resolve();
        }
      }
      page.pushOperators(popGraphicsState());
    }
  }
  return { bytes: await document.save(), missing: [...missing] };
}

type Write = (
  page: PDFPage,
  text: string,
  x: number,
  y: number,
  size: number,
  color: string,
  isRight?: boolean,
) => void;

/** Writes each text in the first typeface that has all of its letters; `missing` takes those that neither has. */
function writerOf(first: PDFFont, second: PDFFont, missing: Set<string>): Write {
  const [known, knownBesides] = [first, second].map((font) => new Set(font.getCharacterSet()));
  return (page, text, x, y, size, color, isRight = false) => {
    const letters = [...text];
    const font = letters.every((letter) => known!.has(letter.codePointAt(0)!)) ? first : second;
    if (font === second)
      for (const letter of letters) if (!knownBesides!.has(letter.codePointAt(0)!)) missing.add(letter);
    const left = isRight ? x - font.widthOfTextAtSize(text, size) : x;
    page.drawText(text, { x: left, y, size, font, color: colorOf(color) });
  };
}

function drawHead(page: PDFPage, head: string, more: readonly (string | false)[], write: Write): void {
  const y = page.getHeight() - MARGIN - 14;
  const shown = head.length > 70 ? `${head.slice(0, 69)}…` : head;
  write(page, shown, MARGIN, y, 14, '#1D2B33');
  write(page, more.filter(Boolean).join(', '), page.getWidth() - MARGIN, y, 9, '#5B6870', true);
}

type Shift = { readonly x: number; readonly y: number };

function isOn(shape: Shape, { area }: Picture, scale: number, shift: Shift, roomX: number, roomY: number): boolean {
  const own =
    shape.kind === 'text'
      ? {
          left: shape.x,
          top: shape.y - shape.size,
          right: shape.x + shape.text.length * shape.size,
          bottom: shape.y + 4,
        }
      : shape.area;
  if (!own) return true;
  const [left, top] = [(own.left - area.left) * scale - shift.x, (own.top - area.top) * scale - shift.y];
  const [right, bottom] = [(own.right - area.left) * scale - shift.x, (own.bottom - area.top) * scale - shift.y];
  return right >= 0 && left <= roomX && bottom >= 0 && top <= roomY;
}

function draw(page: PDFPage, shape: Shape, { area }: Picture, scale: number, shift: Shift, write: Write): void {
  // The picture's y runs down, the paper's up.
  const x = MARGIN - area.left * scale - shift.x;
  const y = page.getHeight() - MARGIN - HEAD + area.top * scale + shift.y;
  if (shape.kind === 'text')
    return write(page, shape.text, x + shape.x * scale, y - shape.y * scale, shape.size * scale, shape.color);
  page.drawSvgPath(shape.d, {
    x,
    y,
    scale,
    borderColor: colorOf(shape.stroke),
    borderWidth: shape.strokeWidth,
    ...(shape.dash && { borderDashArray: [...shape.dash] }),
    ...(shape.fill && { color: colorOf(shape.fill) }),
  });
}

function colorOf(hex: string) {
  const part = (at: number) => Number.parseInt(hex.slice(at, at + 2), 16) / 255;
  return rgb(part(1), part(3), part(5));
}
