import { derivedOf } from '#core/derive/derived.ts';
import { readTree, sentTreeSchema } from '#contract/sent-tree.ts';
import { type Result, median, ms } from './measure.ts';

const ROUNDS = 25;

/** From request to usable tree (fetched, checked, unpacked, derived) beside fetching and parsing the same bytes; and the bytes a page. */
export async function benchOpen(port: number, cookie: string, key: string, size: number): Promise<Result[]> {
  const fetchTree = async () => {
    const response = await fetch(`http://127.0.0.1:${port}/api/sites/${key}/tree`, { headers: { Cookie: cookie } });
    return (await response.json()) as unknown;
  };
  const bare: number[] = [];
  const ours: number[] = [];
  for (let round = 0; round < ROUNDS + 3; round++) {
    const began = performance.now();
    await fetchTree();
    const between = performance.now();
    derivedOf(readTree(sentTreeSchema.parse(await fetchTree())));
    const end = performance.now();
    if (round < 3) continue;
    bare.push(between - began);
    ours.push(end - between);
  }
  const raw = await fetch(`http://127.0.0.1:${port}/api/sites/${key}/tree`, {
    headers: { Cookie: cookie, 'Accept-Encoding': 'gzip' },
  });
  const bytes = Number(raw.headers.get('content-length') ?? (await compressedLength(port, cookie, key)));
  return [
    {
      what: `Open a site of ${size.toLocaleString('en')} pages: request to usable tree`,
      ours: ms(median(ours)),
      limit: `${ms(median(bare))}, fetching and parsing the same bytes`,
      ratio: median(ours) / median(bare),
      aim: '≤ 3',
      isMet: median(ours) / median(bare) <= 3,
    },
    {
      what: 'Bytes of the tree a page, compressed',
      ours: `${(bytes / size).toFixed(1)} B`,
      limit: '50 B',
      ratio: bytes / size / 50,
      aim: '≤ 1',
      isMet: bytes / size <= 50,
    },
  ];
}

/** The length on the wire, where the answer does not say it. */
async function compressedLength(port: number, cookie: string, key: string): Promise<number> {
  const { get } = await import('node:http');
  return new Promise((resolve, reject) => {
    get(
      {
        port,
        host: '127.0.0.1',
        path: `/api/sites/${key}/tree`,
        headers: { Cookie: cookie, 'Accept-Encoding': 'gzip' },
      },
      (response) => {
        let length = 0;
        response.on('data', (part: Buffer) => (length += part.length));
        response.on('end', () => resolve(length));
      },
    ).on('error', reject);
  });
}
