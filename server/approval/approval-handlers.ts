import type { Request } from 'express';
import type { Services } from '../handlers.ts';
import { siteOf, uuidOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';

type Names =
  | 'showApproval'
  | 'setApprovalRule'
  | 'removeApprovalRule'
  | 'propose'
  | 'decide'
  | 'withdrawProposal'
  | 'showChangedSince';

const proposalIn = ({ params }: Pick<Request, 'params'>): string => uuidOf(params.proposal, 'proposal-unknown');

/** Agreeing before pages go live. */
export function makeApprovalHandlers({ approval }: Pick<Services, 'approval'>): Pick<Handlers, Names> {
  return {
    showApproval: ({ request, account }) => approval.show(siteOf(request), account),
    setApprovalRule: async ({ request, body, account }) => {
      await approval.setRule(siteOf(request), body);
      return approval.show(siteOf(request), account);
    },
    removeApprovalRule: async ({ request, body, account }) => {
      await approval.removeRule(siteOf(request), body.page);
      return approval.show(siteOf(request), account);
    },
    propose: async ({ request, body, account }) => {
      await approval.propose(siteOf(request), account, body);
      return approval.show(siteOf(request), account);
    },
    decide: async ({ request, body, account }) => {
      await approval.decide(siteOf(request), account, proposalIn(request), body);
      return approval.show(siteOf(request), account);
    },
    withdrawProposal: async ({ request, account }) => {
      await approval.withdraw(siteOf(request), account, proposalIn(request));
      return approval.show(siteOf(request), account);
    },
    showChangedSince: ({ request, account }) => approval.changedSince(siteOf(request), account, proposalIn(request)),
  };
}
