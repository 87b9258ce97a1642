import { createContext, useContext } from 'react';
import type { TreeComparison } from '#core/changes/compare-trees.ts';
import type { Derived } from '#core/derive/derived.ts';
import type { SettingsFinding } from '#core/checks/settings-links.ts';
import type { PlannedInTexts, SketchTotals } from '#core/derive/sketch-totals.ts';
import type { FeedbackTotals } from '#core/derive/feedback-totals.ts';
import type { TalkTotals } from '#core/derive/talk-totals.ts';
import type { Filter } from '#core/derive/filters.ts';
import type { Found } from '#core/derive/visible-rows.ts';
import type { Verdict } from '#core/model/feedback.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Permission } from '#core/model/permission.ts';
import type { Powers, PowersTable } from '#core/people/powers.ts';
import type { Place } from '#core/model/place.ts';
import type { Site } from '#core/model/site.ts';
import type { FeedbackAnswer } from '#contract/sharing.ts';
import type { Edit, Shown, SiteStore } from '../api/site-store.ts';
import type { Pasted } from '../clipboard/use-clipboard.ts';
import type { CommandName } from './keys.ts';
import type { ScheduledPages } from '../tree/scheduled-pages.ts';
import type { Beside } from '../settings/settings-keys.ts';
import type { OpenSetting } from '../settings/use-touched.ts';
import type { LensDefinition } from '../lenses/lens-definition.ts';
import type { Lens, View } from './lenses.ts';
import type { Approvals } from './approvals.ts';
import type { Findings } from './use-findings.ts';

/** Rows of the tree that are marked, with what that is about and why each is. */
export interface Marks {
  readonly name: string;
  readonly words: ReadonlyMap<PageId, string>;
  /** Whether a mark stands back, since it says nothing of note. */
  readonly isFaint?: (page: PageId) => boolean;
  /** Where rows are picked: those that are, those that can be, and what picks one or leaves it out. */
  readonly ticks?: {
    readonly on: ReadonlySet<PageId>;
    readonly of: ReadonlySet<PageId>;
    readonly pick: (page: PageId) => void;
  };
}

/** What is being typed in the tree: a new title of a row, or the title of a new page. */
export type Editing =
  | { readonly kind: 'rename'; readonly page: PageId }
  | { readonly kind: 'add'; readonly parent: Place['parent']; readonly after: PageId | null };

export type DialogName = 'move' | 'remove' | 'keys' | 'commands' | 'renameSite' | 'paste' | 'import' | 'starters';

export interface Selection {
  /** The row that the keys act on. */
  readonly active: PageId | null;
  /** All selected nodes; the active one is among them unless it was taken out. */
  readonly chosen: ReadonlySet<PageId>;
  /** Where a range begins. */
  readonly anchor: PageId | null;
}

/** The tree as it was at a revision, seen from now. */
export interface Past {
  readonly revision: number;
  readonly site: Site;
  readonly comparison: TreeComparison;
}

/** What was said of the plan, and what that comes to. */
export interface Said {
  readonly said: FeedbackAnswer;
  readonly totals: FeedbackTotals;
}

/** What somebody does who sees the plan by a link. */
export interface GuestWork {
  /** Their own verdicts, and how many comments there are, row by row. */
  readonly verdicts: readonly (Verdict | null)[];
  readonly comments: Int32Array;
  /** Gives the verdict on pages; null takes it back. */
  readonly give: (pages: readonly PageId[], verdict: Verdict | null) => void;
}

