import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { readOwnCss } from '#core/look/own-css.ts';
import { FONT_RANGES, type FontRange, familiesOf, lookFaces, lookVariables } from '#core/look/style.ts';
import { FAMILIES, type Family } from '#core/look/type-pairs.ts';
import { canonicalJson } from '#core/model/canonical-json.ts';
import type { Look, Screen } from '#core/model/look.ts';
import { ReadyAnswer } from './ready-answer.ts';

const FOR_EVER = ['Cache-Control', 'public, max-age=31536000, immutable', 'Access-Control-Allow-Origin', '*'];
/** So many looks are kept as stylesheets, which is more than sites are asked for at once. */
const MOST_SHEETS = 200;

/** The step of a site's addresses below which its stylesheet is. */
export const LOOK_STEP = '~look';

/** A look as the one stylesheet that the pages of a site need. */
export interface LookSheet {
  /** Its address below that of the site: it holds a hash of what the sheet says. */
  readonly path: string;
  readonly css: string;
  readonly answer: ReadyAnswer;
  /** For an address of an earlier look: what it is now, to be asked for again. */
  readonly renewed: ReadyAnswer;
  /** The fonts that every page needs, by their whole paths. */
  readonly fonts: readonly string[];
}

/** The stylesheets and fonts of visitors' pages. Fonts are by their path below `/assets`; each name holds a hash of what it is. */
export class Assets {
  /** What holds for all looks. */
  readonly css: string;
  readonly #fonts: ReadonlyMap<string, { readonly path: string; readonly bytes: Buffer }>;
  readonly #files: ReadonlyMap<string, ReadyAnswer>;
  readonly #sheets = new Map<string, LookSheet>();

  private constructor(css: string, fonts: ReadonlyMap<string, { readonly path: string; readonly bytes: Buffer }>) {
    this.css = css;
    this.#fonts = fonts;
    this.#files = new Map(
      [...fonts.values()].map(({ path, bytes }) => [path, new ReadyAnswer(200, 'font/woff2', bytes, FOR_EVER)]),
    );
  }

  /** A font by its path below `/assets`. */
  get(path: string): ReadyAnswer | undefined {
    return this.#files.get(path);
  }

  /** @param walk in a walk type is shown however late it comes, and on one kind of screens alone where that is asked for */
  sheetOf(look: Look, walk: { readonly screen: Screen | null } | null = null): LookSheet {
    const key = `${canonicalJson(look)} ${walk && String(walk.screen)}`;
    let sheet = this.#sheets.get(key);
    if (!sheet) {
      if (this.#sheets.size >= MOST_SHEETS) this.#sheets.clear();
      const own = look.css === '' ? '' : `\n${readOwnCss(look.css).css}`;
      const css = `${lookFaces(look, (family, range) => this.#urlOf(family, range), walk ? 'swap' : 'optional')}\n${lookVariables(look, walk?.screen)}\n${this.css}${own}`;
      const type = 'text/css; charset=utf-8';
      sheet = {
        path: `/${LOOK_STEP}/${hashOf(css)}.css`,
        css,
        answer: new ReadyAnswer(200, type, css, FOR_EVER),
        renewed: new ReadyAnswer(200, type, css, ['Cache-Control', 'no-cache']),
        fonts: familiesOf(look).map((family) => this.#urlOf(family, 'latin')),
      };
      this.#sheets.set(key, sheet);
    }
    return sheet;
  }

  /** What pages as files need beside them, by their path below `/assets`. */
  filesOf(look: Look): { readonly stylesheet: string; readonly bytes: ReadonlyMap<string, Buffer> } {
    const { css } = this.sheetOf(look);
    const path = `/look-${hashOf(css)}.css`;
    const fonts = familiesOf(look).flatMap((family) => FONT_RANGES.map((range) => this.#fontOf(family, range)));
    return {
      stylesheet: `/assets${path}`,
      bytes: new Map([...fonts.map((font) => [font.path, font.bytes] as const), [path, Buffer.from(css)]]),
    };
  }

  /** A family as WOFF2, the signs of western languages first. */
  fontBytes(family: Family): readonly Buffer[] {
    return FONT_RANGES.map((range) => this.#fontOf(family, range).bytes);
  }

  #urlOf(family: Family, range: FontRange): string {
    return `/assets${this.#fontOf(family, range).path}`;
  }

  #fontOf(family: Family, range: FontRange) {
    return this.#fonts.get(fontName(family, range))!;
  }

  /** The path of each font, by its family's file and its range: `figtree-latin`. */
  get fonts(): Readonly<Record<string, string>> {
    return Object.fromEntries([...this.#fonts].map(([name, { path }]) => [name, `/assets${path}`]));
  }

  /** Those of this process, read once. */
  static load(): Promise<Assets> {
    return (Assets.#loaded ??= Assets.#read());
  }
  static #loaded: Promise<Assets> | undefined;

  static async #read(): Promise<Assets> {
    const require = createRequire(import.meta.url);
    const css = await readFile(fileURLToPath(new URL('./assets/visitors.css', import.meta.url)), 'utf8');
    const fonts = await Promise.all(
      FAMILIES.flatMap((family) =>
        FONT_RANGES.map(async (range) => {
          const name = fontName(family, range);
          const bytes = await readFile(
            require.resolve(`@fontsource-variable/${family.file}/files/${family.file}-${range}-wght-normal.woff2`),
          );
          return [name, { path: `/${name}-${hashOf(bytes)}.woff2`, bytes }] as const;
        }),
      ),
    );
    return new Assets(css, new Map(fonts));
  }
}

const fontName = ({ file }: Family, range: FontRange): string => `${file}-${range}`;

/** The script that searches a site which stands as files: MiniSearch, and what shows its results. */
export async function searchScript(): Promise<string> {
  // The package names this file for browsers, and its exports only the ones for programs.
  const engine = join(dirname(createRequire(import.meta.url).resolve('minisearch')), '../umd/index.js');
  const ours = fileURLToPath(new URL('./assets/search-in-files.js', import.meta.url));
  const [first, second] = await Promise.all([readFile(engine, 'utf8'), readFile(ours, 'utf8')]);
  return `${first.replace('//# sourceMappingURL=index.js.map', '')}\n${second}`;
}

const hashOf = (content: Buffer | string): string => createHash('sha256').update(content).digest('hex').slice(0, 10);
