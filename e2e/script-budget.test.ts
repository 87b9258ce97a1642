import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';

/** What scripts may weigh before the first rows, as they are sent (Brotli). The aim is 300,000. */
const MOST_BYTES = 420_000;

const WEB = fileURLToPath(new URL('../dist/web/', import.meta.url));
interface Chunk {
  readonly file: string;
  readonly imports?: readonly string[];
}
const manifest: Readonly<Record<string, Chunk>> = JSON.parse(readFileSync(`${WEB}.vite/manifest.json`, 'utf8'));

/** The scripts that are needed for entries, with all that these need themselves. */
function neededFor(...entries: string[]): Set<string> {
  const files = new Set<string>();
  const seen = new Set<string>();
  const need = (name: string) => {
    if (seen.has(name)) return;
    seen.add(name);
    const chunk = manifest[name];
    if (!chunk) throw new Error(`The build has no ${name}.`);
    files.add(chunk.file);
    chunk.imports?.forEach(need);
  };
  entries.forEach(need);
  return files;
}

describe('the scripts before the first rows', () => {
  const needed = neededFor('index.html', 'workbench/workbench-page.tsx');

  it('stay within their budget', () => {
    const bytes = [...needed].reduce((sum, file) => sum + readFileSync(`${WEB}${file}.br`).length, 0);
    expect(bytes).toBeGreaterThan(50_000);
    expect(bytes).toBeLessThanOrEqual(MOST_BYTES);
  });

  it('have no editor, no map, no calendar and no dialog among them', () => {
    for (const later of [
      'fields/calendar.tsx',
      'settings/settings-sheet.tsx',
      'workbench/split-view.tsx',
      'workbench/dialogs/move-dialog.tsx',
      'lenses/write/write-panel.tsx',
    ])
      expect(needed).not.toContain(manifest[later]!.file);
    const codeOf = (files: Iterable<string>) =>
      [...files].map((file) => readFileSync(`${WEB}${file}`, 'utf8')).join('');
    // Words that stand in the code of the editor, of shared documents and of the map.
    const words = ['ProseMirror', 'Yjs was already imported', 'Map of the pages'];
    const foundIn = (files: Set<string>) => words.filter((word) => codeOf(files).includes(word));
    expect(foundIn(neededFor('lenses/write/write-panel.tsx', 'workbench/split-view.tsx'))).toEqual(words);
    expect(foundIn(needed)).toEqual([]);
  });
});
