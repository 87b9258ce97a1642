import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { ReadyAnswer } from './ready-answer.ts';

const FOR_EVER = ['Cache-Control', 'public, max-age=31536000, immutable', 'Access-Control-Allow-Origin', '*'];
/** The fonts of the visitors' pages, from the packages that Spur ships with. */
const FONTS = {
  'text.woff2': '@fontsource-variable/hanken-grotesk/files/hanken-grotesk-latin-wght-normal.woff2',
  'text-ext.woff2': '@fontsource-variable/hanken-grotesk/files/hanken-grotesk-latin-ext-wght-normal.woff2',
  'display.woff2': '@fontsource-variable/bricolage-grotesque/files/bricolage-grotesque-latin-wght-normal.woff2',
} as const;

/** Those that each page needs. */
const NEEDED: ReadonlySet<string> = new Set(['text.woff2', 'display.woff2']);

/** The stylesheet and fonts of visitors' pages, by their path below `/assets`; each name holds a hash of what it is. */
export class Assets {
  readonly stylesheet: string;
  /** The stylesheet itself. */
  readonly css: string;
  /** The fonts that every page needs, by their whole paths. */
  readonly fonts: readonly string[];
  /** The files as they are, by their path below `/assets`. */
  readonly bytes: ReadonlyMap<string, Buffer>;
  readonly #files: ReadonlyMap<string, ReadyAnswer>;

  private constructor(
    stylesheet: string,
    css: string,
    fonts: readonly string[],
    files: ReadonlyMap<string, ReadyAnswer>,
    bytes: ReadonlyMap<string, Buffer>,
  ) {
    this.stylesheet = stylesheet;
    this.css = css;
    this.fonts = fonts;
    this.#files = files;
    this.bytes = bytes;
  }

  get(path: string): ReadyAnswer | undefined {
    return this.#files.get(path);
  }

  static async load(): Promise<Assets> {
    const require = createRequire(import.meta.url);
    const files = new Map<string, ReadyAnswer>();
    const all = new Map<string, Buffer>();
    let css = await readFile(fileURLToPath(new URL('./assets/visitors.css', import.meta.url)), 'utf8');
    const fonts: string[] = [];
    for (const [name, source] of Object.entries(FONTS)) {
      const bytes = await readFile(require.resolve(source));
      const path = `/${hashed(name, bytes)}`;
      if (NEEDED.has(name)) fonts.push(`/assets${path}`);
      files.set(path, new ReadyAnswer(200, 'font/woff2', bytes, FOR_EVER));
      all.set(path, bytes);
      css = css.replaceAll(`url('${name}')`, `url('/assets${path}')`);
    }
    const path = `/${hashed('visitors.css', Buffer.from(css))}`;
    files.set(path, new ReadyAnswer(200, 'text/css; charset=utf-8', css, FOR_EVER));
    all.set(path, Buffer.from(css));
    return new Assets(`/assets${path}`, css, fonts, files, all);
  }
}

/** The script that searches a site which stands as files: MiniSearch, and what shows its results. */
export async function searchScript(): Promise<string> {
  // The package names this file for browsers, and its exports only the ones for programs.
  const engine = join(dirname(createRequire(import.meta.url).resolve('minisearch')), '../umd/index.js');
  const ours = fileURLToPath(new URL('./assets/search-in-files.js', import.meta.url));
  const [first, second] = await Promise.all([readFile(engine, 'utf8'), readFile(ours, 'utf8')]);
  return `${first.replace('//# sourceMappingURL=index.js.map', '')}\n${second}`;
}

const hashed = (name: string, bytes: Buffer): string =>
  name.replace('.', `-${createHash('sha256').update(bytes).digest('hex').slice(0, 10)}.`);
