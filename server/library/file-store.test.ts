import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Readable } from 'node:stream';
import { buffer } from 'node:stream/consumers';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { FileContent } from '#core/files/file.ts';
import { startObjectService } from '../testing/object-service.ts';
import { type FileStore, FolderStore } from './file-store.ts';
import { ServiceStore } from './service-store.ts';

const [SLIP, PIER] = ['a'.repeat(32), 'ab'.repeat(16)] as [FileContent, FileContent];

const STORES: Readonly<Record<string, () => Promise<{ store: FileStore; close: () => void }>>> = {
  'a folder': async () => {
    const folder = await mkdtemp(join(tmpdir(), 'spur-store-'));
    return { store: new FolderStore(folder), close: () => void rm(folder, { recursive: true }) };
  },
  'a service': async () => {
    const service = await startObjectService();
    const opens = { bucket: 'files', region: 'here', key: 'key', secret: 'secret' };
    const store = await ServiceStore.open({ endpoint: service.endpoint, ...opens });
    const close = () => {
      store.close();
      service.close();
    };
    return { store, close };
  },
};

describe.each(Object.entries(STORES))('the store as %s', (_, open) => {
  let store: FileStore;
  let close: () => void;
  beforeAll(async () => {
    ({ store, close } = await open());
  });
  afterAll(() => close());

  const read = async (content: FileContent, name: string, range?: { first: number; last: number }) => {
    const found = await store.get(content, name);
    return found && (await buffer(found.read(range))).toString();
  };

  it('gives what was kept, as a whole and in part, with its length', async () => {
    await store.put(SLIP, 'whole', Buffer.from('The slip at noon'));
    expect((await store.get(SLIP, 'whole'))!.length).toBe(16);
    expect(await read(SLIP, 'whole')).toBe('The slip at noon');
    expect(await read(SLIP, 'whole', { first: 4, last: 7 })).toBe('slip');
    expect([await read(SLIP, '640.avif'), await read(PIER, 'whole')]).toEqual([undefined, undefined]);
  });

  it('keeps what comes as a stream, also what is long, and writes over what is there', async () => {
    const long = Buffer.alloc(12_000_000, 'pier');
    await store.put(PIER, 'whole', Readable.from([long.subarray(0, 7_000_001), long.subarray(7_000_001)]));
    const found = (await store.get(PIER, 'whole'))!;
    expect(found.length).toBe(long.length);
    expect((await buffer(found.read())).equals(long)).toBe(true);
    await store.put(PIER, 'whole', Buffer.from('short'));
    expect(await read(PIER, 'whole')).toBe('short');
  });

  it('keeps nothing of a stream that breaks off', async () => {
    const breaking = async function* () {
      yield Buffer.alloc(1000);
      throw new Error('broken off');
    };
    await expect(store.put(SLIP, 'original', Readable.from(breaking()))).rejects.toThrow('broken off');
    expect(await store.get(SLIP, 'original')).toBeUndefined();
  });

  it('lets a reader go away in the middle', async () => {
    await store.put(SLIP, '1280.webp', Buffer.alloc(3_000_000, 1));
    const stream = (await store.get(SLIP, '1280.webp'))!.read();
    await new Promise((resolve) => stream.once('data', resolve));
    stream.destroy();
    expect(await read(SLIP, 'whole')).toBe('The slip at noon');
  });

  it('takes away one name, or all of a content and nothing of another', async () => {
    await store.put(SLIP, '640.avif', Buffer.from('small'));
    await store.remove(SLIP, '640.avif');
    expect([await read(SLIP, '640.avif'), await read(SLIP, 'whole')]).toEqual([undefined, 'The slip at noon']);
    await store.remove(SLIP);
    expect([await read(SLIP, 'whole'), await read(PIER, 'whole')]).toEqual([undefined, 'short']);
    await store.remove(SLIP);
  });

  it.each(['../x', 'a/b', '', 'Whole'])('keeps nothing under a name like ‘%s’', async (name) => {
    await expect(store.put(SLIP, name, Buffer.from('x'))).rejects.toThrow(/Nothing can be kept/);
  });
});
