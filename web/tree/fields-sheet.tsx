import { SlidersHorizontal } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import { whatChanges } from '#core/changes/what-changes.ts';
import { kindChanges } from '#core/model/kind-outline.ts';
import type { Hidden } from '#core/model/page-fields.ts';
import type { PlanChange } from '#core/model/plan.ts';
import { isKind } from '#core/model/page-label.ts';
import { nodeAt } from '#core/model/site.ts';
import { applyOperations } from '#core/operations/apply.ts';
import type { PageChanges } from '#core/model/page-fields.ts';
import { type Edit, refusalWords } from '../api/site-store.ts';
import { NO_KIND, addresses, pages } from './words.ts';
import { KindOptions, kindChosen } from '../fields/kind-choice.tsx';
import type { WholeKind } from '../settings/settings-kind.ts';
import { SheetFoot } from '../settings/sheet-foot.tsx';
import { useCloseSheet } from '../settings/use-close-sheet.ts';
import { useMarkRows } from '../settings/use-mark-rows.ts';
import { Button } from '../ui/button.tsx';
import { Choice, TextArea, Tick } from '../ui/field.tsx';
import { Notice } from '../ui/notice.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { usePreview } from '../workbench/use-preview.ts';
import { toast } from '../ui/toast.ts';

/** A choice that leaves the field of each page as it is. */
const LEFT = 'left';
const LEFT_WORDS = 'Leave as it is';

/** Sets the same fields of all selected pages; what is not chosen stays as each page has it. */
export const FIELDS: WholeKind = {
  title: 'Set fields',
  Sign: SlidersHorizontal,
  description: 'Of all selected pages at once. Fields you leave alone stay as they are on each page.',
  needs: 'write',
  isForBranches: true,
  Whole: SetFields,
};

function SetFields() {
  const onClose = useCloseSheet();
  const { site, store, chosen, lensParts, run } = useWorkbench();
  const { SetFields: OfLens } = lensParts;
  const setPreview = usePreview();
  const [inMenus, setInMenus] = useState(LEFT);
  const [hidden, setHidden] = useState(LEFT);
  const [type, setType] = useState(LEFT);
  const [label, setLabel] = useState(LEFT);
  const [slug, setSlug] = useState(LEFT);
  const [kind, setKind] = useState(LEFT);
  const [withDescription, setWithDescription] = useState(false);
  const [description, setDescription] = useState('');
  const [plan, setPlan] = useState<PlanChange>({});
  const { language } = site.settings;
  const operations = useMemo(() => {
    const fields: PageChanges = {
      ...(inMenus !== LEFT && { inMenus: inMenus === 'yes' }),
      ...(hidden !== LEFT && { hidden: hidden as Hidden }),
      ...(type !== LEFT && { type: type as 'page' | 'heading' }),
      ...(label !== LEFT && { label: { [language]: '' } }),
      ...(withDescription && { description: { [language]: description } }),
      ...(Object.keys(plan).length > 0 && { plan }),
    };
    const ofSlug: PageChanges = slug === LEFT ? {} : { slug: { [language]: { text: '', own: false } } };
    return chosen.flatMap((page): Edit[] => {
      const node = nodeAt(site, page);
      const all: PageChanges = {
        ...fields,
        ...(node.type !== 'link' && ofSlug),
        ...(node.type === 'page' && kind !== LEFT && kindChanges(node, kindChosen(kind), site.settings.labels)),
      };
      return Object.keys(all).length === 0 ? [] : [{ name: 'page.set', page, fields: all }];
    });
  }, [site, chosen, language, inMenus, hidden, type, label, slug, kind, withDescription, description, plan]);
  const outcome = useMemo(() => (operations.length > 0 ? applyOperations(site, operations) : null), [site, operations]);
  useEffect(() => {
    setPreview(outcome?.ok ? operations : null);
  }, [outcome, operations, setPreview]);
  const changed = outcome?.ok ? whatChanges(site, outcome.site).addresses.length : 0;
  useMarkRows(
    useMemo(() => ({ name: 'Set fields', words: new Map(chosen.map((page) => [page, 'is set'])) }), [chosen]),
  );
  const submit = () => {
    if (!outcome?.ok || store.apply(operations) !== null) return;
    toast(`Set fields of ${pages(chosen.length)}.`, { action: { label: 'Undo', onClick: () => run('undo') } });
    onClose();
  };
  return (
    <>
      <div className="grid gap-3 pb-6 @md:grid-cols-2">
        {OfLens && (
          <>
            <OfLens change={plan} onChange={setPlan} />
            <hr className="border-rule @md:col-span-2" />
          </>
        )}
        <Choice label="In menus" value={inMenus} onChange={(event) => setInMenus(event.target.value)}>
          <option value={LEFT}>{LEFT_WORDS}</option>
          <option value="yes">In menus</option>
          <option value="no">Off menus</option>
        </Choice>
        <Choice label="Hidden" value={hidden} onChange={(event) => setHidden(event.target.value)}>
          <option value={LEFT}>{LEFT_WORDS}</option>
          <option value="no">Not hidden</option>
          <option value="page">The page</option>
          <option value="branch">The page and all below</option>
        </Choice>
        <Choice label="Type" value={type} onChange={(event) => setType(event.target.value)}>
          <option value={LEFT}>{LEFT_WORDS}</option>
          <option value="page">Page</option>
          <option value="heading">Heading</option>
        </Choice>
        <Choice label="Menu label" value={label} onChange={(event) => setLabel(event.target.value)}>
          <option value={LEFT}>{LEFT_WORDS}</option>
          <option value="title">Use the title</option>
        </Choice>
        <Choice label="Slug" value={slug} onChange={(event) => setSlug(event.target.value)}>
          <option value={LEFT}>{LEFT_WORDS}</option>
          <option value="title">Follow the title</option>
        </Choice>
        {site.settings.labels.some(isKind) && (
          <Choice label="Kind" value={kind} onChange={(event) => setKind(event.target.value)}>
            <option value={LEFT}>{LEFT_WORDS}</option>
            <option value="">{NO_KIND}</option>
            <KindOptions labels={site.settings.labels} />
          </Choice>
        )}
        <div className="@md:col-span-2">
          <Tick
            label="Give all the same description"
            checked={withDescription}
            onChange={(event) => setWithDescription(event.target.checked)}
          />
          {withDescription && (
            <TextArea
              label="Description"
              rows={3}
              maxLength={2000}
              value={description}
              onChange={(event) => setDescription(event.target.value)}
            />
          )}
        </div>
        <div role="status" className="min-h-6 @md:col-span-2">
          {outcome && !outcome.ok && <Notice>{refusalWords(outcome, site)}</Notice>}
          {outcome?.ok && <p>{changed === 0 ? 'No address changes.' : `${addresses(changed)}.`}</p>}
        </div>
      </div>
      <SheetFoot>
        <Button onClick={onClose}>Cancel</Button>
        <Button look="main" disabled={!outcome?.ok} onClick={submit}>
          Set {pages(chosen.length)}
        </Button>
      </SheetFoot>
    </>
  );
}
