import type { SecurityEntry, SecurityEvent } from '#contract/people.ts';

/** What happened, after the name of who did it. */
const WORDS: Readonly<Record<SecurityEvent, (about: string) => string>> = {
  'signed-in': (browser) => `signed in${browser === '' ? '' : ` with ${browser}`}`,
  'sign-in-failed': () => 'failed to sign in',
  'password-changed': () => 'changed the password',
  'password-asked-for': () => 'asked for a new password',
  'second-step-set': () => 'set up one-time codes',
  'second-step-removed': () => 'left one-time codes',
  'passkey-added': (name) => `added the passkey ‘${name}’`,
  'passkey-removed': () => 'removed a passkey',
  'session-ended': () => 'ended a session',
  invited: (whom) => `invited ${whom}`,
  'invitation-taken-up': () => 'took up the invitation',
  'groups-changed': () => 'changed which groups of the directory give roles',
  'roles-changed': (whom) => `changed the roles of ${whom}`,
  'colleague-suspended': (whom) => `suspended ${whom}`,
  'colleague-back': (whom) => `let ${whom} back in`,
  'colleague-removed': (whom) => `removed ${whom}`,
  'role-made': (role) => `made the role ‘${role}’`,
  'role-changed': (role) => `changed the role ‘${role}’`,
  'role-removed': (role) => `removed the role ‘${role}’`,
  'site-exported': (what) => `exported ${what}`,
  'second-step-asked-for': () => 'asked all colleagues for a second step',
  'second-step-left': () => 'stopped asking colleagues for a second step',
};

/** A line of the log of security as a sentence. @param isOwn it is read by whoever did it */
export function securityWords({ event, by, about }: SecurityEntry, isOwn: boolean): string {
  const words = WORDS[event](about);
  return `${isOwn ? 'You' : (by ?? 'Somebody')} ${words}.`;
}
