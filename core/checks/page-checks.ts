import { accessTable, membershipsOf } from '../derive/access.ts';
import { derivedOf } from '../derive/derived.ts';
import type { PageId } from '../model/ids.ts';
import { practiceBranch } from '../model/practice.ts';
import type { Site } from '../model/site.ts';
import { requiredField, unreadField } from './field-checks.ts';
import { noDescription } from './no-description.ts';
import { noText } from './no-text.ts';
import { noWay } from './no-way.ts';
import type { PageCheck, PageFacts } from './page-check.ts';
import { sameTitle } from './same-title.ts';
import {
  emptyHeading,
  idleButton,
  largeFile,
  linkWords,
  noAlternative,
  noFile,
  noForm,
  noShared,
  unnamedFrame,
  leftOut,
  noSubtitles,
  skippedHeading,
  tableHeader,
  unwritten,
} from './text-checks.ts';

/** What a page can lack, in the order in which it is told; columns, the side sheet and releases have their words from here. */
export const PAGE_CHECKS = {
  'no text': noText,
  'no way': noWay,
  'no description': noDescription,
  'same title': sameTitle,
  'required field': requiredField,
  'unread field': unreadField,
  'empty heading': emptyHeading,
  'skipped heading': skippedHeading,
  'link words': linkWords,
  'table header': tableHeader,
  button: idleButton,
  alternative: noAlternative,
  subtitles: noSubtitles,
  'no file': noFile,
  'large file': largeFile,
  'no shared': noShared,
  'no form': noForm,
  frame: unnamedFrame,
  'left out': leftOut,
  unwritten,
} as const satisfies Record<string, PageCheck>;
export type PageFault = keyof typeof PAGE_CHECKS;
export const PAGE_FAULTS = Object.keys(PAGE_CHECKS) as readonly PageFault[];

export interface PageFinding {
  readonly page: PageId;
  readonly fault: PageFault;
  /** The other page that it is about, or null. */
  readonly other: PageId | null;
}

/** What the pages that somebody can read lack, in tree order. `findingsByPage` says what it is made of. */
export function pageFindings(...asked: Parameters<typeof findingsByPage>): PageFinding[] {
  const steps = findingsByPage(...asked);
  let step = steps.next();
  while (!step.done) step = steps.next();
  return [...step.value.values()].flat();
}

/**
 * What the pages that somebody can read lack, page by page in tree order, worked out in small steps: between two of them others can have
 * their turn.
 * @param at the moment, in milliseconds since 1970 @param textLinks of the texts that these pages have
 * @param textFaults what was found in these texts
 */
export function* findingsByPage(
  site: Site,
  at: number,
  textLinks: PageFacts['textLinks'],
  textFaults: PageFacts['textFaults'] = [],
): Generator<void, Map<PageId, PageFinding[]>> {
  const derived = derivedOf(site);
  const { outline, addresses } = derived;
  const { open } = accessTable(outline, site.settings, membershipsOf(site.settings.audiences), at);
  // What is for practice lacks nothing that anybody reads.
  const practice = new Set(practiceBranch(site));
  const read: number[] = [];
  for (let row = 0; row < outline.nodes.length; row++) {
    const isForm = (outline.nodes[row]!.access?.standsIn ?? null) !== null;
    if (addresses[row] !== null && open[row] !== 0 && !isForm && !practice.has(outline.nodes[row]!.id)) read.push(row);
  }
  // Everyone is the first of the audiences.
  const isPublic = (row: number) => (open[row]! & 1) === 1;
  const facts: PageFacts = { site, derived, read, isPublic, textLinks, textFaults };
  const byRow = new Array<PageFinding[] | undefined>(outline.nodes.length);
  let count = 0;
  for (const fault of PAGE_FAULTS) {
    yield;
    for (const found of PAGE_CHECKS[fault].find(facts)) {
      if (found === null || ++count % AT_ONCE === 0) yield;
      if (found === null) continue;
      const { row, other = null } = found;
      (byRow[row] ??= []).push({ page: outline.nodes[row]!.id, fault, other });
    }
  }
  const byPage = new Map<PageId, PageFinding[]>();
  for (const row of read) {
    if (byRow[row]) byPage.set(outline.nodes[row]!.id, byRow[row]);
    if (row % AT_ONCE === 0) yield;
  }
  return byPage;
}

/** So many findings are put in order in one go. */
const AT_ONCE = 1000;

/** What pages lack in one state of a site and did not in another: what a release would bring. */
export function newPageFindings(before: readonly PageFinding[], after: readonly PageFinding[]): PageFinding[] {
  const known = new Set(before.map(({ page, fault }) => `${fault} ${page}`));
  return after.filter(({ page, fault }) => !known.has(`${fault} ${page}`));
}
