import { randomUUID } from 'node:crypto';
import type { PassphraseId } from '#core/model/access.ts';
import type { Services } from '../handlers.ts';
import { siteOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';
import { insertPassphrase } from '../security/passphrase-repository.ts';
import { hashOfPassword } from '../security/passwords.ts';

/** Passphrases of branches: the words come in and are kept as a hash, and a rule names them by an id. */
export function makePassphraseHandlers({
  database,
  cache,
}: Pick<Services, 'database' | 'cache'>): Pick<Handlers, 'makePassphrase'> {
  return {
    makePassphrase: async ({ request, body }) => {
      const { site } = await cache.current(siteOf(request));
      const id = randomUUID().replaceAll('-', '') as PassphraseId;
      await insertPassphrase(database, site.key, id, await hashOfPassword(body.words));
      return { id };
    },
  };
}
