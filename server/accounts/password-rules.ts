import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import * as common from '@zxcvbn-ts/language-common';
import { ProblemError } from '../problem.ts';

/** A password that takes fewer guesses than this is among the first that anybody tries. */
const MIN_GUESSES = 1e7;
/** Longer ones are not looked at further on. */
const LOOKED_AT = 60;

const zxcvbn = new ZxcvbnFactory({ dictionary: { ...common.dictionary }, graphs: common.adjacencyGraphs });

/**
 * Makes sure that a new password is not among those that are tried first: OWASP ASVS 5, 6.2.4 and 6.2.11. Its length is checked with the body.
 * @param about what belongs to the person, such as their name: a password must not be made of it
 * @throws ProblemError `password-known`
 */
export function requireGoodPassword(password: string, about: readonly string[]): void {
  const words = about.flatMap((one) => [one, ...one.split(/[^\p{L}\p{N}]+/u)]).filter((word) => word.length > 2);
  const { guesses } = zxcvbn.check(password.slice(0, LOOKED_AT), ['spur', 'spurspur', ...words]);
  if (guesses < MIN_GUESSES) throw new ProblemError('password-known');
}
