import { existsSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { Worker, type WorkerOptions } from 'node:worker_threads';

/**
 * Starts a thread. Built, its program stands beside this one under its own name; in development it is TypeScript still, which a loader
 * has to be asked for.
 * @param name of its file, without an ending @param beside the address of the module that starts it
 */
export function startWorker(name: string, beside: string, options: WorkerOptions = {}): Worker {
  const built = fileURLToPath(new URL(`./${name}.js`, beside));
  if (existsSync(built)) return new Worker(built, options);
  const source = JSON.stringify(new URL(`./${name}.ts`, beside).href);
  return new Worker(`import('tsx/esm/api').then(({ register }) => (register(), import(${source})))`, {
    ...options,
    eval: true,
  });
}
