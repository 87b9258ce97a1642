import type { Picture, Shape } from '../drawing/map-picture.ts';

export interface SvgOptions {
  /** Stands above the picture, with the date. */
  readonly title: string;
  readonly date: string;
  /** A style sheet that brings the typeface along, or nothing. */
  readonly fontCss: string;
}

const HEAD = 44;
const FAMILY = "'Hanken Grotesk', sans-serif";

/** A picture as an SVG document that stands alone. */
export function writeSvg({ area, shapes }: Picture, { title, date, fontCss }: SvgOptions): string {
  const [width, height] = [Math.ceil(area.right - area.left), Math.ceil(area.bottom - area.top) + HEAD];
  const top = area.top - HEAD;
  const head = [
    text(area.left + 24, top + 28, `${title}`, 18, '#1D2B33', 'font-weight="650"'),
    text(area.right - 24, top + 28, date, 12, '#5B6870', 'text-anchor="end"'),
  ];
  return [
    `<?xml version="1.0" encoding="UTF-8"?>`,
    `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="${round(area.left)} ${round(top)} ${width} ${height}" font-family="${escaped(FAMILY)}" font-weight="500">`,
    `<title>${escaped(title)}</title>`,
    fontCss && `<style>${fontCss}</style>`,
    `<rect x="${round(area.left)}" y="${round(top)}" width="${width}" height="${height}" fill="#FFFFFF"/>`,
    ...shapes.map(shapeText),
    ...head,
    '</svg>',
  ]
    .filter(Boolean)
    .join('\n');
}

function shapeText(shape: Shape): string {
  if (shape.kind === 'text')
    return text(shape.x, shape.y, shape.text, shape.size, shape.color, shape.isItalic ? 'font-style="italic"' : '');
  const { d, stroke, strokeWidth, dash, fill } = shape;
  return `<path d="${d}" fill="${fill ?? 'none'}" stroke="${stroke}" stroke-width="${strokeWidth}"${dash ? ` stroke-dasharray="${dash.join(' ')}"` : ''}/>`;
}

const text = (x: number, y: number, words: string, size: number, color: string, more: string): string =>
  `<text x="${round(x)}" y="${round(y)}" font-size="${size}" fill="${color}"${more ? ` ${more}` : ''}>${escaped(words)}</text>`;

const round = (value: number): number => Math.round(value * 100) / 100;

/** Text for XML 1.0: what marks have a meaning is written as an entity, what XML cannot hold is left out. */
const escaped = (words: string): string =>
  words
    // eslint-disable-next-line no-control-regex -- these are the characters that XML 1.0 forbids
    .replace(/[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]/g, '')
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')
    .replace(/"/g, '&quot;');
