import fc from 'fast-check';
import type { PageId } from '../model/ids.ts';
import { redirectIdSchema } from '../model/redirect.ts';
import type { Operation } from '../operations/operation.ts';

/** Edits of the redirects that are made by hand, to pages of these ids. */
export function anyRedirectEdit(page: fc.Arbitrary<PageId>): fc.Arbitrary<Operation> {
  const redirect = fc.constantFrom(...['r1', 'r2', 'r3'].map((one) => redirectIdSchema.parse(one)));
  const to = fc.oneof(
    fc.record({ page }),
    fc.constantFrom('gone' as const, { url: 'https://ferry.example/timetable' }),
  );
  return fc.oneof(
    fc.record({
      name: fc.constant('redirect.add' as const),
      redirect,
      after: fc.option(fc.option(redirect, { nil: null }), { nil: undefined }),
      from: fc.constantFrom('/courses', '/apply', '/old', '/old/*'),
      to,
    }),
    fc.record({ name: fc.constant('redirect.set' as const), redirect, to }),
    fc.record({ name: fc.constant('redirect.remove' as const), redirect }),
  ) as fc.Arbitrary<Operation>;
}
