import type { TextDocument, TextPart } from '../model/content.ts';
import type { Box } from '../model/sketch.ts';
import { fitsInColumn, sectionOf } from './box-types.ts';
import { plannedBoxesOf } from './planned-boxes.ts';

/** Boxes that stand beside each other: as many as their widths have room for. */
export function rowsOf<One extends Pick<Box, 'width'>>(boxes: readonly One[]): One[][] {
  const rows: One[][] = [];
  for (const box of boxes) {
    const row = rows.at(-1);
    const room = box.width === 'third' ? 3 : 2;
    if (box.width !== 'whole' && row && row[0]!.width === box.width && row.length < room) row.push(box);
    else rows.push([box]);
  }
  return rows;
}

/** The boxes that a text has no place for. */
export function missingIn(document: TextDocument | null, boxes: readonly Box[]): Box[] {
  const there = new Set(document ? plannedBoxesOf(document).map(({ box }) => box) : []);
  return boxes.filter(({ id }) => !there.has(id));
}

/**
 * A text with a place for each box: those that it lacks come after what is there, empty, in the order of the sketch. What stands beside
 * each other in the sketch does so in the text, where the sections can. Where none is missing the same text comes back.
 */
export function withPlaces(document: TextDocument | null, boxes: readonly Box[]): TextDocument | null {
  const missing = missingIn(document, boxes);
  if (missing.length === 0) return document;
  const before = [...(document?.content ?? [])];
  while (before.length > 0 && isEmptyLine(before.at(-1)!)) before.pop();
  return { type: 'doc', content: [...before, ...rowsOf(missing).flatMap(partsOfRow)] };
}

function partsOfRow(row: readonly Box[]): TextPart[] {
  const sections = row.map(sectionOf);
  if (row.length < 2 || !row.every(({ type }) => fitsInColumn(type))) return sections;
  return [{ type: 'columns', content: sections.map((section) => ({ type: 'column', content: [section] })) }];
}

const isEmptyLine = ({ type, content, attrs }: TextPart): boolean =>
  type === 'paragraph' && (content ?? []).length === 0 && (attrs?.box ?? null) === null;
