import { createHash } from 'node:crypto';
import type { IncomingMessage, ServerResponse } from 'node:http';
import { promisify } from 'node:util';
import { brotliCompress, brotliCompressSync, constants, gzip, gzipSync } from 'node:zlib';
import { hasStates } from '#core/derive/list-part.ts';
import { hostsOfFrames, policyWith } from './with-frames.ts';
import type { ShownList } from './live-view.ts';
import { withFormScript } from './form-script.ts';
import { MENU_SCRIPT_SOURCE } from './menu-script.ts';

export type Encoding = 'br' | 'gzip' | 'identity';
interface Form {
  readonly body: Buffer;
  readonly stamp: number;
  /** Names and values by turns, as `writeHead` takes them. */
  readonly headers: string[];
  readonly notModified: string[];
  readonly tag: string;
}

const BROTLI = { params: { [constants.BROTLI_PARAM_QUALITY]: 5 } };
const brotliBeside = promisify(brotliCompress) as (body: Buffer, options: typeof BROTLI) => Promise<Buffer>;
const gzipBeside = promisify(gzip) as (body: Buffer) => Promise<Buffer>;

/** Below this many bytes compressing costs more than it spares. */
const WORTH_COMPRESSING = 800;
const POLICY = `default-src 'none'; script-src ${MENU_SCRIPT_SOURCE}; style-src 'self'; font-src 'self'; img-src 'self' https: data:; media-src 'self'; base-uri 'none'; form-action 'self'; frame-ancestors 'none'`;
const safetyWith = (policy: string): readonly string[] => [
  'X-Content-Type-Options',
  'nosniff',
  'Referrer-Policy',
  'strict-origin-when-cross-origin',
  'Content-Security-Policy',
  policy,
];
export const SAFETY = safetyWith(POLICY);

/** An answer that is ready in memory: each form of it is made once, when it is first asked for. */
export class ReadyAnswer {
  readonly status: number;
  readonly #type: string;
  readonly #extra: readonly string[];
  readonly #safety: readonly string[];
  /** Whether it shows frames of other hosts when it is asked to: it has a policy of its own then. */
  readonly hasFrames: boolean;
  /** Whether lists on it can be asked for in other states, by the query of its address. */
  get hasStates(): boolean {
    return this.lists.some(({ setting }) => hasStates(setting));
  }

  /** The lists of pages that stand on it, and until when they are right, in milliseconds since 1970. */
  readonly lists: readonly ShownList[];
  readonly until: number;
  readonly #body: Buffer;
  readonly #forms: Partial<Record<Encoding, Form>> = {};

  constructor(
    status: number,
    type: string,
    body: string | Buffer,
    extra: readonly string[] = ['Cache-Control', 'public, no-cache'],
    { lists, until }: Pick<ReadyAnswer, 'lists' | 'until'> = { lists: [], until: Infinity },
  ) {
    this.status = status;
    this.#type = type;
    this.#extra = extra;
    this.lists = lists;
    this.until = until;
    this.#body = typeof body === 'string' ? Buffer.from(body) : body;
    const hosts = typeof body === 'string' && this.isPage ? hostsOfFrames(body) : [];
    this.hasFrames = hosts.length > 0;
    const policy = withFormScript(policyWith(POLICY, hosts), typeof body === 'string' ? body : '');
    this.#safety = policy === POLICY ? SAFETY : safetyWith(policy);
  }

  send(request: IncomingMessage, response: ServerResponse): void {
    const encoding = this.#isCompressible() ? bestEncoding(headerOf(request, 'accept-encoding')) : 'identity';
    const form = this.#form(encoding);
    const asked = headerOf(request, 'if-none-match');
    if (asked !== undefined && this.status === 200 && (asked === '*' || asked.includes(form.tag))) {
      response.writeHead(304, form.notModified).end();
      return;
    }
    response.writeHead(this.status, form.headers);
    if (request.method === 'HEAD') response.end();
    else response.end(form.body);
  }

  /** Whether it is a page, and not a file that machines read. */
  get isPage(): boolean {
    return this.#type.startsWith('text/html');
  }

