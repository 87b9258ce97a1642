import type { RefusalCode } from '#core/model/refusal.ts';
import type { ProblemParams, ProblemWords } from './problem-words.ts';
import { OF_REQUESTS } from './request-problems.ts';
import { OF_THE_TREE } from './tree-problems.ts';

export type { ProblemParams } from './problem-words.ts';

/** Every problem that the API can answer with. `type` in a problem document is `/problems/<code>`. */
export const PROBLEMS: Readonly<Record<ProblemCode, ProblemWords>> = { ...OF_REQUESTS, ...OF_THE_TREE };
export type ProblemCode = keyof typeof OF_REQUESTS | RefusalCode;

/** The sentence for a problem: what is wrong, where, and the way out. */
export const problemSentence = (code: ProblemCode, params: ProblemParams): string => PROBLEMS[code].detail(params);
