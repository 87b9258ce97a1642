import { describe, expect, it } from 'vitest';
import { decodeText } from './decode-text.ts';

describe('the text of a file', () => {
  const text = 'Gebühren – “fees”, €20\nzweite Zeile';
  const utf16 = (withMark: boolean) => {
    const bytes = Buffer.from((withMark ? '\uFEFF' : '') + text, 'utf16le');
    return { little: bytes, big: Buffer.from(bytes).swap16() };
  };

  it('is read as UTF-8, with a byte order mark or without', () => {
    expect(decodeText(Buffer.from(text))).toBe(text);
    expect(decodeText(Buffer.from(`\uFEFF${text}`))).toBe(text);
  });

  it('is read as UTF-16 of both orders, with a mark or without', () => {
    for (const withMark of [true, false]) {
      expect(decodeText(utf16(withMark).little)).toBe(text);
      expect(decodeText(utf16(withMark).big)).toBe(text);
    }
  });

  it('is read as Windows-1252 where it is no UTF-8', () =>
    expect(decodeText(Buffer.from([0x47, 0xfc, 0x20, 0x96, 0x20, 0x80]))).toBe('Gü – €'));
});
