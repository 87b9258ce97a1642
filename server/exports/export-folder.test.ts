import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, expect, it } from 'vitest';
import { writeFolder } from './export-folder.ts';
import type { StaticFile } from './static-site.ts';

const top = mkdtempSync(join(tmpdir(), 'spur-folder-'));
afterAll(() => rmSync(top, { recursive: true }));

async function* files(...paths: string[]): AsyncGenerator<StaticFile> {
  for (const path of paths) yield { path, content: path };
}

it('a folder is written whole, or is what it was and nothing is left beside it', async () => {
  const folder = join(top, 'site');
  expect(await writeFolder(folder, files('404.html', 'a/index.html'))).toBe(2);
  await writeFolder(folder, files('404.html', 'b/index.html'));
  expect([readdirSync(folder).sort(), readFileSync(join(folder, 'b/index.html'), 'utf8')]).toEqual([
    ['404.html', 'b'],
    'b/index.html',
  ]);
  await expect(writeFolder(folder, files('404.html', '../../outside'))).rejects.toThrow(/outside of its folder/);
  expect([readdirSync(folder).sort(), readdirSync(top)]).toEqual([['404.html', 'b'], ['site']]);
});

it('a folder that holds something else is left alone', async () => {
  writeFileSync(join(top, 'letter.txt'), 'Dear Ines');
  await expect(writeFolder(top, files('404.html'))).rejects.toThrow(/holds other files/);
  expect(readdirSync(top)).toContain('letter.txt');
});
