#!/usr/bin/env node
// Writes the JSON Schemas in docs/formats from the schemas that files are read by.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';
import { format } from 'prettier';
import { z } from 'zod';
import { ROOT } from './run.mjs';

const FILES = [
  {
    source: 'core/formats/site-json.ts',
    schema: 'siteFileSchema',
    file: 'site.schema.json',
    title: 'A site of Spur, as a file',
  },
  {
    source: 'core/starters/starter.ts',
    schema: 'starterSchema',
    file: 'starter.schema.json',
    title: 'A starter of Spur, as a file',
  },
];

for (const { source, schema, file, title } of FILES) {
  const built = await build({ entryPoints: [join(ROOT, source)], bundle: true, format: 'esm', write: false });
  const module = await import(`data:text/javascript,${encodeURIComponent(built.outputFiles[0]?.text ?? '')}`);
  const json = JSON.stringify({ title, ...z.toJSONSchema(module[schema], { unrepresentable: 'any' }) });
  writeFileSync(join(ROOT, 'docs/formats', file), await format(json, { parser: 'json', printWidth: 120 }));
}
