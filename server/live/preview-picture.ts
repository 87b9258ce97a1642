import { createHash } from 'node:crypto';
import type { Font, Glyph } from 'fontkit';
import { contrast } from '#core/look/colours.ts';
import { schemesOf } from '#core/look/schemes.ts';
import { headingWeight } from '#core/look/style.ts';
import { type Family, TYPE_PAIRS } from '#core/look/type-pairs.ts';
import type { Look } from '#core/model/look.ts';
import type { FileStore } from '../library/file-store.ts';
import { pictureFor } from '../library/icons.ts';
import { markup, sound } from './html.ts';
import type { LiveFile } from './live-files.ts';

/** As the places take them where pages are linked to (the Open Graph protocol names no size; these take 1.91 to 1). */
export const PREVIEW_WIDTH = 1200;
export const PREVIEW_HEIGHT = 630;
const MARGIN = 84;
const LINE = 1.14;
const TITLE_SIZES = [88, 76, 64, 54] as const;
const MOST_LINES = 4;
const NAME_SIZE = 34;
const LOGO = { width: 320, height: 92 } as const;
/** So many pictures are remembered, and so many wait to be drawn. */
const MOST_KNOWN = 200;
const MOST_WAITING = 40;
/** The highest level takes more than twice as long, for a twelfth less. */
const PNG = { compressionLevel: 7 } as const;

/** What the preview picture of a page says, and how it looks. */
export interface Preview {
  readonly title: string;
  /** The name of the site. */
  readonly name: string;
  readonly look: Look;
  /** The one for the ground of the picture; null where there is none. */
  readonly logo: LiveFile | null;
}

/** What is the same looks the same: a hash of all that a preview picture is made of. */
export const previewHash = ({ title, name, look, logo }: Preview): string =>
  createHash('sha256')
    .update(JSON.stringify([title, name, look.colour, look.accent, look.pair, look.weight, logo?.content]))
    .digest('hex')
    .slice(0, 12);

/** The logo that can be seen on the ground of preview pictures. */
export function logoOfPreview(look: Look, files: ReadonlyMap<string, LiveFile>): LiveFile | null {
  const { paper } = schemesOf(look).strong.light;
  const isDark = contrast('#ffffff', paper) > contrast('#000000', paper);
  const wanted = isDark ? [look.logoOnDark, look.logo] : [look.logo, look.logoOnDark];
  const found = wanted.flatMap((id) => (id === null ? [] : (files.get(id) ?? [])));
  return found.find(({ isReady }) => isReady) ?? null;
}

/** A font with the outlines of its glyphs, as SVG has them, that were drawn before. */
interface Drawing {
  readonly font: Font;
  readonly paths: Map<number, string>;
}
type Fonts = readonly Drawing[];

/** Draws preview pictures: a title in the type and the colours of a look. */
export class PreviewPictures {
  readonly #store: FileStore;
  readonly #fontBytes: (family: Family) => readonly Buffer[];
  readonly #known = new Map<string, Promise<Buffer>>();
  readonly #fonts = new Map<string, Promise<Fonts>>();
  #lastFonts: Promise<unknown> = Promise.resolve();
  /** The last picture of each that is drawn beside the others. */
  readonly #last: Promise<unknown>[];
  #turn = 0;
  #waiting = 0;

  /**
   * @param fontBytes the files of a family as WOFF2, the first for most signs
   * @param atOnce so many are drawn beside each other; one where others wait for answers
   */
  constructor(store: FileStore, fontBytes: (family: Family) => readonly Buffer[], atOnce = 1) {
    this.#store = store;
    this.#fontBytes = fontBytes;
    this.#last = Array.from({ length: atOnce }, () => Promise.resolve());
  }