  /** What it says under a header of its own, by the header's usual name. */
  header(name: string): string | undefined {
    const at = this.#extra.indexOf(name);
    return at === -1 ? undefined : this.#extra[at + 1];
  }

  /** The forms that requests of browsers are answered by, each with the second that its tag names. */
  *forms(): Generator<{ encoding: Encoding; body: Buffer; stamp: number }> {
    for (const encoding of this.#isCompressible() ? (['br', 'gzip'] as const) : (['identity'] as const)) {
      const { body, stamp } = this.#form(encoding);
      yield { encoding, body, stamp };
    }
  }

  /** Makes the forms ready in which another answer was asked for. */
  prepareLike(other: ReadyAnswer): Promise<void> {
    return this.prepare(Object.keys(other.#forms) as Encoding[]);
  }

  /** Makes forms ready, beside what else is done. */
  async prepare(encodings: readonly Encoding[]): Promise<void> {
    for (const encoding of encodings) {
      if (this.#forms[encoding] || (encoding !== 'identity' && !this.#isCompressible())) continue;
      const body =
        encoding === 'br'
          ? await brotliBeside(this.#body, BROTLI)
          : encoding === 'gzip'
            ? await gzipBeside(this.#body)
            : this.#body;
      this.#forms[encoding] = this.#make(encoding, body);
    }
  }

  #form(encoding: Encoding): Form {
    return (this.#forms[encoding] ??= this.#make(
      encoding,
      encoding === 'br'
        ? brotliCompressSync(this.#body, BROTLI)
        : encoding === 'gzip'
          ? gzipSync(this.#body)
          : this.#body,
    ));
  }

  #isCompressible(): boolean {
    return this.#body.length >= WORTH_COMPRESSING && !this.#type.startsWith('font/');
  }

  #make(encoding: Encoding, body: Buffer): Form {
    // Each form is a representation of its own, so it has a tag of its own (RFC 9110, 8.8.3). It reads as nginx tags files, by
    // second and length, where the second stands for what the file says: so nginx gives a file with that second the same tag.
    const stamp = createHash('sha256').update(body).digest().readUInt32BE() >>> 1;
    const tag = `"${stamp.toString(16)}-${body.length.toString(16)}"`;
    // Who is signed in may get another page: no cache may take one for the other.
    const vary = this.#type.startsWith('text/html') ? 'Accept-Encoding, Cookie' : 'Accept-Encoding';
    const shared = ['ETag', tag, 'Vary', vary, ...this.#extra, ...this.#safety];
    const coded = encoding === 'identity' ? [] : ['Content-Encoding', encoding];
    return {
      body,
      stamp,
      tag,
      notModified: shared,
      headers: ['Content-Type', this.#type, 'Content-Length', String(body.length), ...coded, ...shared],
    };
  }
}

/** A request header, read from the raw list: Node makes the object of all headers only when it is asked for. */
export function headerOf(request: IncomingMessage, name: string): string | undefined {
  const { rawHeaders } = request;
  for (let at = 0; at < rawHeaders.length; at += 2) {
    const given = rawHeaders[at]!;
    if (given.length === name.length && (given === name || given.toLowerCase() === name)) return rawHeaders[at + 1];
  }
  return undefined;
}

const known = new Map<string, Encoding>();

/** The best encoding that the header allows (RFC 9110, 12.5.3); `q=0` forbids one. */
function bestEncoding(text: string | undefined): Encoding {
  if (text === undefined) return 'identity';
  const before = known.get(text);
  if (before) return before;
  const allowed = new Set(
    text.split(',').flatMap((part) => {
      const [name, ...parameters] = part.split(';').map((one) => one.trim().toLowerCase());
      return parameters.some((one) => /^q=0(\.0*)?$/.test(one)) ? [] : [name];
    }),
  );
  const best: Encoding = allowed.has('br') ? 'br' : allowed.has('gzip') ? 'gzip' : 'identity';
  // Browsers send few values; whoever sends many shall not fill the memory.
  if (known.size < 1000) known.set(text, best);
  return best;
}
