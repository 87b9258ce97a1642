import { type Server, createServer } from 'node:http';

export interface StandInPage {
  readonly path: string;
  readonly html: string;
}

export interface StandInFile {
  readonly path: string;
  readonly type: string;
  readonly bytes: Uint8Array;
}

const ROBOTS = `User-agent: *
Disallow: /intern/
Disallow: /calendar.php
`;

/**
 * A stand-in for an old website, on loopback: its pages, a robots file, a sitemap that leaves most of them out, a
 * redirect, a file that is no page, and links that lead nowhere.
 */
export async function serveFormerSite(
  pages: readonly StandInPage[],
  port: number,
  files: readonly StandInFile[] = [],
): Promise<Server> {
  const fileAt = new Map(files.map((one) => [one.path, one]));
  const byPath = new Map(pages.map((page) => [page.path, page.html]));
  const server = createServer((request, response) => {
    const path = request.url ?? '/';
    const send = (status: number, type: string, body: string, headers = {}) =>
      response.writeHead(status, { 'Content-Type': type, ...headers }).end(body);
    const html = byPath.get(path);
    if (html !== undefined) return send(200, 'text/html; charset=utf-8', html);
    if (path === '/') return send(302, 'text/plain', '', { Location: '/index.html' });
    if (path === '/home.html') return send(301, 'text/plain', '', { Location: '/index.html' });
    if (path === '/robots.txt') return send(200, 'text/plain', ROBOTS);
    const file = fileAt.get(path);
    if (file) return response.writeHead(200, { 'Content-Type': file.type }).end(file.bytes);
    if (path === '/downloads/prospectus.pdf') return send(200, 'application/pdf', '%PDF-1.4');
    if (path === '/sitemap.xml') {
      const origin = `http://${request.headers.host}`;
      const urls = pages
        .slice(0, 60)
        .map((page) => `<url><loc>${origin}${page.path.replaceAll('&', '&amp;')}</loc></url>`);
      return send(
        200,
        'application/xml',
        `<?xml version="1.0" encoding="UTF-8"?><urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">${urls.join('')}</urlset>`,
      );
    }
    send(404, 'text/html; charset=utf-8', '<title>Not found</title><h1>Not found</h1>');
  });
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', resolve);
  });
  return server;
}
