import useSWR, { mutate } from 'swr';
import useSWRImmutable from 'swr/immutable';
import type { PageId } from '#core/model/ids.ts';
import type { Verdict } from '#core/model/feedback.ts';
import type { SketchId } from '#core/model/plan.ts';
import type { Site } from '#core/model/site.ts';
import type { VariantId } from '#core/model/sketch.ts';
import type { Surround } from '#core/sketch/surround.ts';
import { readTree } from '#contract/sent-tree.ts';
import type { AnswerOf, BodyOf } from '#contract/routes.ts';
import type { SharedPlanAnswer } from '#contract/sharing.ts';
import { ServerProblem, call } from './client.ts';
import { EACH_IS_NEW } from './sites.ts';

/** So often the page asks what is new, and whether the link works still. */
const ASK_AGAIN_MS = 5000;
const keyOf = (token: string): string => `/shared/${token}`;

/** What a link leads to. The fault tells why it cannot be shown: it asks for a passphrase, or does not work any more. */
export function useSharedPlan(token: string): { plan: SharedPlanAnswer | undefined; fault: unknown } {
  const { data, error } = useSWR(keyOf(token), () => call('showSharedPlan', { token }), {
    refreshInterval: ASK_AGAIN_MS,
    shouldRetryOnError: false,
  });
  // What was withdrawn is not shown any more, though it had been fetched; while there is no answer it stays.
  return { plan: error instanceof ServerProblem ? undefined : data, fault: error };
}

/** The tree of a plan at its revision, the one before while it is fetched. */
export function useSharedTree(token: string, revision: number | undefined): Site | undefined {
  return useSWRImmutable(
    revision === undefined ? null : [`${keyOf(token)}/tree`, revision],
    async () => readTree(await call('showSharedTree', { token })),
    { ...EACH_IS_NEW, keepPreviousData: true },
  ).data;
}

/** Each of these shows what came of it when it has arrived. @throws ServerProblem, NoAnswer */
export async function givePassphrase(token: string, passphrase: string): Promise<void> {
  await call('givePassphrase', { token }, { passphrase });
  await mutate(keyOf(token));
}

export async function nameGuest(token: string, given: BodyOf<'nameGuest'>): Promise<void> {
  await call('nameGuest', { token }, given);
  await mutate(keyOf(token));
}

export async function addComment(token: string, given: BodyOf<'addComment'>): Promise<void> {
  await call('addComment', { token }, given);
  await mutate(keyOf(token));
}

export async function takeBackComment(token: string, comment: string): Promise<void> {
  await call('takeBackComment', { token, comment });
  await mutate(keyOf(token));
}

/** Gives a verdict on pages: it shows at once, and is taken back where the server refuses it. */
export async function giveVerdict(token: string, pages: readonly PageId[], verdict: Verdict | null): Promise<void> {
  const given = async (before: SharedPlanAnswer | undefined): Promise<SharedPlanAnswer> => {
    for (const page of pages) await call('giveVerdict', { token, page }, { verdict });
    return before!;
  };
  await mutate(keyOf(token), given, {
    optimisticData: (before?: SharedPlanAnswer) => withVerdict(before!, pages, verdict),
    rollbackOnError: true,
    populateCache: false,
  });
}

/** Chooses a variant of a sketch; null takes the choice back. @throws ServerProblem, NoAnswer */
export async function chooseVariant(token: string, sketch: SketchId, variant: VariantId | null): Promise<void> {
  await call('chooseVariant', { token, sketch }, { variant });
  await mutate(keyOf(token));
}

/** What stands around the content of a page at a revision of the plan; undefined until it is known. */
export const useSurround = (token: string, page: PageId, revision: number): Surround | undefined =>
  useSWRImmutable([`${keyOf(token)}/surrounds`, page, revision], () => call('showSurround', { token, page }), {
    keepPreviousData: true,
  }).data;

/** What the pictures show that lie on boards, at a revision of the plan; undefined until it is known. */
export const useBoardPictures = (
  token: string,
  revision: number,
): AnswerOf<'showBoardPictures'>['pictures'] | undefined =>
  useSWRImmutable(
    [`${keyOf(token)}/pictures`, revision],
    async () => (await call('showBoardPictures', { token })).pictures,
    { keepPreviousData: true },
  ).data;

function withVerdict(plan: SharedPlanAnswer, pages: readonly PageId[], verdict: Verdict | null): SharedPlanAnswer {
  const { guest, feedback } = plan;
  if (guest === null) return plan;
  const others = feedback.verdicts.filter((one) => one.guest !== guest.id || !pages.includes(one.page));
  const at = new Date().toISOString();
  const mine =
    verdict === null
      ? []
      : pages.map((page) => ({ share: guest.id, guest: guest.id, page, verdict, by: guest.name, at, settledBy: null }));
  return { ...plan, feedback: { ...feedback, verdicts: [...others, ...mine] } };
}
