#!/usr/bin/env node
// Writes docs/keys.md from the table that the keys themselves are read from.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';
import { ROOT } from './run.mjs';

const built = await build({
  entryPoints: [join(ROOT, 'web/workbench/keys.ts')],
  bundle: true,
  format: 'esm',
  write: false,
});
const { KEYS, MAP_KEYS, TREE_KEYS, TYPING_KEYS } = await import(
  `data:text/javascript,${encodeURIComponent(built.outputFiles[0]?.text ?? '')}`
);
const table = (/** @type {{ keys: string, words: string }[]} */ keys) =>
  ['| Keys | What they do |', '|---|---|', ...keys.map((one) => `| \`${one.keys}\` | ${one.words} |`)].join('\n');
const text = `# Keys

Keys with Ctrl work anywhere in the workbench outside of fields; all others while the tree or the map has the focus. The \`?\` dialog shows the same list. Made by \`npm run docs:keys\`.

## Commands

${table(Object.values(KEYS))}

## In the tree

${table(TREE_KEYS)}

## While a new page is typed

${table(TYPING_KEYS)}

## In the map

${table(MAP_KEYS)}
`;
writeFileSync(join(ROOT, 'docs/keys.md'), text);
