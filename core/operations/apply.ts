import type { PageId } from '../model/ids.ts';
import { isPractice, liveInPractice } from '../model/practice.ts';
import { type Refusal, refuse } from '../model/refusal.ts';
import { type Site, maybeNodeAt } from '../model/site.ts';
import { noteStep } from '../model/steps.ts';
import type { Outcome } from './definition.ts';
import type { Operation, OperationName } from './operation.ts';
import { audienceAdd, audienceRemove, audienceSet } from './audiences.ts';
import { practiceSet } from './practice-set.ts';
import { goalAdd, goalRemove, goalSet } from './goals.ts';
import { boardAdd, boardRemove, boardSet, piecePut, pieceRemove } from './boards.ts';
import { boxPut, boxRemove } from './boxes.ts';
import { sketchAdd, sketchRemove, sketchSet } from './sketches.ts';
import { variantAdd, variantRemove, variantSet } from './variants.ts';
import { entryAdd, entryMove, entryRemove, entrySet } from './entries.ts';
import { fieldAdd, fieldMove, fieldRemove, fieldSet } from './fields.ts';
import { labelAdd, labelRemove, labelSet } from './labels.ts';
import { factAdd, factRemove, factSet } from './facts.ts';
import { layoutAdd, layoutRemove, layoutSet } from './layouts.ts';
import { menuAdd, menuRemove, menuSet } from './menus.ts';
import { redirectAdd, redirectRemove, redirectSet } from './redirects.ts';
import { oldPageDecide } from './old-page-decide.ts';
import { pageAdd } from './page-add.ts';
import { pageCopy } from './page-copy.ts';
import { pageErase, pageRecall } from './page-erase.ts';
import { pageMove } from './page-move.ts';
import { pagePutBack } from './page-put-back.ts';
import { pageRemove } from './page-remove.ts';
import { pageSet } from './page-set.ts';
import { releaseMake } from './release-make.ts';
import { releaseTakeBack } from './release-take-back.ts';
import { formAdd, formRemove, formSet } from './forms.ts';
import { sharedAdd, sharedRemove, sharedSet } from './shared.ts';
import { siteSet } from './site-set.ts';

/** Every operation, by its name. */
export const OPERATIONS = {
  'page.add': pageAdd,
  'page.move': pageMove,
  'page.set': pageSet,
  'page.remove': pageRemove,
  'page.copy': pageCopy,
  'page.putBack': pagePutBack,
  'page.erase': pageErase,
  'page.recall': pageRecall,
  'site.set': siteSet,
  'audience.add': audienceAdd,
  'audience.set': audienceSet,
  'audience.remove': audienceRemove,
  'label.add': labelAdd,
  'label.set': labelSet,
  'label.remove': labelRemove,
  'field.add': fieldAdd,
  'field.set': fieldSet,
  'field.move': fieldMove,
  'field.remove': fieldRemove,
  'menu.add': menuAdd,
  'menu.set': menuSet,
  'menu.remove': menuRemove,
  'entry.add': entryAdd,
  'entry.set': entrySet,
  'entry.move': entryMove,
  'entry.remove': entryRemove,
  'layout.add': layoutAdd,
  'layout.set': layoutSet,
  'layout.remove': layoutRemove,
  'fact.add': factAdd,
  'fact.set': factSet,
  'fact.remove': factRemove,
  'shared.add': sharedAdd,
  'shared.set': sharedSet,
  'shared.remove': sharedRemove,
  'form.add': formAdd,
  'form.set': formSet,
  'form.remove': formRemove,
  'redirect.add': redirectAdd,
  'redirect.set': redirectSet,
  'redirect.remove': redirectRemove,
  'practice.set': practiceSet,
  'goal.add': goalAdd,
  'goal.set': goalSet,
  'goal.remove': goalRemove,
  'sketch.add': sketchAdd,
  'sketch.set': sketchSet,
  'sketch.remove': sketchRemove,
  'variant.add': variantAdd,
  'variant.set': variantSet,
  'variant.remove': variantRemove,
  'box.put': boxPut,
  'box.remove': boxRemove,
  'board.add': boardAdd,
  'board.set': boardSet,
  'board.remove': boardRemove,
  'piece.put': piecePut,
  'piece.remove': pieceRemove,
  'oldPage.decide': oldPageDecide,
  'release.make': releaseMake,
  'release.takeBack': releaseTakeBack,
} as const satisfies Record<OperationName, unknown>;

/** What can bring a live page, or the home page, into the practice branch, or make a page live that stands there: it is refused. */
const CAN_MEET_PRACTICE: ReadonlySet<OperationName> = new Set([
  'practice.set',
  'site.set',
  'page.move',
  'page.putBack',
  'page.recall',
  'release.make',
  'release.takeBack',
]);

/**
 * Applies one operation. Laws, tested over all of them: the inverse gives back the identical site; a refusal leaves
 * the site as it was; the result passes `checkSite`; where nothing changes the same site comes back.
 * The operation must have the shape of its schema: input from outside is parsed first.
 */
export function applyOperation(site: Site, operation: Operation): Outcome {
  const outcome = definitionOf(operation).apply(site, operation);
  if (outcome.ok && CAN_MEET_PRACTICE.has(operation.name)) {
    const page = liveInPractice(outcome.site);
    if (page !== undefined) return refuse('practice-live', { page });
    const { home } = outcome.site.settings;
    if (home !== null && maybeNodeAt(outcome.site, home) && isPractice(outcome.site, home))
      return refuse('practice-home', { page: home });
  }
  if (outcome.ok) noteStep(outcome.site, site, outcome.touched);
  return outcome;
}

export type AppliedAll =
  | { ok: true; site: Site; inverse: Operation[]; touched: PageId[] }
  | (Refusal & { /** Which of the operations was refused. */ index: number });

/** Applies several: all of them, or none. The inverse undoes all, in the right order. */
export function applyOperations(site: Site, operations: readonly Operation[]): AppliedAll {
  let at = site;
  const inverses: (readonly Operation[])[] = [];
  const touched = new Set<PageId>();
  for (const [index, operation] of operations.entries()) {
    const outcome = applyOperation(at, operation);
    if (!outcome.ok) return { ...outcome, index };
    at = outcome.site;
    inverses.push(outcome.inverse);
    for (const id of outcome.touched) touched.add(id);
  }
  return { ok: true, site: at, inverse: inverses.reverse().flat(), touched: [...touched] };
}

/** A request names one home page at most: two would leave it to their order which one holds. */
export function checkTogether(operations: readonly Operation[]): Refusal | null {
  const homes = new Set(
    operations.flatMap((operation) =>
      operation.name === 'site.set' && operation.fields.home !== undefined ? [operation.fields.home] : [],
    ),
  );
  return homes.size > 1 ? refuse('two-homes') : null;
}

/** What an operation decides, as `page.aspect`. */
export const cellsOf = (operation: Operation): string[] => definitionOf(operation).cells(operation);

/** An operation in words, for the site as it was before it. */
export const wordsOf = (operation: Operation, site: Site): string => definitionOf(operation).words(operation, site);

interface AnyDefinition {
  apply(site: Site, operation: Operation): Outcome;
  cells(operation: Operation): string[];
  words(operation: Operation, site: Site): string;
}
/** The union of the definitions cannot be called with the union of the operations, though each name has its own. */
const definitionOf = (operation: Operation) => OPERATIONS[operation.name] as unknown as AnyDefinition;
