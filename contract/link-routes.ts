import { linkLookAnswer, textLinksAnswer } from './links.ts';
import type { Route } from './route.ts';

/** Where links lead. */
export const LINK_ROUTES = {
  listTextLinks: {
    method: 'get',
    path: '/api/sites/:site/text-links',
    permission: 'read',
    where: 'somewhere',
    summary: 'The links within texts: to pages of the site, drafted and live, and of the draft to outside addresses',
    answer: textLinksAnswer,
  },
  showLinkLook: {
    method: 'get',
    path: '/api/sites/:site/link-look',
    permission: 'read',
    where: 'somewhere',
    summary: 'What the outside addresses answered that pages link to; or how far asking them is',
    answer: linkLookAnswer,
  },
  askOutsideLinks: {
    method: 'post',
    path: '/api/sites/:site/link-look',
    permission: 'write',
    where: 'somewhere',
    summary: 'Ask the outside addresses that pages link to whether they are there, in the background',
    answer: linkLookAnswer,
  },
  stopLinkLook: {
    method: 'delete',
    path: '/api/sites/:site/link-look',
    permission: 'write',
    where: 'somewhere',
    summary: 'Stop the check; earlier results stay',
    answer: linkLookAnswer,
  },
} as const satisfies Record<string, Route>;
