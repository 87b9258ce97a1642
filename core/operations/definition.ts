import { z } from 'zod';
import { type PageId, pageIdSchema } from '../model/ids.ts';
import type { Refusal } from '../model/refusal.ts';
import type { Site } from '../model/site.ts';
import { slugsSchema } from '../model/slug.ts';
import type { Operation } from './operation.ts';

export interface Applied {
  readonly ok: true;
  readonly site: Site;
  /** Applied in order to `site`, these give back the site as it was, exactly. */
  readonly inverse: readonly Operation[];
  /** The nodes whose state differs between the two sites. */
  readonly touched: readonly PageId[];
}
export type Outcome = Applied | Refusal;

/** One operation: its name, what it takes, what it does, and how it is told. */
export interface OperationDefinition<Schema extends z.ZodObject> {
  readonly schema: Schema;
  /**
   * Gives the site after the operation, or the rule that forbids it; the site that goes in stays as it is.
   * Where nothing changes the same site comes back, with an empty inverse.
   */
  apply(site: Site, operation: z.output<Schema>): Outcome;
  /**
   * The things that the operation decides, as `page.aspect`. Operations that share none of them commute; a later one
   * on the same thing stands in the way of undoing an earlier one.
   */
  cells(operation: z.output<Schema>): string[];
  /** The operation in words, after the name of who did it: "renamed 'A' to 'B'". `site` is as it was before. */
  words(operation: z.output<Schema>, site: Site): string;
}

/** Keeps the types of a definition. */
export const defineOperation = <Schema extends z.ZodObject>(
  definition: OperationDefinition<Schema>,
): OperationDefinition<Schema> => definition;

/**
 * In inverses only: the slugs that nodes had before the operation settled them. It marks the operation as one that
 * gives back a former state: what that state pointed at (a link's target, the home page) may be gone by now.
 */
export const restoresSchema = z.record(pageIdSchema, slugsSchema).optional();

/** A node's title in quotation marks, for sentences. */
export function quoted(site: Site, id: PageId): string {
  const node = site.nodes.get(id);
  const title = node ? (node.title[site.settings.language] ?? Object.values(node.title)[0]) : undefined;
  return `‘${title ?? 'a page that is not there'}’`;
}

/** "", " and the page below it", " and the 4 pages below it". */
export const andBelow = (count: number): string =>
  count === 0 ? '' : count === 1 ? ' and the page below it' : ` and the ${count} pages below it`;
