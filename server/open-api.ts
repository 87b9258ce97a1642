import { createDocument } from 'zod-openapi';
import { problemSchema } from '#contract/api.ts';
import type { Route } from '#contract/route.ts';
import { ROUTES } from '#contract/routes.ts';

type Paths = NonNullable<Parameters<typeof createDocument>[0]['paths']>;

/** The API as an OpenAPI 3.1 document, made from the table of routes. */
export function makeOpenApi(): object {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const [name, route] of Object.entries(ROUTES) as [string, Route][]) {
    const path = route.path.replace(/:(\w+)/g, '{$1}');
    const parameters = [...route.path.matchAll(/:(\w+)/g)].map(([, parameter]) => ({
      name: parameter,
      in: 'path',
      required: true,
      schema: { type: 'string' },
    }));
    const content = route.answer
      ? { content: { 'application/json': { schema: route.answer } } }
      : { content: { [route.sends ?? 'application/json']: { schema: { type: route.sends ? 'string' : 'object' } } } };
    (paths[path] ??= {})[route.method] = {
      operationId: name,
      summary: route.summary,
      description: `Permission: ${route.permission}.`,
      parameters,
      ...(route.takes && {
        requestBody: { required: true, content: { [route.takes]: { schema: { type: 'string' } } } },
      }),
      ...(route.body && { requestBody: { required: true, content: { 'application/json': { schema: route.body } } } }),
      responses: {
        200: { description: 'Done', ...content },
        default: {
          description: 'A problem document (RFC 9457)',
          content: { 'application/problem+json': { schema: problemSchema } },
        },
      },
    };
  }
  return createDocument({
    openapi: '3.1.0',
    info: {
      title: 'Spur',
      version: '1',
      description: 'The API behind the workbench. Every refusal is a problem document.',
    },
    paths: paths as Paths,
  });
}
