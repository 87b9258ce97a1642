import {
  approvalAnswer,
  approvalRuleSchema,
  changedSinceAnswer,
  decideBody,
  proposeBody,
  removeRuleBody,
} from './approval.ts';
import type { Route } from './route.ts';

/** Routes about agreeing before pages go live. */
export const APPROVAL_ROUTES = {
  showApproval: {
    method: 'get',
    path: '/api/sites/:site/approval',
    permission: 'read',
    where: 'somewhere',
    summary: 'Which branches need approval, and what is proposed',
    answer: approvalAnswer,
  },
  setApprovalRule: {
    method: 'put',
    path: '/api/sites/:site/approval/rules',
    permission: 'everything',
    summary: 'Ask for approval before a branch goes live, or change who decides',
    body: approvalRuleSchema,
    answer: approvalAnswer,
  },
  removeApprovalRule: {
    method: 'post',
    path: '/api/sites/:site/approval/rules/removed',
    permission: 'everything',
    summary: 'Ask for no approval of a branch any more, but what holds above it',
    body: removeRuleBody,
    answer: approvalAnswer,
  },
  propose: {
    method: 'post',
    path: '/api/sites/:site/proposals',
    permission: 'write',
    where: 'somewhere',
    summary: 'Offer pages for approval; those who decide are told',
    body: proposeBody,
    answer: approvalAnswer,
  },
  decide: {
    method: 'post',
    path: '/api/sites/:site/proposals/:proposal/decisions',
    permission: 'read',
    where: 'somewhere',
    summary: 'Approve the pages of a proposal as they are now, or return it with reasons',
    body: decideBody,
    answer: approvalAnswer,
  },
  withdrawProposal: {
    method: 'delete',
    path: '/api/sites/:site/proposals/:proposal',
    permission: 'read',
    where: 'somewhere',
    summary: 'Withdraw a proposal of your own',
    answer: approvalAnswer,
  },
  showChangedSince: {
    method: 'get',
    path: '/api/sites/:site/proposals/:proposal/changes',
    permission: 'read',
    where: 'somewhere',
    summary: 'What was changed on the pages of a proposal since they were approved',
    answer: changedSinceAnswer,
  },
} as const satisfies Record<string, Route>;
