import { z } from 'zod';
import { siteKeySchema } from '#core/model/ids.ts';
import { siteName, siteSummary } from './api.ts';
import { type Route, okAnswer } from './route.ts';

/** A site that was deleted is kept for so many days. */
export const DAYS_KEPT = 30;

const moment = z.iso.datetime();

export const deletedSite = z.object({
  /** What it is kept by: no key of a site. */
  id: z.string(),
  /** The key that it had. */
  key: z.string(),
  name: z.string(),
  pages: z.number().int(),
  deletedAt: moment,
  deletedBy: z.string().nullable(),
  keptUntil: moment,
});
export type DeletedSite = z.infer<typeof deletedSite>;
const deletedSitesAnswer = z.object({ sites: z.array(deletedSite) });

/** Sites that are deleted, and brought back. */
export const DELETED_SITE_ROUTES = {
  deleteSite: {
    method: 'post',
    path: '/api/sites/:site/deletion',
    permission: 'installation',
    summary: `Delete a site whose name is given; it is kept for ${DAYS_KEPT} days`,
    body: z.strictObject({ name: z.string().max(300) }),
    answer: deletedSite,
  },
  listDeletedSites: {
    method: 'get',
    path: '/api/deleted-sites',
    permission: 'installation',
    summary: 'The deleted sites that are still kept, the latest first',
    answer: deletedSitesAnswer,
  },
  bringBackSite: {
    method: 'post',
    path: '/api/deleted-sites/:deleted/return',
    permission: 'installation',
    summary: 'Bring a deleted site back under a key, and a name',
    body: z.strictObject({ key: siteKeySchema, name: siteName }),
    answer: siteSummary,
  },
  eraseSite: {
    method: 'delete',
    path: '/api/deleted-sites/:deleted',
    permission: 'installation',
    summary: 'Delete a deleted site for good',
    answer: okAnswer,
  },
} as const satisfies Record<string, Route>;
