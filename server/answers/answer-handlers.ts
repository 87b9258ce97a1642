import type { Request } from 'express';
import { z } from 'zod';
import { ANSWER_STATES, firstWords } from '#core/forms/answer.ts';
import { writeAnswersCsv } from '#core/formats/answers-csv.ts';
import { formIdSchema } from '#core/model/site-form.ts';
import type { ListedAnswer } from '#contract/answers.ts';
import type { Services } from '../handlers.ts';
import { ProblemError } from '../problem.ts';
import { siteOf, uuidOf } from '../route-parameters.ts';
import type { Handlers } from '../routing.ts';
import {
  type KeptAnswer,
  allAnswers,
  answerAt,
  answerTotals,
  deleteAnswer,
  latestAnswers,
  setAnswer,
} from './answer-repository.ts';

type Answers = 'listAnswers' | 'exportAnswers' | 'showAnswer' | 'setAnswer' | 'deleteAnswer';

/** So many are listed at once. */
const LISTED_AT_ONCE = 100;

/** What colleagues do with what visitors sent by forms. */
export function makeAnswerHandlers({
  database,
  cache,
  now,
}: Pick<Services, 'database' | 'cache' | 'now'>): Pick<Handlers, Answers> {
  const known = async (request: Request) => (await cache.current(siteOf(request))).site;
  const idOf = (request: Request): string => uuidOf(request.params.answer, 'answer-unknown');
  const unknown = (): ProblemError => new ProblemError('answer-unknown');
  return {
    listAnswers: async ({ request }) => {
      const { key } = await known(request);
      const { form, state, before } = request.query;
      const found = await latestAnswers(
        database,
        key,
        {
          form: formIdSchema.safeParse(form).data,
          state: z.enum(ANSWER_STATES).safeParse(state).data,
          before: z.uuid().safeParse(before).data,
        },
        LISTED_AT_ONCE + 1,
      );
      return {
        answers: found.slice(0, LISTED_AT_ONCE).map(listed),
        hasMore: found.length > LISTED_AT_ONCE,
        totals: await answerTotals(database, key),
      };
    },
    exportAnswers: async ({ request, response }) => {
      const site = await known(request);
      const form = formIdSchema.safeParse(request.params.form);
      const is = site.settings.forms.find(({ id }) => id === form.data) ?? null;
      const answers: KeptAnswer[] = [];
      if (form.success) for await (const some of allAnswers(database, site.key, form.data)) answers.push(...some);
      if (!is && answers.length === 0) throw new ProblemError('form-unknown', { form: String(request.params.form) });
      const rows = answers.map(({ sentAt, pageTitle, visitorName, state, note, said }) => ({
        sentAt: sentAt.toISOString(),
        page: pageTitle,
        visitor: visitorName ?? '',
        state,
        note,
        said,
      }));
      response
        .attachment('answers.csv')
        .set('Cache-Control', 'no-store')
        .type('text/csv; charset=utf-8')
        .send(writeAnswersCsv(is, rows));
    },
    showAnswer: async ({ request }) => {
      const id = idOf(request);
      const answer = await answerAt(database, (await known(request)).key, id);
      if (!answer) throw unknown();
      const { page, pageTitle, visitorName, said, note } = answer;
      return { ...listed(answer), page, pageTitle, visitorName, said: [...said], note };
    },
    setAnswer: async ({ request, body }) => {
      const id = idOf(request);
      const { key } = await known(request);
      const isThere =
        Object.keys(body).length === 0
          ? (await answerAt(database, key, id)) !== undefined
          : await setAnswer(database, key, id, body);
      if (!isThere) throw unknown();
      return { ok: true };
    },
    deleteAnswer: async ({ request }) => {
      const id = idOf(request);
      if (!(await deleteAnswer(database, (await known(request)).key, id, now()))) throw unknown();
      return { ok: true };
    },
  };
}

const listed = ({ id, form, formName, sentAt, said, state, note }: KeptAnswer): ListedAnswer => ({
  id,
  form,
  formName,
  sentAt: sentAt.toISOString(),
  words: firstWords(said),
  state,
  hasNote: note !== '',
});
