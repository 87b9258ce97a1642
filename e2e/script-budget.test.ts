import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';

/** What scripts may weigh before the first rows, as they are sent (Brotli). */
const MOST_BYTES = 300_000;

const WEB = fileURLToPath(new URL('../dist/web/', import.meta.url));
interface Chunk {
  readonly file: string;
  readonly name?: string;
  readonly imports?: readonly string[];
}
const manifest: Readonly<Record<string, Chunk>> = JSON.parse(readFileSync(`${WEB}.vite/manifest.json`, 'utf8'));

/** The scripts of those names (`vite.config.ts`), with all that these need themselves. */
function neededFor(...names: string[]): Set<string> {
  const files = new Set<string>();
  const need = (chunk: Chunk) => {
    if (files.has(chunk.file)) return;
    files.add(chunk.file);
    for (const key of chunk.imports ?? []) need(manifest[key]!);
  };
  for (const name of names) {
    const chunk = Object.values(manifest).find((one) => one.name === name && one.file.endsWith('.js'));
    if (!chunk) throw new Error(`The build has no script ‘${name}’.`);
    need(chunk);
  }
  return files;
}

describe('the scripts before the first rows', () => {
  const needed = neededFor('index', 'workbench');

  it('stay within their budget', () => {
    const bytes = [...needed].reduce((sum, file) => sum + readFileSync(`${WEB}${file}.br`).length, 0);
    expect(bytes).toBeGreaterThan(50_000);
    expect(bytes).toBeLessThanOrEqual(MOST_BYTES);
  });

  it('have no editor, no map, no calendar, no dialog and no letters of other scripts among them', () => {
    const codeOf = (files: Iterable<string>) =>
      [...files].map((file) => readFileSync(`${WEB}${file}`, 'utf8')).join('');
    // Words that stand in the code of the editor, of shared documents, of the map, of the calendar, of a dialog and of transliteration.
    const words = [
      'ProseMirror',
      'Yjs was already imported',
      'Map of the pages',
      'rdp-',
      'Find a place by title',
      'fixChineseSpacing',
    ];
    const foundIn = (files: Set<string>) => words.filter((word) => codeOf(files).includes(word));
    expect(foundIn(neededFor('writing', 'views', 'calendar', 'dialogs', 'transliterate'))).toEqual(words);
    expect(foundIn(needed)).toEqual([]);
    // What follows signing in needs none of them either.
    expect(foundIn(neededFor('index', 'sites'))).toEqual([]);
  });

  it('have nothing of signing in among them, which most who come have done', () => {
    const [signingIn] = [...neededFor('entry')].filter((file) => !neededFor('index').has(file));
    expect(signingIn).toMatch(/entry/);
    expect(needed).not.toContain(signingIn);
  });
});
