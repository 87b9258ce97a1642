import { PassThrough, Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import type { S3Client } from '@aws-sdk/client-s3';
import type { FileContent } from '#core/files/file.ts';
import { type ByteRange, type FileStore, type StoredBytes, checkStoredName } from './file-store.ts';

/** Where a service for objects is, and what opens it. */
export interface StoreService {
  /** Its address, with nothing of the bucket in it. */
  readonly endpoint: string;
  readonly bucket: string;
  readonly region: string;
  readonly key: string;
  readonly secret: string;
}

/** The client of such services: it is large, and loaded only where there is one. */
const loadClient = async () => ({
  ...(await import('@aws-sdk/client-s3')),
  ...(await import('@aws-sdk/lib-storage')),
});
type Client = Awaited<ReturnType<typeof loadClient>>;

/** The store as an S3-compatible service, for several hosts. What was sent in part is not there. */
export class ServiceStore implements FileStore {
  readonly #of: Client;
  readonly #client: S3Client;
  readonly #bucket: string;

  static async open(service: StoreService): Promise<ServiceStore> {
    return new ServiceStore(service, await loadClient());
  }

  private constructor({ endpoint, bucket, region, key, secret }: StoreService, of: Client) {
    this.#of = of;
    this.#bucket = bucket;
    this.#client = new of.S3Client({
      endpoint,
      region,
      credentials: { accessKeyId: key, secretAccessKey: secret },
      // The bucket stands in the path: services of one's own have no name for each.
      forcePathStyle: true,
      // Not every service knows the newer checksums.
      requestChecksumCalculation: 'WHEN_REQUIRED',
      responseChecksumValidation: 'WHEN_REQUIRED',
    });
  }

  async put(content: FileContent, name: string, bytes: Readable | Uint8Array): Promise<void> {
    const object = this.#objectOf(content, name);
    await new this.#of.Upload({ client: this.#client, params: { ...object, Body: bytes } }).done();
  }

  async get(content: FileContent, name: string): Promise<StoredBytes | undefined> {
    const object = this.#objectOf(content, name);
    const found = await this.#client.send(new this.#of.HeadObjectCommand(object)).catch((fault: { name?: string }) => {
      if (fault.name === 'NotFound' || fault.name === 'NoSuchKey') return undefined;
      throw fault;
    });
    return found && { length: found.ContentLength ?? 0, read: (range) => this.#read(object, range) };
  }

  async remove(content: FileContent, name?: string): Promise<void> {
    const keys = name === undefined ? await this.#keysOf(content) : [this.#objectOf(content, name).Key];
    for (const Key of keys) await this.#client.send(new this.#of.DeleteObjectCommand({ Bucket: this.#bucket, Key }));
  }

  close(): void {
    this.#client.destroy();
  }

  #read(object: { readonly Bucket: string; readonly Key: string }, range?: ByteRange): Readable {
    const given = new PassThrough();
    const leaving = new AbortController();
    given.once('close', () => leaving.abort());
    const asked = new this.#of.GetObjectCommand({
      ...object,
      ...(range && { Range: `bytes=${range.first}-${range.last}` }),
    });
    this.#client
      .send(asked, { abortSignal: leaving.signal })
      .then(({ Body }) => pipeline(Body as Readable, given))
      .catch((fault: Error) => given.destroy(fault));
    return given;
  }

  async #keysOf(content: FileContent): Promise<string[]> {
    const keys: string[] = [];
    const Prefix = `${content.slice(0, 2)}/${content}/`;
    for (let token: string | undefined; ;) {
      const listed = await this.#client.send(
        new this.#of.ListObjectsV2Command({ Bucket: this.#bucket, Prefix, ContinuationToken: token }),
      );
      for (const { Key } of listed.Contents ?? []) if (Key !== undefined) keys.push(Key);
      token = listed.NextContinuationToken;
      if (token === undefined) return keys;
    }
  }

  /** @throws where nothing can be kept under the name: a fault of the program */
  #objectOf(content: FileContent, name: string): { readonly Bucket: string; readonly Key: string } {
    checkStoredName(content, name);
    return { Bucket: this.#bucket, Key: `${content.slice(0, 2)}/${content}/${name}` };
  }
}
