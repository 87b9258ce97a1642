import type { PlainAccount } from '#server/accounts/account-repository.ts';
import { randomUUID } from 'node:crypto';
import { writeFile } from 'node:fs/promises';
import { addDays } from 'date-fns';
import type { Knex } from 'knex';
import { unreadPage } from '#core/carryover/inventory.ts';
import { FIRST_LOOK } from '#core/model/look.ts';
import { redirectIdSchema } from '#core/model/redirect.ts';
import { type ContentId, type PageId, type SiteKey, toPageId, toSiteKey } from '#core/model/ids.ts';
import { type TextDocument, pageLink } from '#core/model/content.ts';
import { type Site, branchOf, nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import type { Operation } from '#core/operations/operation.ts';
import type { OperationsBody } from '#contract/api.ts';
import { insertAnswer, setAnswer as setKeptAnswer } from '#server/answers/answer-repository.ts';
import { countAccounts, insertAccount } from '#server/accounts/account-repository.ts';
import { putColleague, putRole, setSuspended } from '#server/people/people-repository.ts';
import { noteSecurity } from '#server/security/security-log-repository.ts';
import { makeAccount } from '#server/accounts/account-service.ts';
import { acceptContent } from '#server/contents/content-service.ts';
import { countOldSiteChange, putOldPages } from '#server/old-site/old-site-repository.ts';
import { readHtml } from '#server/old-site/read-page.ts';
import { withFile } from '#server/files/with-file.ts';
import type { LibraryService } from '#server/library/library-service.ts';
import type { EditService } from '#server/edits/edit-service.ts';
import { addMisses } from '#server/live/visit-repository.ts';
import type { ReleaseService } from '#server/releases/release-service.ts';
import { insertPassphrase } from '#server/security/passphrase-repository.ts';
import { putStandInGroups, putStandInPerson } from '#server/standins/directory-repository.ts';
import { putColleagueDirectory } from '#server/directory/colleague-directory-repository.ts';
import { putSiteDirectory } from '#server/directory/directory-repository.ts';
import { hashOfPassword } from '#server/security/passwords.ts';
import { insertVisitor } from '#server/visitors/visitor-repository.ts';
import { insertComment, insertGuest, putChoice, putVerdict, setAnswer } from '#server/sharing/feedback-repository.ts';
import { insertShare, newToken } from '#server/sharing/share-repository.ts';
import { insertSite, loadSite } from '#server/sites/site-repository.ts';
import { DemoBuilder, buildLiveSite } from './build-demo.ts';
import { demoFileId, demoFiles } from './demo-files.ts';
import { FORMER_SITE, formerHtml, formerVisits } from './old-site.ts';
import { keptSaid, pellowAnswers, pellowForms, sentAt } from './pellow-forms.ts';
import { OPEN_DAYS, pellowShared } from './pellow-sections.ts';
import { PELLOW_QUAY, PELLOW_QUAY_DRAFTS } from './pellow-quay.ts';
import { pellowCarryOver } from './pellow-carry-over.ts';
import { PELLOW_GROUPS, PELLOW_GROUP_AUDIENCES, PELLOW_GROUP_ROLES, PELLOW_PEOPLE } from './pellow-directory.ts';
import { PELLOW_PASSPHRASE, PELLOW_VISITORS, pellowAccess } from './pellow-access.ts';
import { pellowMenus } from './pellow-menus.ts';
import { PELLOW_COLLEAGUES, PELLOW_ROLE } from './pellow-colleagues.ts';
import { PELLOW_APPROVAL, PELLOW_FOLLOWS, PELLOW_TALK } from './pellow-talk.ts';
import type { Account } from '#contract/api.ts';
import { talkersOf } from '#server/talk/concern-repository.ts';
import { clearedPractice } from '#core/practice/practice-pages.ts';
import { roleIdSchema } from '#core/people/role.ts';
import type { ApprovalService } from '#server/approval/approval-service.ts';
import type { TalkService } from '#server/talk/talk-service.ts';
import { PELLOW_GUESTS, PELLOW_SHARE } from './pellow-feedback.ts';
import { pellowPlan } from './pellow-plan.ts';
import { pellowBoards } from './pellow-boards.ts';
import { pellowSketches } from './pellow-sketches.ts';
import { TERN_SOUND, TERN_SOUND_LOOK } from './tern-sound.ts';

const PASSWORD = 'slipway-42';

/** Makes the demo accounts and sites, where there is no account yet. */
export async function loadDemo(
  database: Knex,
  {
    edits,
    releases,
    library,
    talk,
    approval,
  }: {
    readonly edits: EditService;
    readonly releases: ReleaseService;
    readonly library: LibraryService;
    readonly talk: TalkService;
    readonly approval: ApprovalService;
  },
  formerOrigin: string,
  now = new Date(),
): Promise<void> {
  if ((await countAccounts(database)) > 0) return;
  const [ines, marek] = await Promise.all([
    makeAccount(
      database,
      { name: 'Ines Carrow', email: 'ines@pellow-quay.example', password: PASSWORD, looksAfterAll: true },
      true,
    ),
    makeAccount(
      database,
      { name: 'Marek Holt', email: 'marek@pellow-quay.example', password: PASSWORD, looksAfterAll: true },
      true,
    ),
  ]);
  const school = new DemoBuilder('pq');
  const contentOf = (blocks: readonly string[]) => school.contentOf(blocks);
  const schoolSite = buildLiveSite(
    'pellow-quay',
    'Pellow Quay School of Boatbuilding',
    school,
    PELLOW_QUAY,
    (idOf, site) => [
      {
        name: 'site.set',
        fields: { look: { ...FIRST_LOOK, logo: demoFileId('logo'), logoOnDark: demoFileId('pale') } },
      },
      ...pellowShared(contentOf),
      ...pellowAccess(idOf, now, contentOf),
      ...pellowForms(idOf),
      { name: 'practice.set', page: idOf('Practice page') },
      ...practiceIn(school, idOf('Practice page')),
      ...pellowMenus(idOf, site),
    ],
  );
  await insertSite(database, schoolSite, ines.id, stored(school.documents));
  await fillLibrary(library, schoolSite.key, ines.id);
  await putStandInGroups(database, PELLOW_GROUPS);
  for (const person of PELLOW_PEOPLE) await putStandInPerson(database, person);
  await putSiteDirectory(database, schoolSite.key, { groupAudiences: PELLOW_GROUP_AUDIENCES, isNightly: false });
  await putColleagueDirectory(database, schoolSite.key, {
    groupRoles: PELLOW_GROUP_ROLES.map(({ group, role, in: title }) => ({
      group,
      role,
      page: title === null ? null : school.idOf(title),
    })),
    isNightly: false,
  });
  await insertPassphrase(database, schoolSite.key, PELLOW_PASSPHRASE.id, await hashOfPassword(PELLOW_PASSPHRASE.words));
  await makeVisitors(database, schoolSite.key, now);
  await editSchool(edits, releases, school, ines, marek);
  await bringFormerSite(database, schoolSite.key, formerOrigin);
  const apply = async (operationsFor: (site: Site) => Operation[]) => {
    const { site } = (await loadSite(database, schoolSite.key))!;
    await edits.apply(schoolSite.key, ines, { operations: operationsFor(site) as OperationsBody['operations'] });
  };
  await apply((site) => pellowPlan(site, now));
  await apply((site) => pellowCarryOver(site, formerOrigin));
  const sketches = pellowSketches((title) => school.idOf(title));
  await edits.apply(schoolSite.key, ines, {
    operations: [...sketches.operations, ...pellowBoards()] as OperationsBody['operations'],
    contents: sketches.contents,
  });
  await shareSchool(database, schoolSite.key, ines, now);
  await makeColleagues(database, schoolSite.key, (title) => school.idOf(title), ines.id, now);
  await sayOnPages(database, { talk, approval }, schoolSite.key, (title) => school.idOf(title));
  await missAddresses(database, schoolSite.key, now);
  await sendAnswers(database, schoolSite, school, now);

  const ferries = new DemoBuilder('ts');
  const ferrySite = buildLiveSite('tern-sound', 'Tern Sound Ferry Office', ferries, TERN_SOUND, () => [
    { name: 'site.set', fields: { look: TERN_SOUND_LOOK } },
  ]);
  await insertSite(database, ferrySite, marek.id, stored(ferries.documents));
}

/** The exercises of the practice page. */
const practiceIn = (builder: DemoBuilder, page: PageId): readonly Operation[] => {
  let next = 0;
  const { operations, contents } = clearedPractice('en', page, [], () => toPageId(`practice${(next += 1)}`));
  for (const { id, document } of contents) builder.documents.set(id, document);
  return operations;
};

/** Puts the files that the pages show into the library, ready to be seen. */
async function fillLibrary(library: LibraryService, site: SiteKey, account: string): Promise<void> {
  for (const { id, name, sentAs, alternative, bytes } of await demoFiles())
    await withFile('demo', async (path) => {
      await writeFile(path, bytes);
      await library.bring({ site, path, name: sentAs, replaces: null, account }, { id, name, alternative });
    });
}

/** What a crawl of the former website finds, with the visits of a year, so that the carry-over has something to begin with. */
async function bringFormerSite(database: Knex, site: SiteKey, origin: string): Promise<void> {
  const pages = FORMER_SITE.map((page, index) => {
    const address = origin + page.path;
    const { page: read, links } = readHtml(formerHtml(page), address);
    return {
      ...unreadPage(address),
      ...read,
      status: 200,
      linksOut: links.length,
      linksIn: FORMER_SITE.filter((one) => one.links.includes(page.path)).length,
      visits: formerVisits(index),
    };
  });
  await putOldPages(database, site, pages);
  await countOldSiteChange(database, site);
}

async function makeVisitors(database: Knex, site: SiteKey, now: Date): Promise<void> {
  const password_hash = await hashOfPassword(PASSWORD);
  for (const { name, email, audiences } of PELLOW_VISITORS)
    await insertVisitor(database, {
      id: randomUUID(),
      site,
      name,
      email,
      password_hash,
      audiences: [...audiences],
      is_suspended: false,
      made_at: now,
    });
}

/** What visitors have sent by the forms of the school. */
async function sendAnswers(database: Knex, { key, settings }: Site, school: DemoBuilder, now: Date): Promise<void> {
  const idOf = (title: string): PageId => school.idOf(title);
  const policy = { page: idOf('Privacy'), title: 'Privacy', content: null, release: 1 };
  for (const answer of pellowAnswers(idOf)) {
    const form = settings.forms.find(({ id }) => id === answer.form)!;
    const pageTitle = answer.form === 'tour' ? 'Guided tours' : 'How to apply';
    const id = await insertAnswer(database, {
      site: key,
      form: form.id,
      formName: form.name,
      stamp: randomUUID(),
      sentAt: sentAt(now, answer),
      page: idOf(pageTitle),
      pageTitle,
      visitor: null,
      said: keptSaid(form.fields, answer, policy),
      keptDays: form.keptDays,
    });
    await setKeptAnswer(database, key, id!, { state: answer.state, note: answer.note });
  }
}

/** Who works on the school's site besides those who look after the installation, each with a role where they work. */
async function makeColleagues(
  database: Knex,
  site: SiteKey,
  idOf: (title: string) => PageId,
  invitedBy: string,
  now: Date,
): Promise<void> {
  await putRole(database, site, PELLOW_ROLE);
  for (const { name, email, roles, isInvited = false, isSuspended = false } of PELLOW_COLLEAGUES) {
    const rolesAt = roles.map(({ role, in: title }) => ({ page: title === null ? null : idOf(title), role }));
    const account = isInvited
      ? { id: randomUUID(), name, email, looksAfterAll: false, passwordHash: null }
      : await makeAccount(database, { name, email, password: PASSWORD, looksAfterAll: false }, true);
    if ('passwordHash' in account) await insertAccount(database, account, true);
    await putColleague(database, site, account.id, rolesAt, invitedBy);
    await setSuspended(database, site, account.id, isSuspended);
    await noteSecurity(database, {
      at: now,
      event: 'invited',
      site,
      account: { id: invitedBy, name: 'Ines Carrow' },
      about: `${name} (${email})`,
    });
  }
}

/** What colleagues say of pages, what they follow, and what they wait for. */
async function sayOnPages(
  database: Knex,
  { talk, approval }: { readonly talk: TalkService; readonly approval: ApprovalService },
  site: SiteKey,
  idOf: (title: string) => PageId,
): Promise<void> {
  const accounts = new Map<string, Account>(
    (await talkersOf(database, site)).map((one) => [one.name, { ...one, hasSecondStep: false }]),
  );
  for (const { page: title, about, comments, isSettled = false } of PELLOW_TALK) {
    const [page, thread] = [idOf(title), randomUUID()];
    for (const [at, [name, text]] of comments.entries()) {
      const account = accounts.get(name)!;
      if (at === 0) await talk.start(site, account, page, { id: thread, about, text });
      else await talk.answer(site, account, thread, { id: randomUUID(), text });
    }
    if (isSettled) await talk.settle(site, accounts.get(comments.at(-1)![0])!, thread, true);
  }
  const { branch, role, count, proposal } = PELLOW_APPROVAL;
  await approval.setRule(site, { page: idOf(branch), by: { role: roleIdSchema.parse(role) }, count });
  const proposed = { id: randomUUID(), pages: proposal.pages.map(idOf), note: proposal.note };
  await approval.propose(site, accounts.get(proposal.by)!, proposed);
  for (const [name, title] of PELLOW_FOLLOWS) await talk.follow(site, accounts.get(name)!, idOf(title), true);
}

/** A link for the governors, with what some of them have said by it. */
async function shareSchool(database: Knex, key: SiteKey, { id, name }: PlainAccount, now: Date): Promise<void> {
  const { site } = (await loadSite(database, key))!;
  const pages = new Map(branchOf(site, null).map((page) => [textIn(nodeAt(site, page).title, 'en'), page]));
  const share = await insertShare(database, {
    id: randomUUID(),
    site: key,
    name: PELLOW_SHARE.name,
    token: newToken(),
    passphrase_hash: null,
    made_by: id,
    made_by_name: name,
    made_at: now,
    expires_at: addDays(now, PELLOW_SHARE.days),
  });
  for (const { name: guestName, email, verdicts, comments, choices = [] } of PELLOW_GUESTS) {
    const guest = randomUUID();
    await insertGuest(database, share, { id: guest, name: guestName, email }, now);
    for (const [title, verdict] of Object.entries(verdicts))
      await putVerdict(database, guest, pages.get(title)!, verdict, now);
    for (const { sketch, variant } of choices) await putChoice(database, guest, sketch, variant, now);
    for (const { page, kind, text, proposes, about, answer = '', isSettled = false } of comments) {
      const comment = randomUUID();
      await insertComment(
        database,
        {
          id: comment,
          guest,
          page: pages.get(page)!,
          kind,
          text,
          ...(proposes && { proposes }),
          ...(about && { about }),
        },
        now,
      );
      await setAnswer(database, comment, {
        answer,
        answered_by: answer === '' ? null : name,
        settled_by: isSettled ? name : null,
        is_accepted: false,
      });
    }
  }
}

/** What has been changed since the school's site went live: drafts, edits, a move, a removal, a page taken down. */
async function editSchool(
  edits: EditService,
  releases: ReleaseService,
  school: DemoBuilder,
  ines: PlainAccount,
  marek: PlainAccount,
): Promise<void> {
  const key = toSiteKey('pellow-quay');
  const id = (title: string): PageId => school.idOf(title);
  const before = new Set(school.documents.keys());
  const newContents = () =>
    [...school.documents]
      .filter(([content]) => !before.has(content))
      .map(([content, document]) => ({ id: content, document }));
  await releases.make(key, ines, {
    pages: [],
    retire: [id('Boats for sale')],
    name: 'The autumn sale is over',
    note: 'All four boats have found an owner. The page comes back in spring.',
  });
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
    `The school stands at the end of Cooper’s Hard, where the road becomes shingle, with [Plain Jane](${pageLink(id('Plain Jane'))}) at the slip and the [student council](${pageLink(id('Student council'))}) at the gate. From May the ferry stops at our own quay, four times a day.`,
    `Come by boat if the weather and the [tides](https://tides.example/pellow-quay) are kind, by the number 12 bus if they are not. [How to find us](${pageLink(id('How to find us'), 'by-bicycle')}) has the rest.`,
    OPEN_DAYS,
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
  await edits.apply(key, ines, {
    operations: [
      {
        name: 'redirect.add',
        redirect: redirectIdSchema.parse('prospectus'),
        from: '/prospectus',
        to: { page: id('How to apply') },
      },
    ],
  });
}

/** What visitors of the school's site asked for in vain. */
const PELLOW_MISSED = [
  { path: '/courses/evening-clases', hits: 14, from: '/apply/fees-and-paying' },
  { path: '/open-saturdays', hits: 9, from: null },
  { path: '/workshop/the-smithy', hits: 6, from: null },
  { path: '/admin/login', hits: 41, from: null },
];

async function missAddresses(database: Knex, site: SiteKey, now: Date): Promise<void> {
  for (const { path, hits, from } of PELLOW_MISSED)
    await addMisses(database, site, new Map([[path, { count: hits, from }]]), now);
}

const stored = (documents: ReadonlyMap<ContentId, TextDocument>) =>
  [...documents].map(([content, document]) => acceptContent({ id: content, document }));
