import type { Knex } from 'knex';
import { type ContentId, type PageId, toSiteKey } from '#core/model/ids.ts';
import type { TextDocument } from '#core/model/content.ts';
import type { Account } from '#contract/api.ts';
import { countAccounts } from '#server/accounts/account-repository.ts';
import { makeAccount } from '#server/accounts/account-service.ts';
import { acceptContent } from '#server/contents/content-service.ts';
import type { EditService } from '#server/edits/edit-service.ts';
import { insertSite } from '#server/sites/site-repository.ts';
import { DemoBuilder, buildLiveSite } from './build-demo.ts';
import { PELLOW_QUAY, PELLOW_QUAY_DRAFTS } from './pellow-quay.ts';
import { TERN_SOUND } from './tern-sound.ts';

const PASSWORD = 'slipway-42';

/** Makes the demo accounts and sites, where there is no account yet. */
export async function loadDemo(database: Knex, edits: EditService): Promise<void> {
  if ((await countAccounts(database)) > 0) return;
  const [ines, marek] = await Promise.all([
    makeAccount(
      database,
      { name: 'Ines Carrow', email: 'ines@pellow-quay.example', password: PASSWORD, role: 'manager' },
      true,
    ),
    makeAccount(
      database,
      { name: 'Marek Holt', email: 'marek@pellow-quay.example', password: PASSWORD, role: 'manager' },
      true,
    ),
    makeAccount(
      database,
      { name: 'Oona Trask', email: 'oona@pellow-quay.example', password: PASSWORD, role: 'reader' },
      true,
    ),
  ]);
  const school = new DemoBuilder('pq');
  const schoolSite = buildLiveSite('pellow-quay', 'Pellow Quay School of Boatbuilding', school, PELLOW_QUAY);
  await insertSite(database, schoolSite, ines.id, stored(school.documents));
  await editSchool(edits, school, ines, marek);

  const ferries = new DemoBuilder('ts');
  const ferrySite = buildLiveSite('tern-sound', 'Tern Sound Ferry Office', ferries, TERN_SOUND);
  await insertSite(database, ferrySite, marek.id, stored(ferries.documents));
}

/** What has been changed since the school's site went live: drafts, edits, a move, a removal, a page taken down. */
async function editSchool(edits: EditService, school: DemoBuilder, ines: Account, marek: Account): Promise<void> {
  const key = toSiteKey('pellow-quay');
  const id = (title: string): PageId => school.idOf(title);
  const before = new Set(school.documents.keys());
  const newContents = () =>
    [...school.documents]
      .filter(([content]) => !before.has(content))
      .map(([content, document]) => ({ id: content, document }));
  await edits.release(key, ines, { pages: [], retire: [id('Boats for sale')] });
  for (const draft of PELLOW_QUAY_DRAFTS) {
    await edits.apply(key, ines, { operations: school.add(draft.nodes, id(draft.into)), contents: newContents() });
  }
  await edits.apply(key, marek, {
    operations: [
      { name: 'page.set', page: id('Steam bending'), fields: { title: { en: 'Steam bending and laminating' } } },
    ],
  });
  await edits.apply(key, marek, {
    operations: [
      { name: 'page.move', page: id('Sharpening day'), place: { parent: id('Evening classes'), after: null } },
    ],
  });
  const content = school.contentOf([
    'The school stands at the end of Cooper’s Hard, where the road becomes shingle. From May the ferry stops at our own quay, four times a day.',
    'Come by boat if the weather is kind, by the number 12 bus if it is not.',
  ]);
  await edits.apply(key, ines, {
    operations: [{ name: 'page.set', page: id('Visit'), fields: { content } }],
    contents: newContents(),
  });
  await edits.apply(key, ines, {
    operations: [
      { name: 'page.set', page: id('Student council'), fields: { hidden: 'page' } },
      { name: 'page.set', page: id('Shop'), fields: { label: { en: 'School shop' } } },
    ],
  });
  await edits.apply(key, marek, { operations: [{ name: 'page.remove', page: id('Plain Jane') }] });
}

const stored = (documents: ReadonlyMap<ContentId, TextDocument>) =>
  [...documents].map(([content, document]) => acceptContent({ id: content, document }));
