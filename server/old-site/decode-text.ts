import iconv from 'iconv-lite';

/**
 * The text of a file, whichever of the usual encodings it has: UTF-8 and UTF-16 by their byte order mark, UTF-16
 * without one by its zero bytes, UTF-8 where it is valid, else Windows-1252, in which every byte is a letter. U+0000,
 * which no text can have, becomes the sign for what cannot be read.
 */
export const decodeText = (bytes: Uint8Array): string => decoded(bytes).replaceAll('\0', '\ufffd');

function decoded(bytes: Uint8Array): string {
  const starts = (...mark: number[]) => mark.every((byte, at) => bytes[at] === byte);
  if (starts(0xff, 0xfe)) return new TextDecoder('utf-16le').decode(bytes);
  if (starts(0xfe, 0xff)) return new TextDecoder('utf-16be').decode(bytes);
  const sample = bytes.subarray(0, 2000);
  const zeros = [0, 0];
  sample.forEach((byte, at) => (byte === 0 ? zeros[at % 2]!++ : 0));
  const many = sample.length / 5;
  if (zeros[1]! > many) return new TextDecoder('utf-16le').decode(bytes);
  if (zeros[0]! > many) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    // Node's own decoder takes Windows-1252 for Latin-1.
    return iconv.decode(Buffer.from(bytes), 'win1252');
  }
}

/** HTML by the encoding that its header or its first part names; else by its bytes. */
export function decodeHtml(body: Buffer, type: string): string {
  const named =
    /charset=["']?([\w-]+)/i.exec(type)?.[1] ??
    /<meta[^>]+charset=["']?([\w-]+)/i.exec(body.subarray(0, 2000).toString('latin1'))?.[1];
  if (named === undefined) return decodeText(body);
  try {
    return new TextDecoder(named).decode(body);
  } catch {
    return decodeText(body);
  }
}
