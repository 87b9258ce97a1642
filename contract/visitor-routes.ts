import { type Route, okAnswer } from './route.ts';
import {
  bringVisitorsAnswer,
  bringVisitorsBody,
  engineAnswer,
  joiningLinkAnswer,
  joiningLinkBody,
  joiningLinksAnswer,
  makeVisitorBody,
  setVisitorBody,
  visitorAnswer,
  visitorsAnswer,
} from './visitors.ts';
import { walkAnswer, walkBody } from './walks.ts';

/** The routes about a site's visitors: their accounts, how they join, and walks in their place. */
export const VISITOR_ROUTES = {
  startWalk: {
    method: 'post',
    path: '/api/sites/:site/walks',
    permission: 'site.read',
    summary: 'Start a walk: the site as an audience or a person has it, draft or live, at a moment',
    body: walkBody,
    answer: walkAnswer,
  },
  listVisitors: {
    method: 'get',
    path: '/api/sites/:site/visitors',
    permission: 'site.edit',
    summary: 'The accounts of the site’s visitors, by name',
    answer: visitorsAnswer,
  },
  makeVisitor: {
    method: 'post',
    path: '/api/sites/:site/visitors',
    permission: 'site.edit',
    summary: 'Make the account of a visitor',
    body: makeVisitorBody,
    answer: visitorAnswer,
  },
  setVisitor: {
    method: 'put',
    path: '/api/sites/:site/visitors/:visitor',
    permission: 'site.edit',
    summary: 'Rename a visitor, put them into audiences, suspend them or let them in again; it holds at once',
    body: setVisitorBody,
    answer: okAnswer,
  },
  bringVisitors: {
    method: 'post',
    path: '/api/sites/:site/visitors/imports',
    permission: 'site.edit',
    summary: 'Say what a list of visitors as CSV would change, or make its accounts; all of them or none',
    body: bringVisitorsBody,
    answer: bringVisitorsAnswer,
    largest: 2_000_000,
  },
  listJoiningLinks: {
    method: 'get',
    path: '/api/sites/:site/joining-links',
    permission: 'site.edit',
    summary: 'The links by which visitors join an audience, the newest first',
    answer: joiningLinksAnswer,
  },
  makeJoiningLink: {
    method: 'post',
    path: '/api/sites/:site/joining-links',
    permission: 'site.edit',
    summary: 'Make a link by which visitors join an audience',
    body: joiningLinkBody,
    answer: joiningLinkAnswer,
  },
  removeJoiningLink: {
    method: 'delete',
    path: '/api/sites/:site/joining-links/:link',
    permission: 'site.edit',
    summary: 'Withdraw a joining link, with the letters that were sent by it; who has joined stays',
    answer: okAnswer,
  },
  removeVisitor: {
    method: 'delete',
    path: '/api/sites/:site/visitors/:visitor',
    permission: 'site.edit',
    summary: 'Remove the account of a visitor',
    answer: okAnswer,
  },
  lookAsEngine: {
    method: 'post',
    path: '/api/sites/:site/engine-looks',
    permission: 'site.read',
    summary: 'Read the live site as a search engine’s robot does, and say what it would index next to what is intended',
    answer: engineAnswer,
  },
} as const satisfies Record<string, Route>;
