import type { Site } from '../model/site.ts';
import { applyOperation } from '../operations/apply.ts';
import type { Operation, OperationName } from '../operations/operation.ts';
import { Draw } from './draw.ts';
import * as fields from './draw-field-edits.ts';
import * as forms from './draw-form-edits.ts';
import * as pages from './draw-page-edits.ts';
import * as releases from './draw-release-edits.ts';
import * as settings from './draw-setting-edits.ts';
import * as boards from './draw-board-edits.ts';
import * as sketches from './draw-sketch-edits.ts';

/** One draw an operation: what it could be on the site at hand. */
export type OperationDraws = {
  readonly [Name in OperationName]: (site: Site, draw: Draw) => Extract<Operation, { name: Name }>;
};

/** The compiler misses an operation that has no draw. */
export const DRAWS: OperationDraws = {
  'page.add': pages.drawPageAdd,
  'page.move': pages.drawPageMove,
  'page.set': pages.drawPageSet,
  'page.remove': pages.drawPageRemove,
  'page.copy': pages.drawPageCopy,
  'page.putBack': pages.drawPagePutBack,
  'page.erase': pages.drawPageErase,
  'page.recall': pages.drawPageRecall,
  'site.set': settings.drawSiteSet,
  'audience.add': settings.drawAudienceAdd,
  'audience.set': settings.drawAudienceSet,
  'audience.remove': settings.drawAudienceRemove,
  'label.add': settings.drawLabelAdd,
  'label.set': settings.drawLabelSet,
  'label.remove': settings.drawLabelRemove,
  'field.add': fields.drawFieldAdd,
  'field.set': fields.drawFieldSet,
  'field.move': fields.drawFieldMove,
  'field.remove': fields.drawFieldRemove,
  'menu.add': settings.drawMenuAdd,
  'menu.set': settings.drawMenuSet,
  'menu.remove': settings.drawMenuRemove,
  'entry.add': settings.drawEntryAdd,
  'entry.set': settings.drawEntrySet,
  'entry.move': settings.drawEntryMove,
  'entry.remove': settings.drawEntryRemove,
  'layout.add': settings.drawLayoutAdd,
  'layout.set': settings.drawLayoutSet,
  'layout.remove': settings.drawLayoutRemove,
  'fact.add': settings.drawFactAdd,
  'fact.set': settings.drawFactSet,
  'fact.remove': settings.drawFactRemove,
  'shared.add': settings.drawSharedAdd,
  'shared.set': settings.drawSharedSet,
  'shared.remove': settings.drawSharedRemove,
  'form.add': forms.drawFormAdd,
  'form.set': forms.drawFormSet,
  'form.remove': forms.drawFormRemove,
  'redirect.add': settings.drawRedirectAdd,
  'redirect.set': settings.drawRedirectSet,
  'redirect.remove': settings.drawRedirectRemove,
  'practice.set': pages.drawPracticeSet,
  'goal.add': settings.drawGoalAdd,
  'goal.set': settings.drawGoalSet,
  'goal.remove': settings.drawGoalRemove,
  'sketch.add': sketches.drawSketchAdd,
  'sketch.set': sketches.drawSketchSet,
  'sketch.remove': sketches.drawSketchRemove,
  'variant.add': sketches.drawVariantAdd,
  'variant.set': sketches.drawVariantSet,
  'variant.remove': sketches.drawVariantRemove,
  'box.put': sketches.drawBoxPut,
  'box.remove': sketches.drawBoxRemove,
  'board.add': boards.drawBoardAdd,
  'board.set': boards.drawBoardSet,
  'board.remove': boards.drawBoardRemove,
  'piece.put': boards.drawPiecePut,
  'piece.remove': boards.drawPieceRemove,
  'oldPage.decide': settings.drawOldPageDecide,
  'release.make': releases.drawReleaseMake,
  'release.takeBack': releases.drawReleaseTakeBack,
};

/** A step of a random history. What it does is drawn from the site that it meets. */
export interface Step {
  readonly name: OperationName;
  readonly seed: number;
  readonly isOdd: boolean;
}

const TRIES = 4;

/**
 * The edit that a step makes of a site: one that changes it, where a few draws find one. The first draw of an odd step
 * stands, whatever becomes of it.
 */
export function drawEdit(site: Site, { name, seed, isOdd }: Step): Operation {
  let operation: Operation | undefined;
  for (let n = 0; n < TRIES; n++) {
    operation = DRAWS[name](site, new Draw(seed + n * 7919, isOdd)) as Operation;
    const outcome = applyOperation(site, operation);
    if (isOdd || (outcome.ok && outcome.site !== site)) break;
  }
  return operation as Operation;
}
