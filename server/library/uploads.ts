import type { IncomingMessage } from 'node:http';
import { join } from 'node:path';
import { FileStore as Incoming } from '@tus/file-store';
import { Server, type ServerOptions, type Upload } from '@tus/server';
import type { Express, Request } from 'express';
import { type FileId, MAX_FILE_LENGTH, fileIdSchema } from '#core/files/file.ts';
import { nameOfFile } from '#core/files/file-name.ts';
import { isSoundText } from '#core/model/outside-json.ts';
import { ROUTES } from '#contract/routes.ts';
import { caller, permit } from '../admission.ts';
import type { People } from '../people/people.ts';
import { ProblemError, documentOf } from '../problem.ts';
import { siteOf } from '../route-parameters.ts';
import { isOwnOrigin } from '../security/own-origin.ts';
import type { Database } from '../database/connect.ts';
import { FileRights } from './file-rights.ts';
import type { SiteCache } from '../sites/site-cache.ts';
import type { LibraryService } from './library-service.ts';

/** What was begun and not ended is kept for so long, so that it can go on. */
const KEPT_MS = 24 * 3_600_000;
const CLEAR_EVERY_MS = 3_600_000;
const METHODS: ReadonlySet<string> = new Set(['POST', 'HEAD', 'PATCH', 'DELETE']);
const MAX_NAME_LENGTH = 500;

export interface UploadParts {
  readonly library: LibraryService;
  readonly people: People;
  readonly cache: SiteCache;
  readonly database: Database;
  /** Where uploads lie until they are whole: on the same disk for all processes. */
  readonly folder: string;
  /** The workbench's outside address; null where none was named. */
  readonly ownOrigin: string | null;
}

/**
 * Takes files by the tus protocol (1.0.0), in pieces that go on where they were interrupted. A file is acknowledged once it is in the
 * library: the last request is answered with it. Gives what ends it.
 */
export function mountUploads(app: Express, parts: UploadParts): () => void {
  const { library, people, cache, folder, ownOrigin } = parts;
  const rights = new FileRights(parts);
  const datastore = new Incoming({ directory: join(folder, '.incoming'), expirationPeriodInMilliseconds: KEPT_MS });
  const tus = new Server({
    datastore,
    // Where uploads are depends on the site.
    path: '/api',
    maxSize: MAX_FILE_LENGTH,
    generateUrl: (request, { id }) => `${asExpress(request).path.replace(/\/$/, '')}/${id}`,
    getFileIdFromRequest: (request) => asExpress(request).params.upload as string | undefined,
    onUploadCreate: (request, upload) =>
      asProblem(async () => {
        const metadata = await metadataOf(asExpress(request), upload);
        if (metadata?.replaces)
          await rights.requireChange(
            siteOf(asExpress(request)),
            metadata.replaces as FileId,
            caller(asExpress(request).session.account),
          );
        return { metadata };
      }),
    onUploadFinish: (_, upload) =>
      asProblem(async () => {
        const { site, name, replaces, account } = upload.metadata!;
        try {
          const taken = await library.take({
            site: site as never,
            path: upload.storage!.path,
            name: name ?? '',
            replaces: replaces ? (replaces as never) : null,
            account: account ?? null,
          });
          return {
            status_code: 200,
            headers: { 'Content-Type': 'application/json; charset=utf-8' },
            body: JSON.stringify(taken),
          };
        } finally {
          await datastore.remove(upload.id).catch(() => undefined);
        }
      }),
  });

  app.all('/api/sites/:site/uploads{/:upload}', async (request, response) => {
    const { method, headers, params } = request;
    if (!METHODS.has(method)) throw new ProblemError('route-unknown', { method, path: request.path });
    const account = caller(request.session.account);
    await permit(ROUTES.setFile, people, account, params);
    if (!isOwnOrigin(headers, ownOrigin))
      throw new ProblemError('wrong-origin', { origin: headers.origin ?? 'nothing' });
    const key = siteOf(request);
    await cache.current(key);
    if ((params.upload === undefined) !== (method === 'POST'))
      throw new ProblemError('route-unknown', { method, path: request.path });
    if (params.upload !== undefined) {
      const upload = await uploadAt(datastore, params.upload);
      if (upload?.metadata?.account !== account.id || upload.metadata.site !== key)
        throw new ProblemError('upload-unknown');
    }
    await tus.handle(request, response);
  });
  const clearing = setInterval(() => void tus.cleanUpExpiredUploads().catch(() => undefined), CLEAR_EVERY_MS).unref();
  return () => clearInterval(clearing);
}

/** An upload that was begun; undefined where there is none of that id. */
const uploadAt = (datastore: Incoming, id: string): Promise<Upload | undefined> =>
  /^[0-9a-f]{32}$/.test(id) ? datastore.getUpload(id).catch(() => undefined) : Promise.resolve(undefined);

/** What is kept of an upload with it: whose it is, and what it is to be. @throws ProblemError */
async function metadataOf(request: Request, { metadata }: Upload): Promise<Upload['metadata']> {
  const { name = '', replaces = '' } = metadata ?? {};
  const given = name ?? '';
  if (given.length > MAX_NAME_LENGTH || !isSoundText(given))
    throw new ProblemError('file-broken', {
      name: nameOfFile(given.slice(0, MAX_NAME_LENGTH).replace(/\p{Surrogate}/gu, ''), 'File').name,
      reason: `a name has at most ${MAX_NAME_LENGTH} characters`,
    });
  if (replaces && !fileIdSchema.safeParse(replaces).success)
    throw new ProblemError('file-unknown', { file: String(replaces).slice(0, 60) });
  return {
    name: given,
    replaces: replaces ?? '',
    site: siteOf(request),
    account: caller(request.session.account).id,
  };
}

type TusRequest = Parameters<NonNullable<ServerOptions['onUploadCreate']>>[0];

/** The request as Express has it: the protocol's server is given another form of the same. */
const asExpress = (request: TusRequest): Request => request.runtime!.node!.req as IncomingMessage as Request;

/** Work of which problems are told as the protocol's server tells faults. */
async function asProblem<Result>(work: () => Promise<Result>): Promise<Result> {
  try {
    return await work();
  } catch (fault) {
    if (!(fault instanceof ProblemError)) throw fault;
    const problem = documentOf(fault);
    throw { status_code: problem.status, body: JSON.stringify(problem) };
  }
}
