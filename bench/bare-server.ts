import { createServer } from 'node:http';
import { gzipSync } from 'node:zlib';

/** The limit for serving: `node:http` with compressed bytes and an ETag in memory. Fetches each page from `from` once. */
const { from, paths } = await new Promise<{ from: string; paths: string[] }>((resolve) =>
  process.once('message', (message) => resolve(message as { from: string; paths: string[] })),
);
const bodies = new Map<string, { body: Buffer; headers: Record<string, string> }>();
for (const path of paths) {
  const response = await fetch(from + path);
  const body = gzipSync(Buffer.from(await response.arrayBuffer()));
  bodies.set(path, {
    body,
    headers: {
      'Content-Type': 'text/html; charset=utf-8',
      'Content-Encoding': 'gzip',
      'Content-Length': String(body.length),
      ETag: `"${path}"`,
      Vary: 'Accept-Encoding',
      'Cache-Control': 'public, no-cache',
    },
  });
}
const server = createServer((request, response) => {
  const found = bodies.get(request.url!);
  if (!found) return void response.writeHead(404).end();
  response.writeHead(200, found.headers).end(found.body);
});
server.listen(0, '127.0.0.1', () => {
  const address = server.address();
  process.send?.({ port: typeof address === 'object' && address ? address.port : 0 });
});
process.on('SIGTERM', () => process.exit(0));
