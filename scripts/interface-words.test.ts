import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';

const ROOT = fileURLToPath(new URL('..', import.meta.url));

/** The words of the first column under "Words to avoid": several stand in one cell with commas between. */
function wordsToAvoid(): string[] {
  const [, list = ''] = readFileSync(join(ROOT, 'docs/words.md'), 'utf8').split('## Words to avoid');
  return [...list.matchAll(/^\| ([^|]+) \|/gm)]
    .flatMap(([, cell]) => cell!.split(',').map((word) => word.trim().toLowerCase()))
    .filter((word) => word !== 'avoid' && !word.startsWith('---'));
}

const sources = (folder: string): string[] =>
  readdirSync(join(ROOT, folder), { recursive: true, encoding: 'utf8' })
    .filter((name) => /\.tsx?$/.test(name) && !/\.test\.tsx?$|(^|\/)(testing|migrations)\//.test(name))
    .map((name) => join(folder, name));

/** The texts of a source that may be read by a person: words of elements, and strings of more than one word. */
function textsOf(file: string): { line: number; text: string }[] {
  const source = ts.createSourceFile(file, readFileSync(join(ROOT, file), 'utf8'), ts.ScriptTarget.Latest, true);
  const texts: { line: number; text: string }[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node)) return;
    if (ts.isJsxText(node) || ts.isStringLiteral(node) || ts.isTemplateLiteralToken(node)) {
      const text = node.text.replace(/\s+/g, ' ').trim();
      if (/[A-Za-z] [A-Za-z]/.test(text))
        texts.push({ line: source.getLineAndCharacterOfPosition(node.getStart()).line + 1, text });
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return texts;
}

describe('the words of the interface', () => {
  const avoided = wordsToAvoid();

  it('are known: the list of those to avoid is read', () => expect(avoided.length).toBeGreaterThan(15));

  it.each(['web', 'contract', 'core', 'server'])('are none of those to avoid, in %s', (folder) => {
    const pattern = new RegExp(`\\b(${avoided.join('|')})\\b`, 'i');
    const found = sources(folder).flatMap((file) =>
      textsOf(file)
        .filter(({ text }) => pattern.test(text))
        .map(({ line, text }) => `${file}:${line}: ${text}`),
    );
    expect(found).toEqual([]);
  });

  it('are found where they stand in a text', () => {
    const texts = textsOf('scripts/interface-words.test.ts').map(({ text }) => text);
    expect(texts).toContain('are none of those to avoid, in %s');
  });
});
