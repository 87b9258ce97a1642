import type { PageId } from '#core/model/ids.ts';
import { useCallback, useEffect, useInsertionEffect, useMemo, useRef } from 'react';
import { derivedOf } from '#core/derive/derived.ts';
import { NOTHING_PLANNED } from '#core/derive/sketch-totals.ts';
import { filterRows, isAsking } from '#core/derive/filters.ts';
import type { Verdict } from '#core/model/feedback.ts';
import { NO_POWERS, powersTable } from '#core/people/powers.ts';
import type { Site } from '#core/model/site.ts';
import type { SharedPlanAnswer } from '#contract/sharing.ts';
import { SiteStore } from '../api/site-store.ts';
import { NOTHING_SCHEDULED } from '../tree/scheduled-pages.ts';
import { GUEST_LENS } from '../lenses/plan/guest-lens.tsx';
import { useSelection } from '../workbench/use-selection.ts';
import { useViewParameters } from '../workbench/view-parameters.ts';
import { TREE_VIEW } from '../workbench/lenses.ts';
import type { GuestWork, Workbench } from '../workbench/workbench-context.tsx';

const nothing = (): void => undefined;

/** The workbench as a guest has it: the tree to look through, and nothing that changes it. */
const NOBODY_HERE: ReadonlyMap<PageId, string> = new Map();

export function useSharedWorkbench(site: Site, plan: SharedPlanAnswer, give: GuestWork['give']): Workbench {
  const derived = derivedOf(site);
  const store = useMemo(() => SiteStore.still(site, plan.revision), [site, plan.revision]);
  const { page: asked, rememberPage, ...parameters } = useViewParameters();
  const selected = useSelection(
    site,
    derived,
    asked,
    useCallback(() => site, [site]),
  );
  const { active } = selected.selection;
  useEffect(() => {
    if (active !== null) rememberPage(active);
  }, [active, rememberPage]);
  const { query } = parameters;
  const found = useMemo(
    () =>
      isAsking({ query, filter: {} })
        ? filterRows({ site, derived, changes: null, texts: null, feedback: null, faults: null, moment: null }, [], {
            query,
            filter: {},
          })
        : null,
    [site, derived, query],
  );
  const counted = useMemo(() => countOfGuest(derived.outline.rowOf, plan), [derived, plan]);
  const focusTree = useCallback(
    () => document.querySelector<HTMLElement>(TREE_VIEW)?.focus({ preventScroll: true }),
    [],
  );
  const drawn = useRef<Workbench | null>(null);
  const workbench: Workbench = {
    store,
    shown: store.getShown(),
    site,
    derived,
    powers: NO_POWERS,
    held: powersTable(derived.outline, NO_POWERS, null),
    may: () => false,
    mayEdit: false,
    mayPublish: false,
    maySeeAnswers: false,
    liveOrigin: '',
    ...parameters,
    ...selected,
    lens: 'plan',
    lensParts: GUEST_LENS,
    feedback: null,
    talk: null,
    approvals: null,
    here: NOBODY_HERE,
    planned: NOTHING_PLANNED,
    sketched: null,
    findings: NOTHING_FOUND,
    settingsFindings: [],
    changes: null,
    guest: { ...counted, give },
    view: parameters.view === 'map' ? 'map' : 'sheet',
    filter: NO_FILTER,
    found,
    isFinding: false,
    editing: null,
    setEditing: nothing,
    openSetting: null,
    marks: null,
    setSheetMarks: nothing,
    preview: null,
    setPreview: nothing,
    dialog: null,
    setDialog: nothing,
    pasted: null,
    paste: nothing,
    cut: NOTHING_CUT,
    forgetClip: nothing,
    scheduled: NOTHING_SCHEDULED,
    isSideOver: false,
    setSideOver: nothing,
    isHistoryOpen: false,
    setHistoryOpen: nothing,
    past: null,
    lookAt: nothing,
    run: nothing,
    focusTree,
    latest: useCallback(() => drawn.current!, []),
  };
  useInsertionEffect(() => {
    drawn.current = workbench;
  });
  return workbench;
}

const NO_FILTER = {};
const NOTHING_CUT: Workbench['cut'] = new Set();
const NOTHING_FOUND: Workbench['findings'] = { ofLinks: null, ofPages: null };

/** The guest's own verdicts and everybody's comments, row by row. */
function countOfGuest(
  rowOf: Workbench['derived']['outline']['rowOf'],
  { guest, feedback }: SharedPlanAnswer,
): Pick<GuestWork, 'verdicts' | 'comments'> {
  const verdicts = new Array<Verdict | null>(rowOf.size).fill(null);
  const comments = new Int32Array(rowOf.size);
  for (const one of feedback.verdicts) {
    const row = rowOf.get(one.page);
    if (row !== undefined && one.guest === guest?.id) verdicts[row] = one.verdict;
  }
  for (const { page } of feedback.comments) {
    const row = page === null ? undefined : rowOf.get(page);
    if (row !== undefined) comments[row]!++;
  }
  return { verdicts, comments };
}
