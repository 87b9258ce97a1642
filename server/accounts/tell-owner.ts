import type { Request } from 'express';
import type { Account } from '#contract/api.ts';
import type { SecurityEvent } from '#contract/people.ts';
import type { Services } from '../handlers.ts';
import { noteSecurity } from '../security/security-log-repository.ts';
import { placeOf } from './start-session.ts';

/** What changes how somebody signs in, after "Somebody, probably you, has". */
const CHANGES = {
  'password-changed': 'changed the password of your account',
  'second-step-set': 'set up one-time codes for your account',
  'second-step-removed': 'stopped your account from asking for one-time codes',
  'passkey-added': 'added a passkey to your account',
  'passkey-removed': 'removed a passkey from your account',
} as const satisfies Partial<Record<SecurityEvent, string>>;

/**
 * Writes down what changes how somebody signs in, and tells them by mail, so that they hear of it where it was not them: OWASP ASVS 5,
 * 6.3.7.
 */
export async function tellOwner(
  { database, mailer, origin, now }: Pick<Services, 'database' | 'mailer' | 'origin' | 'now'>,
  request: Request,
  account: Pick<Account, 'id' | 'name' | 'email'>,
  event: keyof typeof CHANGES,
  about = '',
): Promise<void> {
  const at = now();
  await database.transaction(async (trx) => {
    await noteSecurity(trx, { at, event, account, about, place: placeOf(request) });
    await mailer.send(
      trx,
      [
        {
          to: account.email,
          subject: 'How you sign in to Spur has changed',
          text: [
            `Dear ${account.name},`,
            `Somebody, probably you, has ${CHANGES[event]}.`,
            `If it was not you, choose a new password at once: ${origin}/password`,
          ].join('\n\n'),
        },
      ],
      at,
    );
  });
}
