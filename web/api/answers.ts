import useSWR, { mutate } from 'swr';
import type { AnswerState } from '#core/forms/answer.ts';
import type { PageId, SiteKey } from '#core/model/ids.ts';
import type { FormId } from '#core/model/site-form.ts';
import type { AnswersAnswer, WholeAnswer } from '#contract/answers.ts';
import type { BodyOf } from '#contract/routes.ts';
import { call } from './client.ts';

/** Which answers are listed; all, where nothing is said. */
export interface AnswerFilter {
  readonly form: FormId | null;
  readonly state: AnswerState | null;
}
const ALL: AnswerFilter = { form: null, state: null };

const keyOf = (site: SiteKey, id: string): string => `/sites/${site}/answers/${id}`;
const listKey = (site: SiteKey, { form, state }: AnswerFilter): string => {
  const query = new URLSearchParams({ ...(form !== null && { form }), ...(state !== null && { state }) });
  return `/sites/${site}/answers?${query.toString()}`;
};
const queryIn = (key: string): string => key.slice(key.indexOf('?'));

/** The latest of what visitors sent by forms, newest first; undefined until it is known, and where no site is named. */
export const useAnswers = (site: SiteKey | null, filter: AnswerFilter = ALL): AnswersAnswer | undefined =>
  useSWR(
    site === null ? null : listKey(site, filter),
    (key: string) => call('listAnswers', { site: site! }, undefined, queryIn(key)),
    { keepPreviousData: true },
  ).data;

/** Those that came before one of them. @throws ServerProblem, NoAnswer */
export const olderAnswers = (site: SiteKey, filter: AnswerFilter, before: string): Promise<AnswersAnswer> =>
  call('listAnswers', { site }, undefined, `${queryIn(listKey(site, filter))}&before=${before}`);

/** The pages that show each of some forms; undefined until it is known. */
export const usePagesOfForms = (
  site: SiteKey,
  forms: readonly FormId[],
  revision: number,
): ReadonlyMap<FormId, readonly PageId[]> | undefined =>
  useSWR(forms.length === 0 ? null : [`/sites/${site}/pages-of-forms`, forms.join(), revision], async () => {
    const found = await Promise.all(forms.map((form) => call('findTexts', { site }, undefined, `?form=${form}`)));
    return new Map(forms.map((form, at) => [form, found[at]!.pages]));
  }).data;

/** One answer; undefined until it is known. */
export const useAnswer = (
  site: SiteKey,
  id: string,
): { readonly answer: WholeAnswer | undefined; readonly fault: unknown } => {
  const { data, error } = useSWR(keyOf(site, id), () => call('showAnswer', { site, answer: id }));
  return { answer: data, fault: error as unknown };
};

/** Has what is shown of answers asked for anew. */
export const refreshAnswers = (site: SiteKey): Promise<unknown> =>
  mutate((key) => typeof key === 'string' && key.startsWith(`/sites/${site}/answers`));

/** @throws ServerProblem, NoAnswer */
export async function setAnswer(site: SiteKey, answer: string, body: BodyOf<'setAnswer'>): Promise<void> {
  await call('setAnswer', { site, answer }, body);
  await refreshAnswers(site);
}

/** @throws ServerProblem, NoAnswer */
export async function deleteAnswer(site: SiteKey, answer: string): Promise<void> {
  await call('deleteAnswer', { site, answer });
  await refreshAnswers(site);
}

/** Where the answers to a form are as CSV. */
export const answersCsvAddress = (site: SiteKey, form: FormId): string =>
  `/api/sites/${encodeURIComponent(site)}/forms/${form}/answers.csv`;
