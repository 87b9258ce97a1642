import type { Picture } from '#core/drawing/map-picture.ts';

/** Paper sizes of ISO 216, in millimetres, upright. */
export const PAPERS = { A4: [210, 297], A3: [297, 420], A2: [420, 594], A1: [594, 841] } as const;
export type Paper = keyof typeof PAPERS;

/** More sheets than these are not made. */
export const MAX_SHEETS = 80;
const POINTS_PER_MM = 72 / 25.4;
/** A pixel of the map at full size: 96 of them are an inch. */
const POINTS_PER_PIXEL = 0.75;
export const MARGIN = 10 * POINTS_PER_MM;
/** The room of the title, above. */
export const HEAD = 12 * POINTS_PER_MM;

export interface Sheets {
  readonly columns: number;
  readonly rows: number;
  readonly isWide: boolean;
  /** Points for a pixel of the map. */
  readonly scale: number;
}

/** How a picture lies on sheets of paper: turned so that it is largest, or takes the fewest sheets. */
export function sheetsFor({ area }: Picture, paper: Paper, isTiled: boolean): Sheets {
  const [width, height] = [area.right - area.left, area.bottom - area.top];
  const ways = [false, true].map((isWide): Sheets => {
    const [roomX, roomY] = roomOf(paper, isWide);
    if (!isTiled) {
      const scale = Math.min(POINTS_PER_PIXEL, roomX / width, roomY / height);
      return { columns: 1, rows: 1, isWide, scale };
    }
    return {
      columns: Math.ceil((width * POINTS_PER_PIXEL) / roomX),
      rows: Math.ceil((height * POINTS_PER_PIXEL) / roomY),
      isWide,
      scale: POINTS_PER_PIXEL,
    };
  }) as [Sheets, Sheets];
  const [upright, wide] = ways;
  const isWideBetter = isTiled ? wide.columns * wide.rows < upright.columns * upright.rows : wide.scale > upright.scale;
  return isWideBetter ? wide : upright;
}

/** The width and height of a sheet, in points. */
export function sizeOf(paper: Paper, isWide: boolean): [number, number] {
  const [short, long] = PAPERS[paper].map((side) => side * POINTS_PER_MM) as [number, number];
  return isWide ? [long, short] : [short, long];
}

/** The room for the picture on a sheet, in points. */
export function roomOf(paper: Paper, isWide: boolean): [number, number] {
  const [width, height] = sizeOf(paper, isWide);
  return [width - 2 * MARGIN, height - 2 * MARGIN - HEAD];
}
