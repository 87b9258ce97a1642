import { AUDIENCES } from '../lenses/access/audience-kind.tsx';
import { COMPARING } from '../lenses/access/compare-sheet.tsx';
import { ENGINE } from '../lenses/access/engine-sheet.tsx';
import { LABELS } from '../lenses/access/label-kind.tsx';
import { MOMENT } from '../lenses/access/moment-sheet.tsx';
import { COLLEAGUE_DIRECTORY } from '../lenses/access/people/colleague-directory-sheet.tsx';
import { COLLEAGUES } from '../lenses/access/people/colleagues-sheet.tsx';
import { ROLES } from '../lenses/access/people/roles-sheet.tsx';
import { SECURITY } from '../lenses/access/people/security-sheet.tsx';
import { VISITORS } from '../lenses/access/visitors/visitors-sheet.tsx';
import { FACTS } from '../lenses/menus/fact-kind.tsx';
import { LAYOUTS } from '../lenses/menus/layout-kind.tsx';
import { LOOK } from '../lenses/menus/look/look-sheet.tsx';
import { MENUS } from '../lenses/menus/menu-kind.tsx';
import { GOALS } from '../lenses/plan/goal-kind.tsx';
import { OLD_SITE } from '../lenses/plan/old-site-sheet.tsx';
import { BOARDS } from '../lenses/plan/boards/board-kind.tsx';
import { PLAN_PDF } from '../lenses/plan/paper/plan-pdf-sheet.tsx';
import { SKETCHES } from '../lenses/plan/sketches/sketch-kind.tsx';
import { SHARING } from '../lenses/plan/sharing/share-sheet.tsx';
import { APPROVAL } from '../lenses/publish/approval/approval-sheet.tsx';
import { PROPOSALS } from '../lenses/publish/approval/proposals-kind.tsx';
import { PROPOSING } from '../lenses/publish/approval/proposing-sheet.tsx';
import { OPENING } from '../lenses/publish/opening-sheet.tsx';
import { REDIRECTS } from '../lenses/publish/redirects/redirects-sheet.tsx';
import { GOING_LIVE, TAKING_DOWN } from '../lenses/publish/release/release-sheet.tsx';
import { RELEASES } from '../lenses/publish/releases/releases-sheet.tsx';
import { TEXTS } from '../lenses/publish/texts-sheet.tsx';
import { HOSTS } from '../lenses/write/hosts-sheet.tsx';
import { ANSWERS } from '../lenses/write/forms/answers-kind.tsx';
import { FORMS } from '../lenses/write/forms/form-kind.tsx';
import { SHARED_SECTIONS } from '../lenses/write/shared-kind.tsx';
import { REPLACING } from '../lenses/write/replace-sheet.tsx';
import { FILES } from '../lenses/write/files/files-sheet.tsx';
import { SINCE } from '../past/since-sheet.tsx';
import { COMMENTS } from '../talk/comments-kind.tsx';
import { FOR_YOU } from '../talk/for-you-sheet.tsx';
import { FIELDS } from '../tree/fields-sheet.tsx';
import { REMOVED } from '../tree/removed-sheet.tsx';
import type { SettingsKey } from './settings-keys.ts';
import type { SettingsKind } from './settings-kind.ts';

/** Everything that stands beside the tree, under the name that the address bar holds. */
export const SETTINGS: Readonly<Record<SettingsKey, SettingsKind>> = {
  goals: GOALS,
  sketches: SKETCHES,
  boards: BOARDS,
  'plan-pdf': PLAN_PDF,
  sharing: SHARING,
  audiences: AUDIENCES,
  labels: LABELS,
  comparing: COMPARING,
  visitors: VISITORS,
  colleagues: COLLEAGUES,
  'colleague-directory': COLLEAGUE_DIRECTORY,
  roles: ROLES,
  security: SECURITY,
  engine: ENGINE,
  menus: MENUS,
  layouts: LAYOUTS,
  look: LOOK,
  facts: FACTS,
  shared: SHARED_SECTIONS,
  forms: FORMS,
  answers: ANSWERS,
  hosts: HOSTS,
  'going-live': GOING_LIVE,
  'taking-down': TAKING_DOWN,
  releases: RELEASES,
  proposals: PROPOSALS,
  proposing: PROPOSING,
  approval: APPROVAL,
  redirects: REDIRECTS,
  opening: OPENING,
  texts: TEXTS,
  moment: MOMENT,
  removed: REMOVED,
  since: SINCE,
  'for-you': FOR_YOU,
  comments: COMMENTS,
  fields: FIELDS,
  'old-site': OLD_SITE,
  files: FILES,
  replacing: REPLACING,
};
