import type { PageId } from '../model/ids.ts';
import { type Site, maybeNodeAt } from '../model/site.ts';
import { applyOperation, applyOperations, cellsOf } from '../operations/apply.ts';
import type { Operation } from '../operations/operation.ts';
import { fieldsAmong } from '../operations/page-set.ts';
import { putBackAlone } from './grow.ts';

/**
 * What it takes to have one's own work again after somebody else's edit has taken its place: fields that both have set,
 * pages that both have moved, and pages of one's own that went along when something above them was removed. `after` is
 * the site as the other edit has left it. Empty where nothing of one's own was lost.
 */
export function restoreOverruled(mine: readonly Operation[], theirs: readonly Operation[], after: Site): Operation[] {
  const taken = new Set(theirs.flatMap(cellsOf));
  const isRemoval = theirs.some((operation) => operation.name === 'page.remove');
  const again = mine.flatMap((operation) => {
    const page = pageOf(operation);
    if (isRemoval && page !== null && isRemoved(after, page)) return putBackAlone(after, page);
    return restricted(operation, taken);
  });
  return effectiveOnes(after, again);
}

/**
 * What can be saved of operations that were refused because what they build on is gone: a new page comes to stand under
 * the nearest page above that is there, and a page that was removed meanwhile comes back with what was set.
 */
export function toSave(refused: readonly Operation[], site: Site): Operation[] {
  return effectiveOnes(
    site,
    refused.flatMap((operation) => {
      if (operation.name === 'page.add' || operation.name === 'page.copy') {
        const { parent } = operation.place;
        if (parent === null || maybeNodeAt(site, parent)) return [operation];
        return [{ ...operation, place: { parent: nearestThere(site, parent) } }];
      }
      if (operation.name !== 'page.set' || !isRemoved(site, operation.page)) return [operation];
      return [...putBackAlone(site, operation.page), operation];
    }),
  );
}

const isRemoved = (site: Site, page: PageId): boolean => site.nodes.get(page)?.removedWith != null;

function nearestThere(site: Site, page: PageId): PageId | null {
  let at: PageId | null = page;
  while (at !== null && !maybeNodeAt(site, at)) at = site.nodes.get(at)?.parent ?? null;
  return at;
}

const pageOf = (operation: Operation): PageId | null =>
  operation.name === 'page.add' || operation.name === 'page.move' || operation.name === 'page.set'
    ? operation.page
    : null;

/** The part of an operation that decides one of these cells. */
function restricted(operation: Operation, cells: ReadonlySet<string>): Operation[] {
  if (operation.name === 'page.set') {
    const fields = fieldsAmong(operation.fields, (field) => cells.has(`${operation.page}.${field}`));
    return Object.keys(fields).length === 0 ? [] : [{ ...operation, fields }];
  }
  if (operation.name === 'site.set') {
    const fields = Object.entries(operation.fields).filter(([field]) => cells.has(`site.${field}`));
    return fields.length === 0 ? [] : [{ ...operation, fields: Object.fromEntries(fields) }];
  }
  return operation.name === 'page.move' && cellsOf(operation).some((cell) => cells.has(cell)) ? [operation] : [];
}

/** The operations that can be made and change something, each on what the ones before have left. */
function effectiveOnes(site: Site, operations: readonly Operation[]): Operation[] {
  const made: Operation[] = [];
  let at = site;
  for (const operation of operations) {
    const outcome = applyOperation(at, operation);
    // The sibling that it was to follow may be gone: then it comes last.
    const other =
      !outcome.ok && operation.name === 'page.move'
        ? ({ ...operation, place: { parent: operation.place.parent } } as Operation)
        : null;
    const second = other && applyOperation(at, other);
    const done = outcome.ok ? outcome : second?.ok ? second : null;
    if (!done || done.site === at) continue;
    made.push(outcome.ok ? operation : other!);
    at = done.site;
  }
  const all = applyOperations(site, made);
  return all.ok && all.site !== site ? made : [];
}
