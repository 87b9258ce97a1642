import type { Express, Request } from 'express';
import type { Said } from '#core/forms/answer.ts';
import type { FileId } from '#core/files/file.ts';
import { siteKeySchema, type SiteKey } from '#core/model/ids.ts';
import type { FieldId } from '#core/model/kind-field.ts';
import { formIdSchema } from '#core/model/site-form.ts';
import { insertAnswer, wasAnswered } from '../answers/answer-repository.ts';
import { answerMails } from '../answers/answer-mails.ts';
import { ANSWER_CHANNEL, tell } from '../database/channels.ts';
import type { Database } from '../database/connect.ts';
import type { LibraryService } from '../library/library-service.ts';
import type { Mailer } from '../mail/mailer.ts';
import { ProblemError } from '../problem.ts';
import type { Attempts } from '../security/attempts.ts';
import { isOwnOrigin } from '../security/own-origin.ts';
import type { Askers, Asking } from './asking.ts';
import { ANSWER_STEP } from './forms.ts';
import { markup } from './html.ts';
import type { LiveSites } from './live-sites.ts';
import type { AcceptedForm } from './take-form.ts';
import type { PostedForm } from './given-answer.ts';
import { type PostedFile, withPostedForm } from './posted-form.ts';
import type { ReadyAnswer } from './ready-answer.ts';
import { siteWords } from './site-words.ts';

export interface FormAnswerParts {
  readonly sites: LiveSites;
  readonly askers: Askers;
  readonly attempts: Attempts;
  readonly database: Database;
  readonly library: LibraryService;
  readonly mailer: Mailer;
  /** The outside address of the workbench, for links in mails. */
  readonly workbenchOrigin: string;
  readonly ownOrigin: string | null;
  readonly now: () => Date;
}

/** Takes the forms that visitors send, from the site's own pages only. */
export function mountFormAnswers(app: Express, parts: FormAnswerParts): void {
  const { sites, askers, attempts, ownOrigin } = parts;
  app.post(`/:site/${ANSWER_STEP}/:form`, async (request, response, next) => {
    const key = siteKeySchema.safeParse(request.params.site);
    const form = formIdSchema.safeParse(request.params.form);
    if (!key.success || !form.success) return next();
    if (!isOwnOrigin(request.headers, ownOrigin))
      return void response.status(403).type('text').end('Use the form on the site itself.\n');
    response.set('Cache-Control', 'no-store');
    const asking = await askers.find(request);
    const tooMany = await minutesToWait(attempts, request, `${key.data}|${form.data}`);
    await withPostedForm(request, response, async ({ form: posted, files }) => {
      const named = await namesOf(parts.library, files);
      const taken = await sites.takeForm(key.data, form.data, { ...posted, files: named }, asking, tooMany);
      if (!taken) {
        const gone = await goneFor(sites, key.data, asking);
        return gone ? gone.send(request, response) : next();
      }
      if ('again' in taken) return taken.again.send(request, response);
      await keep(parts, key.data, taken.accepted, files, { posted, asking });
      response.redirect(303, taken.accepted.to);
    });
  });
}

/** In how many minutes the same network can send the form again; null where it can now. */
async function minutesToWait(attempts: Attempts, { ip }: Request, form: string): Promise<number | null> {
  try {
    await attempts.answer(ip, form);
    return null;
  } catch (fault) {
    if (!(fault instanceof ProblemError)) throw fault;
    return Math.max(1, Math.ceil(Number(fault.params.seconds) / 60));
  }
}

async function goneFor(sites: LiveSites, key: SiteKey, asking: Asking): Promise<ReadyAnswer | undefined> {
  const named = await sites.named(key);
  if (!named) return undefined;
  const { gone } = siteWords(named.language).form;
  return sites.plainPage(key, asking, { status: 404, title: gone.title, body: markup`<p>${gone.text}</p>` });
}

type Files = ReadonlyMap<FieldId, PostedFile>;

/** The files that came, by name, with whether each is one that libraries take. */
async function namesOf(library: LibraryService, files: Files): Promise<PostedForm['files']> {
  const named = new Map<FieldId, { name: string; isFit: boolean }>();
  for (const [field, { path, name }] of files)
    named.set(field, { name, isFit: path !== null && (await library.fits(path, name)) });
  return named;
}

/** Keeps an answer, with its files in the library, and tells those who look after the form; all of it in one transaction but the files. */
async function keep(
  { database, library, mailer, workbenchOrigin, now }: FormAnswerParts,
  site: SiteKey,
  { form, said, pageTitle, siteName }: AcceptedForm,
  files: Files,
  { posted, asking }: { readonly posted: Omit<PostedForm, 'files'>; readonly asking: Asking },
): Promise<void> {
  // Sent twice: it was kept, and told of, the first time.
  if (await wasAnswered(database, site, form.id, posted.stamp)) return;
  const whole: Said[] = [];
  let hasFiles = false;
  for (const one of said) {
    const file = one.type === 'file' ? files.get(one.field) : undefined;
    if (one.type !== 'file') whole.push(one);
    if (!file?.path) continue;
    const taken = await library.take({ site, path: file.path, name: file.name, replaces: null, account: null });
    hasFiles = true;
    whole.push({ ...one, value: taken.file.id satisfies FileId, words: taken.file.name });
  }
  const sentAt = now();
  await database.transaction(async (trx) => {
    const id = await insertAnswer(trx, {
      site,
      form: form.id,
      formName: form.name,
      stamp: posted.stamp,
      sentAt,
      page: posted.page,
      pageTitle,
      visitor: asking.visitor,
      said: whole,
      keptDays: form.keptDays,
    });
    // The same at the very same moment.
    if (id === null) return;
    const link = `${workbenchOrigin}/sites/${site}?lens=write&beside=answers/${id}`;
    await mailer.send(trx, answerMails(form, { site: siteName, said: whole, link }), sentAt);
  });
  await tell(database, ANSWER_CHANNEL, [`${site} ${hasFiles ? 'files' : ''}`.trim()]);
}
