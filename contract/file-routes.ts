import { libraryAnswer, libraryFile, setFileBody } from './files.ts';
import { type Route, okAnswer } from './route.ts';

/** The routes about the files of a site. They come by the tus protocol, at `/api/sites/:site/uploads`. */
export const FILE_ROUTES = {
  listFiles: {
    method: 'get',
    path: '/api/sites/:site/files',
    permission: 'read',
    where: 'somewhere',
    summary: 'The files of the library, the newest first, each with the pages that show it',
    answer: libraryAnswer,
  },
  showFileBytes: {
    method: 'get',
    path: '/api/sites/:site/files/:file/bytes',
    permission: 'read',
    where: 'somewhere',
    summary: 'The bytes of a file, or of the size of a picture that is wide enough for `width` pixels',
    sends: 'application/octet-stream',
  },
  setFile: {
    method: 'put',
    path: '/api/sites/:site/files/:file',
    permission: 'write',
    where: 'somewhere',
    summary: 'Rename a file, say what a picture shows, and what stays in sight where it is cut; it holds at once',
    body: setFileBody,
    answer: libraryFile,
  },
  removeFile: {
    method: 'delete',
    path: '/api/sites/:site/files/:file',
    permission: 'write',
    summary: 'Take a file out of the library: pages that show it show nothing there; it can be put back',
    answer: okAnswer,
  },
  putBackFile: {
    method: 'post',
    path: '/api/sites/:site/files/:file/put-back',
    permission: 'write',
    where: 'somewhere',
    summary: 'Put a file back that was taken out of the library',
    answer: libraryFile,
  },
} as const satisfies Record<string, Route>;
