import { randomUUID } from 'node:crypto';
import type { IncomingMessage, ServerResponse } from 'node:http';
import type { ErrorRequestHandler } from 'express';
import type { Logger } from 'pino';
import { type ProblemCode, type ProblemParams, PROBLEMS, problemSentence } from '#contract/problems.ts';
import type { Problem } from '#contract/api.ts';
import type { Refusal } from '#core/model/refusal.ts';
import type { Site } from '#core/model/site.ts';
import type { PageId } from '#core/model/ids.ts';
import { textIn } from '#core/model/texts.ts';

/** Something that the caller has to know: it becomes a problem document, and nothing is written. */
export class ProblemError extends Error {
  readonly code: ProblemCode;
  readonly params: ProblemParams;
  readonly errors: Problem['errors'];

  constructor(code: ProblemCode, params: ProblemParams = {}, errors?: Problem['errors']) {
    super(problemSentence(code, params));
    this.code = code;
    this.params = params;
    this.errors = errors;
  }
}

/** A refusal of the core as a problem, with the titles of the pages it speaks of. */
export function refusalProblem(refusal: Refusal, site: Site, index?: number): ProblemError {
  const node = refusal.params.page === undefined ? undefined : site.nodes.get(refusal.params.page as PageId);
  const params = node ? { ...refusal.params, pageTitle: textIn(node.title, site.settings.language) } : refusal.params;
  const detail = problemSentence(refusal.code, params);
  return new ProblemError(
    refusal.code,
    params,
    index === undefined ? undefined : [{ pointer: `/operations/${index}`, detail }],
  );
}

/** A problem as it is sent (RFC 9457). */
export function documentOf(problem: ProblemError): Problem {
  const { status, title } = PROBLEMS[problem.code];
  return {
    type: `/problems/${problem.code}`,
    title,
    status,
    detail: problem.message,
    code: problem.code,
    params: problem.params,
    errors: problem.errors,
  };
}

function sendProblem(response: ServerResponse, problem: ProblemError): void {
  const document = documentOf(problem);
  const body = Buffer.from(JSON.stringify(document));
  response
    .writeHead(document.status, {
      'Content-Type': 'application/problem+json; charset=utf-8',
      'Content-Length': body.length,
    })
    .end(body);
}

/** The faults of the body parser, by its own `type` of fault. */
function fromBodyParser(fault: { type?: string; message?: string; limit?: number }): ProblemError | null {
  if (fault.type === 'entity.too.large')
    return new ProblemError('body-too-large', { limit: `${(fault.limit ?? 0) / 1000} kB` });
  if (fault.type === 'entity.parse.failed')
    return new ProblemError('body-not-json', { reason: fault.message ?? 'syntax' });
  if (fault.type?.startsWith('encoding.') || fault.type?.startsWith('charset.')) return new ProblemError('body-type');
  return fault.type?.startsWith('request.') ? new ProblemError('body-not-json', { reason: fault.type }) : null;
}

/** Answers a request that failed with a problem document; a fault that was not expected is logged under a name that the caller is told. */
export function answerFault(log: Logger, fault: unknown, request: IncomingMessage, response: ServerResponse): void {
  const problem = fault instanceof ProblemError ? fault : fromBodyParser(fault as { type?: string });
  if (problem) return sendProblem(response, problem);
  const { method = '', url = '' } = request;
  // Express refuses addresses with broken percent signs by an error that carries a status.
  if ((fault as { status?: number }).status === 400)
    return sendProblem(response, new ProblemError('route-unknown', { method, path: url.split('?')[0]! }));
  const name = randomUUID();
  log.error({ err: fault, request: name, method, url }, 'unexpected fault');
  sendProblem(response, new ProblemError('server-fault', { request: name }));
}

/** Turns every fault of a request that Express handles into a problem document. */
export const handleErrors =
  (log: Logger): ErrorRequestHandler =>
  (fault: unknown, request, response, next) =>
    response.headersSent ? next(fault) : answerFault(log, fault, request, response);
