import type { ComponentType } from 'react';
import type { SettingsFinding } from '#core/checks/settings-links.ts';
import type { Derived } from '#core/derive/derived.ts';
import type { FilterField } from '#core/derive/filters.ts';
import type { MapNote } from '#core/drawing/map-nodes.ts';
import type { PageId } from '#core/model/ids.ts';
import type { Permission } from '#core/model/permission.ts';
import type { PlanChange } from '#core/model/plan.ts';
import type { Site } from '#core/model/site.ts';
import type { Column } from '../tree/columns.tsx';
import type { View } from '../workbench/lenses.ts';
import type { Findings } from '../workbench/use-findings.ts';
import type { Workbench } from '../workbench/workbench-context.tsx';
import type { BarAction } from '../workbench/bar-action.ts';

/** How much waits under a lens, and what, in words. */
export interface Waiting {
  readonly count: number;
  readonly words: string;
}

/** What the counts are made of. */
export interface WaitingFacts {
  readonly site: Site;
  readonly derived: Derived;
  /** How much of what was said of the plan is to be settled. */
  readonly toSettle: number;
  /** About pages and their links, as far as they are known. */
  readonly findings: Findings;
  /** About links of menus and redirects. */
  readonly settingsFindings: readonly SettingsFinding[];
}

/** What notes at the map's nodes are made of. */
export type Noted = Pick<Workbench, 'site' | 'derived' | 'moment' | 'feedback' | 'guest'>;

/** The columns after the title, as they are at first. */
export interface ColumnSet {
  /** Under which the person's own order and widths are kept. */
  readonly key: string;
  /** The same list while the site's settings are the same, so that an edit does not draw every row anew. */
  readonly of: (site: Site) => readonly Column[];
}

/** All that makes a lens: the workbench goes through these and knows no lens by name. */
export interface LensDefinition {
  readonly name: string;
  /** What it takes to change what the lens is about at a page. */
  readonly edits: Permission;
  readonly columns: ColumnSet;
  readonly filters: readonly FilterField[];
  /** What it says of the whole site; on the lens's bar above the tree. */
  readonly Says?: ComponentType;
  /** What can be done for the whole site. */
  readonly useActions?: () => readonly BarAction[];
  /** What else stands above the tree, below the bar. */
  readonly Below?: ComponentType;
  /** The side sheet; no page where none is selected. */
  readonly Panel: ComponentType<{ readonly page: PageId | null }>;
  readonly waiting: (facts: WaitingFacts) => Waiting;
  /** What it says of each node of the map, below its title. */
  readonly notesOf?: (noted: Noted) => (row: number) => MapNote | null;
  /** What it shows in place of the tree, where that is asked for. */
  readonly views?: readonly View[];
  /** What is fetched while it is looked through: what was found about pages, or who changed them last. */
  readonly asksFor?: 'findings' | 'changes';
  /** What can be done with the selected pages besides. */
  readonly useSelectionActions?: () => readonly BarAction[];
  /** What can be set for the selected pages besides. */
  readonly SetFields?: ComponentType<{
    readonly change: PlanChange;
    readonly onChange: (change: PlanChange) => void;
  }>;
  /** What is said of a page that is dragged. */
  readonly dragNote?: string;
}
