import sanitizeHtml from 'sanitize-html';

/** The largest drawing, in bytes. */
export const MAX_DRAWING_LENGTH = 2_000_000;

/** The elements of SVG 2 that draw, without those that fetch, run or move anything. */
const ELEMENTS = (
  'svg g defs symbol use title desc path rect circle ellipse line polyline polygon text tspan textPath linearGradient ' +
  'radialGradient stop clipPath mask pattern marker style'
).split(' ');

const ATTRIBUTES = (
  'id class style transform viewBox preserveAspectRatio width height x y x1 y1 x2 y2 cx cy r rx ry fx fy d points dx dy rotate ' +
  'pathLength lengthAdjust textLength fill fill-opacity fill-rule stroke stroke-width stroke-opacity stroke-linecap ' +
  'stroke-linejoin stroke-miterlimit stroke-dasharray stroke-dashoffset opacity color display visibility overflow clip-path ' +
  'clip-rule mask marker-start marker-mid marker-end offset stop-color stop-opacity gradientUnits gradientTransform ' +
  'spreadMethod patternUnits patternContentUnits patternTransform maskUnits maskContentUnits clipPathUnits markerUnits ' +
  'markerWidth markerHeight orient refX refY font-family font-size font-weight font-style text-anchor dominant-baseline ' +
  'letter-spacing word-spacing xmlns version role aria-label aria-hidden href xlink:href xmlns:xlink'
).split(' ');

/** A drawing with nothing in it but what draws: no programs, no addresses outside of it, no fetched styles. */
export function cleanSvg(svg: string): string {
  return sanitizeHtml(svg, {
    parser: { xmlMode: true, lowerCaseTags: false, lowerCaseAttributeNames: false },
    allowedTags: ELEMENTS,
    // Styles are looked through below.
    allowVulnerableTags: true,
    allowedAttributes: { '*': ATTRIBUTES },
    // A drawing leads to parts of itself alone.
    allowedSchemes: [],
    allowedSchemesAppliedToAttributes: [],
    parseStyleAttributes: false,
    exclusiveFilter: ({ tag, text }) => tag === 'style' && fetches(text),
    transformTags: {
      '*': (tagName, attribs) => ({
        tagName,
        attribs: Object.fromEntries(
          Object.entries(attribs).filter(([name, value]) =>
            /(?:^|:)href$/.test(name) ? value.startsWith('#') : !fetches(value),
          ),
        ),
      }),
    },
  });
}

/** Whether a style names anything outside of the drawing. Escapes are a way to write what is not seen: they are not taken. */
const fetches = (style: string): boolean =>
  /@import|@font-face|expression\s*\(|javascript:|\\/i.test(style) || /url\(\s*(?!['"]?#)/i.test(style);

/** The width and height of a drawing in its own units; null where it does not say. */
export function sizeOfSvg(svg: string): { readonly width: number; readonly height: number } | null {
  const [tag = ''] = /<svg\b[^>]*>/i.exec(svg) ?? [];
  const length = (name: string): number =>
    Number.parseFloat(new RegExp(`\\s${name}="\\s*([\\d.]+)`).exec(tag)?.[1] ?? '');
  const box = (/\sviewBox="([^"]*)"/i.exec(tag)?.[1] ?? '')
    .trim()
    .split(/[\s,]+/)
    .map(Number);
  const isBox = box.length === 4 && box.every(Number.isFinite);
  const width = length('width') || (isBox ? box[2]! : Number.NaN);
  const height = length('height') || (isBox ? box[3]! : Number.NaN);
  return width >= 1 && height >= 1 && width <= 20_000 && height <= 20_000
    ? { width: Math.round(width), height: Math.round(height) }
    : null;
}
