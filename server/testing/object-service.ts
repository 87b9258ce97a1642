import { type IncomingMessage, createServer } from 'node:http';
import type { AddressInfo } from 'node:net';

/** A small S3-compatible service in memory: objects whole, in ranges and in parts, listed and removed. It asks for a signature and checks none. */
export async function startObjectService(): Promise<{
  readonly endpoint: string;
  readonly objects: ReadonlyMap<string, Buffer>;
  readonly close: () => void;
}> {
  const objects = new Map<string, Buffer>();
  const uploads = new Map<string, Map<number, Buffer>>();
  const server = createServer((request, response) => {
    void answer(request).then(({ status, headers = {}, body = '' }) => response.writeHead(status, headers).end(body));
  });

  async function answer(
    request: IncomingMessage,
  ): Promise<{ status: number; headers?: Record<string, string>; body?: Buffer | string }> {
    const url = new URL(request.url!, 'http://objects');
    const query = url.searchParams;
    const key = decodeURIComponent(url.pathname.split('/').slice(2).join('/'));
    const body = await bytesOf(request);
    const xml = (text: string) => ({ status: 200, headers: { 'Content-Type': 'application/xml' }, body: text });
    if (!request.headers.authorization?.startsWith('AWS4-HMAC-SHA256')) return { status: 403 };
    switch (request.method) {
      case 'POST': {
        if (query.has('uploads')) {
          const id = String(uploads.size + 1);
          uploads.set(id, new Map());
          return xml(`<InitiateMultipartUploadResult><UploadId>${id}</UploadId></InitiateMultipartUploadResult>`);
        }
        const parts = [...uploads.get(query.get('uploadId')!)!].sort(([a], [b]) => a - b);
        objects.set(key, Buffer.concat(parts.map(([, part]) => part)));
        return xml(`<CompleteMultipartUploadResult><Key>${key}</Key></CompleteMultipartUploadResult>`);
      }
      case 'PUT': {
        const upload = query.get('uploadId');
        if (upload === null) objects.set(key, body);
        else uploads.get(upload)!.set(Number(query.get('partNumber')), body);
        return { status: 200, headers: { ETag: '"one"' } };
      }
      case 'DELETE':
        if (query.has('uploadId')) uploads.delete(query.get('uploadId')!);
        else objects.delete(key);
        return { status: 204 };
      default: {
        if (query.has('list-type')) {
          const found = [...objects.keys()].filter((one) => one.startsWith(query.get('prefix')!));
          return xml(
            `<ListBucketResult>${found.map((one) => `<Contents><Key>${one}</Key></Contents>`).join('')}</ListBucketResult>`,
          );
        }
        const object = objects.get(key);
        if (!object) return { status: 404 };
        const [, first, last] = /^bytes=(\d+)-(\d+)$/.exec(request.headers.range ?? '') ?? [];
        const part = first === undefined ? object : object.subarray(Number(first), Number(last) + 1);
        return {
          status: first === undefined ? 200 : 206,
          headers: { 'Content-Length': String(part.length) },
          body: request.method === 'HEAD' ? '' : part,
        };
      }
    }
  }

  server.listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  return {
    endpoint: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    objects,
    close: () => server.closeAllConnections(),
  };
}

async function bytesOf(request: IncomingMessage): Promise<Buffer> {
  const parts: Buffer[] = [];
  for await (const part of request) parts.push(part as Buffer);
  return Buffer.concat(parts);
}
