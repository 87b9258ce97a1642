import { ACCEPT_FROM } from '#core/carryover/reasons.ts';
import type { Services } from '../handlers.ts';
import { siteOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';

/** The proposals of the carry-over. */
export const makeCarryOverHandlers = ({ carryOver }: Pick<Services, 'carryOver'>): Pick<Handlers, 'showCarryOver'> => ({
  showCarryOver: async ({ request }) => ({ ...(await carryOver.propose(siteOf(request))), acceptFrom: ACCEPT_FROM }),
});