export interface Workbench {
  readonly store: SiteStore;
  readonly shown: Shown;
  /** The site that is looked at: as it is now, or as it was while the past is looked at. */
  readonly site: Site;
  readonly derived: Derived;
  /** What may be done: by whoever is signed in, or by the colleague as whom the workbench is seen. */
  readonly powers: Powers;
  /** What is held at each row of the tree. */
  readonly held: PowersTable;
  /** Whether somebody may do something at a page, on the whole site (`null`), or anywhere. Where the past is looked at nothing can be changed. */
  readonly may: (permission: Permission, at: PageId | null | 'somewhere') => boolean;
  /** Whether what is at hand can be changed: anything of the tree at all, what a lens is about at the selected page, a setting. See `Allowing`. */
  readonly mayEdit: boolean;
  /** Whether anything can be made live. */
  readonly mayPublish: boolean;
  /** Whether what visitors sent by forms can be seen. */
  readonly maySeeAnswers: boolean;
  readonly liveOrigin: string;
  readonly lens: Lens;
  readonly setLens: (lens: Lens) => void;
  /** What the lens brings: columns, filters, its bar and side sheet, and so on. */
  readonly lensParts: LensDefinition;
  /** Null until it is known. */
  readonly feedback: Said | null;
  /** Which pages need approval, and how they stand; null until it is known, and where there is none. */
  readonly approvals: Approvals | null;
  /** Who else has which page selected: their names, a line each. */
  readonly here: ReadonlyMap<PageId, string>;
  /** How many comments wait at each row, of colleagues and of guests; null until it is known. */
  readonly talk: TalkTotals | null;
  /** The boxes of sketches that have a place in the texts, and where something is said. */
  readonly planned: PlannedInTexts;
  /** How far the sections of sketches are; null where the site has no sketches. */
  readonly sketched: SketchTotals | null;
  /** What was found about the links of each page, and what the pages lack. */
  readonly findings: Findings;
  /** What was found about the links of menus and redirects, whose outside addresses alone are looked at. */
  readonly settingsFindings: readonly SettingsFinding[];
  /** Who changed each page last, and when; null where no column asks for it, and until it is known. */
  readonly changes: ReadonlyMap<PageId, { readonly by: string; readonly at: string }> | null;
  /** Null at the workbench; what a guest does where the plan is seen by a link. */
  readonly guest: GuestWork | null;
  /** What waits to go live at its moment. */
  readonly scheduled: ScheduledPages;
  readonly view: View;
  readonly setView: (view: View) => void;
  readonly selection: Selection;
  readonly select: (selection: Selection) => void;
  readonly open: ReadonlySet<PageId>;
  readonly setOpen: (page: PageId, isOpen: boolean) => void;
  /** Opens the first levels of the tree, and closes all below. */
  readonly openTo: (levels: number) => void;
  readonly query: string;
  readonly setQuery: (query: string) => void;
  readonly filter: Filter;
  readonly setFilter: (filter: Filter) => void;
  /** The rows that the words and the filter leave, or null where nothing is asked. */
  readonly found: Found | null;
  /** Whether what the filter needs is still on its way. */
  readonly isFinding: boolean;
  /** Whether what is found shows without what stands above it. */
  readonly isFlat: boolean;
  readonly setFlat: (isFlat: boolean) => void;
  /** Shows the whole tree again. */
  readonly clearFind: () => void;
  /** What stands beside the tree in place of the selected page. */
  readonly beside: Beside | null;
  readonly setBeside: (beside: Beside | null) => void;
  /** The one setting that is open there, with what it touches. */
  readonly openSetting: OpenSetting | null;
  /** The rows that are marked, each with the words for why: what a setting touches, or what has changed since; null for none. */
  readonly marks: Marks | null;
  /** Marks rows for what stands beside the tree: `useMarkRows` takes them away with it. */
  readonly setSheetMarks: (marks: Marks | null) => void;
  readonly isOnlyMarked: boolean;
  readonly setOnlyMarked: (isOnly: boolean) => void;
  /** The moment that access is looked at, in milliseconds since 1970; null for now. */
  readonly moment: number | null;
  readonly setMoment: (moment: number | null) => void;
  readonly editing: Editing | null;
  readonly setEditing: (editing: Editing | null) => void;
  /** Changes that are being considered: the trail strip shows what they would do. */
  readonly preview: readonly Edit[] | null;
  /** Says who considers them: `usePreview` for a component, a name of its own where rows share what they do. */
  readonly setPreview: (by: string, operations: readonly Edit[] | null) => void;
  readonly dialog: DialogName | null;
  readonly setDialog: (dialog: DialogName | null) => void;
  /** What the paste dialog is about. */
  readonly pasted: Pasted | null;
  readonly paste: (pasted: Pasted) => void;
  /** The pages of this site that were cut and not pasted yet. */
  readonly cut: ReadonlySet<PageId>;
  readonly forgetClip: () => void;
  /** Whether the history stands in the side sheet. */
  readonly isHistoryOpen: boolean;
  readonly setHistoryOpen: (isOpen: boolean) => void;
  /** Whether the side sheet stands in place of the tree, where there is no room for both. */
  readonly isSideOver: boolean;
  readonly setSideOver: (isOver: boolean) => void;
  readonly past: Past | null;
  /** Looks at the tree as it was at a revision; null for now. */
  readonly lookAt: (revision: number | null) => void;
  /** The selected nodes that stand in the tree, in tree order. */
  readonly chosen: readonly PageId[];
  readonly run: (command: CommandName) => void;
  /** Puts the keyboard back into the tree. */
  readonly focusTree: () => void;
  /** The workbench as it is when the function is called: the same function always. */
  readonly latest: () => Workbench;
}

const Context = createContext<Workbench | null>(null);
export const WorkbenchProvider = Context.Provider;

/** @throws where a component stands outside of the workbench. */
export function useWorkbench(): Workbench {
  const workbench = useContext(Context);
  if (!workbench) throw new Error('useWorkbench is for components inside the workbench.');
  return workbench;
}
