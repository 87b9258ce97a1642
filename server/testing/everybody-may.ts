import { FULL_POWERS } from '#core/people/powers.ts';
import type { People } from '../people/people.ts';

/** For tests that are not about who may do what. */
export const EVERYBODY_MAY: Pick<People, 'powersOf'> = { powersOf: () => FULL_POWERS };
