import { type Express } from 'express';
import { siteKeySchema } from '#core/model/ids.ts';
import type { Database } from '../database/connect.ts';
import { ProblemError } from '../problem.ts';
import type { Attempts } from '../security/attempts.ts';
import { isOwnOrigin, isSecure } from '../security/own-origin.ts';
import { passphraseHash } from '../security/passphrase-repository.ts';
import { signPassphrases } from '../security/passphrase-token.ts';
import { isPassword } from '../security/passwords.ts';
import { type Askers, PASSPHRASE_COOKIE } from './asking.ts';
import { formBody } from './form-body.ts';
import type { LiveSites } from './live-sites.ts';
import { wayOn } from './visitor-pages.ts';

const REMEMBERED_MS = 30 * 24 * 3600 * 1000;

export interface PassphraseParts {
  readonly database: Database;
  readonly sites: LiveSites;
  readonly askers: Askers;
  readonly attempts: Attempts;
  readonly secret: string;
  readonly ownOrigin: string | null;
}

/**
 * Takes the passphrase of a branch from the form that stands in place of its pages, and remembers that it was given:
 * in a signed cookie, so that a passphrase that is changed has to be given anew.
 */
export function mountPassphrasePages(
  app: Express,
  { database, sites, askers, attempts, secret, ownOrigin }: PassphraseParts,
): void {
  app.post('/:site/~passphrase', ...formBody, async (request, response, next) => {
    const key = siteKeySchema.safeParse(request.params.site);
    if (!key.success) return next();
    if (!isOwnOrigin(request.headers, ownOrigin))
      return void response.status(403).type('text').end('Use the form on the site itself.\n');
    response.set('Cache-Control', 'no-store');
    const { passphrase = '', to } = (request.body ?? {}) as Record<string, unknown>;
    const address = wayOn(to);
    const asking = await askers.find(request);
    const wanted = await sites.passphraseAt(key.data, asking, address);
    const goOn = () => response.redirect(303, `/${key.data}${encodeURI(decodeURI(address))}`);
    if (wanted === null) return goOn();
    const words = String(passphrase).slice(0, 200).normalize('NFC').trim();
    try {
      await attempts.guard({ place: request.ip, account: `passphrase|${wanted}`, isShared: true }, async () => {
        if (!(await isPassword(await passphraseHash(database, key.data, wanted), words)))
          throw new ProblemError('sign-in-failed');
      });
    } catch (fault) {
      if (!(fault instanceof ProblemError)) throw fault;
      if (fault.code === 'too-many-attempts') return void response.status(429).type('text').end(`${fault.message}\n`);
      return (await sites.askAgain(key.data, asking, address))!.send(request, response);
    }
    response.cookie(PASSPHRASE_COOKIE, signPassphrases(secret, key.data, [...asking.passphrases, wanted]), {
      path: `/${key.data}`,
      httpOnly: true,
      secure: isSecure(ownOrigin),
      sameSite: 'lax',
      maxAge: REMEMBERED_MS,
    });
    goOn();
  });
}
