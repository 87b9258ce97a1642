import { siteSummary } from './api.ts';
import type { Route } from './route.ts';

/** Whole sites with their history. */
export const ARCHIVE_ROUTES = {
  takeArchive: {
    method: 'get',
    path: '/api/sites/:site/archive',
    permission: 'everything',
    exports: 'the site as an archive',
    summary:
      'Take the whole site along with all that became of it, as JSON; with `?files=yes` as a ZIP file with the files of its library',
    sends: 'application/json',
  },
  restoreArchive: {
    method: 'post',
    path: '/api/archives/:site',
    permission: 'installation',
    summary:
      'Make a site of such a file, with its history, under this key; `?name=` is what the file is called, `?called=` another name for the site. It may be packed by gzip, or be a ZIP file with the library',
    takes: 'application/octet-stream',
    answer: siteSummary,
  },
} as const satisfies Record<string, Route>;