  /**
   * The picture as PNG; null where so many wait already that whoever asks does better to come again. Words in signs that the type of the look
   * lacks, as of another script, are left out.
   */
  of(preview: Preview): Promise<Buffer> | null {
    const hash = previewHash(preview);
    let picture = this.#known.get(hash);
    if (!picture) {
      if (this.#waiting >= MOST_WAITING) return null;
      if (this.#known.size >= MOST_KNOWN) this.#known.delete(this.#known.keys().next().value!);
      this.#waiting += 1;
      const turn = this.#turn++ % this.#last.length;
      picture = this.#last[turn]!.then(() => this.#draw(preview));
      this.#last[turn] = picture.catch(() => undefined).finally(() => (this.#waiting -= 1));
      picture.catch(() => this.#known.delete(hash));
      this.#known.set(hash, picture);
    }
    return picture;
  }

  async #draw({ title, name, look, logo }: Preview): Promise<Buffer> {
    const pair = TYPE_PAIRS.find(({ id }) => id === look.pair)!;
    const heads = await this.#fontsOf(pair.headings, headingWeight(look));
    const texts = await this.#fontsOf(pair.text, 500);
    const { paper, ink, quiet, accent } = schemesOf(look).strong.light;
    const room = PREVIEW_WIDTH - 2 * MARGIN;
    const set = TITLE_SIZES.map((size) => ({ size, lines: linesIn(heads, title, room / size) }));
    const { size, lines } = set.find((one) => one.lines !== null && one.lines.length <= MOST_LINES) ?? set.at(-1)!;
    const shown = (lines ?? []).slice(0, MOST_LINES);
    const named = linesIn(texts, name, Infinity) ?? [];
    const block = shown.length * size * LINE;
    // Above the middle where a logo is not, so that it stands as the eye takes it.
    const top = (PREVIEW_HEIGHT - block - NAME_SIZE) / 2 + (logo ? LOGO.height / 2 : 0);
    const headline = shown.map((line, at) => drawn(line, MARGIN, top + size * (0.9 + at * LINE), size));
    const svg = markup`<svg xmlns="http://www.w3.org/2000/svg" width="${PREVIEW_WIDTH}" height="${PREVIEW_HEIGHT}"><rect width="100%" height="100%" fill="${paper}"/><rect y="${PREVIEW_HEIGHT - 14}" width="100%" height="14" fill="${accent}"/><g fill="${ink}">${sound(headline.join(''))}</g><g fill="${quiet}">${sound(named.map((line) => drawn(line, MARGIN, PREVIEW_HEIGHT - MARGIN + NAME_SIZE * 0.35, NAME_SIZE)).join(''))}</g></svg>`;
    // On the visitors' side little else draws.
    const { default: sharp } = await import('sharp');
    const picture = sharp(Buffer.from(svg.text)).removeAlpha();
    const sign = logo && (await pictureFor(this.#store, logo.content, logo, LOGO.width));
    if (!sign) return picture.png(PNG).toBuffer();
    const small = await sign.resize(LOGO.width, LOGO.height, { fit: 'inside' }).png().toBuffer();
    return picture
      .composite([{ input: small, left: MARGIN, top: 64 }])
      .png(PNG)
      .toBuffer();
  }

  #fontsOf(family: Family, weight: number): Promise<Fonts> {
    const key = `${family.file} ${weight}`;
    let fonts = this.#fonts.get(key);
    if (!fonts) {
      // What is uncompressed stands in one place of memory, until the next one comes.
      fonts = this.#lastFonts.then(() => inTurn(this.#fontBytes(family), weight));
      this.#lastFonts = fonts.catch(() => undefined);
      this.#fonts.set(key, fonts);
      fonts.catch(() => this.#fonts.delete(key));
    }
    return fonts;
  }
}

async function inTurn(files: readonly Buffer[], weight: number): Promise<Fonts> {
  const fonts: Drawing[] = [];
  for (const bytes of files) fonts.push({ font: await fontOf(bytes, weight), paths: new Map() });
  return fonts;
}

/** A variable font at a weight, or as near to it as it goes. */
async function fontOf(woff2: Buffer, weight: number): Promise<Font> {
  // Most processes draw none.
  const [{ create }, { decompress }] = await Promise.all([import('fontkit'), import('wawoff2')]);
  // The reader of fonts cannot vary one that is compressed.
  const font = create(Buffer.from(await decompress(woff2))) as Font;
  const { min = weight, max = weight } = font.variationAxes.wght ?? {};
  return font.getVariation({ wght: Math.min(max, Math.max(min, weight)) });
}

/** A word or a line as outlines: its width and its glyphs, for a size of 1. */
interface Outline {
  readonly width: number;
  readonly glyphs: readonly { readonly path: string; readonly x: number; readonly scale: number }[];
}

/** A text in lines that are no wider than there is room, both for a size of 1; null where no font has one of its signs. */
function linesIn(fonts: Fonts, text: string, room: number): Outline[] | null {
  const words = text.split(/\s+/).filter((word) => word !== '');
  const outlines = words.map((word) => outlineOf(fonts, word));
  if (outlines.some((one) => one === null)) return null;
  const lines: Outline[] = [];
  for (const word of outlines as Outline[]) {
    const last = lines.at(-1);
    const space = 0.24;
    if (!last || last.width + space + word.width > room) lines.push(word);
    else {
      const moved = word.glyphs.map((glyph) => ({ ...glyph, x: glyph.x + last.width + space }));
      lines[lines.length - 1] = { width: last.width + space + word.width, glyphs: [...last.glyphs, ...moved] };
    }
  }
  return lines;
}

/** A word in the first fonts that have its signs: those of other languages stand in files of their own. */
function outlineOf(fonts: Fonts, word: string): Outline | null {
  const runs: { readonly of: Drawing; text: string }[] = [];
  for (const sign of word) {
    const of = fonts.find(({ font }) => font.hasGlyphForCodePoint(sign.codePointAt(0)!));
    if (!of) return null;
    const last = runs.at(-1);
    if (last?.of === of) last.text += sign;
    else runs.push({ of, text: sign });
  }
  let width = 0;
  const set = runs.flatMap(({ of, text }) => {
    const { glyphs, positions } = of.font.layout(text);
    const scale = 1 / of.font.unitsPerEm;
    return glyphs.map((glyph, at) => {
      const placed = { path: pathOf(of, glyph), x: width + positions[at]!.xOffset * scale, scale };
      width += positions[at]!.xAdvance * scale;
      return placed;
    });
  });
  return { width, glyphs: set };
}

function pathOf({ paths }: Drawing, { id, path }: Glyph): string {
  let drawn = paths.get(id);
  if (drawn === undefined) paths.set(id, (drawn = path.toSVG()));
  return drawn;
}

/** A line as SVG, from its left end on its base line. */
const drawn = ({ glyphs }: Outline, left: number, base: number, size: number): string =>
  glyphs
    .map(
      ({ path, x, scale }) =>
        `<path transform="translate(${(left + x * size).toFixed(2)} ${base.toFixed(2)}) scale(${(scale * size).toFixed(6)} ${(-scale * size).toFixed(6)})" d="${path}"/>`,
    )
    .join('');
