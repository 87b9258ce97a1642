#!/usr/bin/env node
// Writes the JSON Schemas in docs/formats from the schemas that files are read by.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';
import { format } from 'prettier';
import { z } from 'zod';
import { ROOT } from './run.mjs';

/** @type {{ source: string, schema: string, file: string, title: string, reused?: 'ref' }[]} */
const FILES = [
  {
    source: 'core/formats/site-json.ts',
    schema: 'siteFileSchema',
    file: 'site.schema.json',
    title: 'A site of Spur, as a file',
  },
  {
    source: 'core/starters/starter-file.ts',
    schema: 'starterSchema',
    file: 'starter.schema.json',
    title: 'A starter of Spur, as a file',
  },
  {
    source: 'contract/archive.ts',
    schema: 'archiveSchema',
    file: 'archive.schema.json',
    title: 'A whole site of Spur with its history, as a file',
    // It has all operations, and those have much in common.
    reused: 'ref',
  },
];

for (const { source, schema, file, title, reused } of FILES) {
  const built = await build({ entryPoints: [join(ROOT, source)], bundle: true, format: 'esm', write: false });
  const module = await import(`data:text/javascript,${encodeURIComponent(built.outputFiles[0]?.text ?? '')}`);
  const json = JSON.stringify({
    title,
    ...z.toJSONSchema(module[schema], { unrepresentable: 'any', reused, io: 'input' }),
  });
  writeFileSync(join(ROOT, 'docs/formats', file), await format(json, { parser: 'json', printWidth: 120 }));
}
