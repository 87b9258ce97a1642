import { useEffect, useMemo, useState } from 'react';
import { type Carried, carryTo, copyTo } from '#core/arrange/grow.ts';
import { moveToPlace, placeOn } from '#core/arrange/landing.ts';
import type { Side } from '#core/model/place.ts';
import { branchOf, maybeNodeAt } from '#core/model/site.ts';
import type { Site } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { applyOperations } from '#core/operations/apply.ts';
import { wordsOfFault } from '../api/client.ts';
import { type Edit, newPageId, refusalWords } from '../api/site-store.ts';
import { fetchSite } from '../api/sites.ts';
import { addresses, pages } from '../tree/words.ts';
import { Button } from '../ui/button.tsx';
import { Dialog } from '../ui/dialog.tsx';
import { Tick } from '../ui/field.tsx';
import { Notice } from '../ui/notice.tsx';
import { whatChanges } from '#core/changes/what-changes.ts';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { usePreview } from '../workbench/use-preview.ts';
import { type Clip, keepClip } from './clip.ts';
import { keepCarried } from './carried-cuts.ts';
import { carryPages } from './carry-pages.ts';
import { PlaceChoice } from '../fields/place-choice.tsx';
import { toast } from '../ui/toast.ts';

/** Pastes pages that were copied or cut, in this site or in another one; says what cannot come along. */
export function PastePagesDialog({ clip, onClose }: { readonly clip: Clip; readonly onClose: () => void }) {
  const { site, store, selection, select, setOpen, forgetClip, run } = useWorkbench();
  const setPreview = usePreview();
  const isHere = clip.site === site.key;
  const { source, fault } = useSource(clip, site);
  const [beside, setBeside] = useState(selection.active);
  const [side, setSide] = useState<Side>('after');
  const [withBelow, setWithBelow] = useState(true);
  const [isWorking, setWorking] = useState(false);
  const isMove = clip.kind === 'cut' && isHere;
  const { parent, after } = placeOn(site, beside, side, isMove ? clip.pages : []);

  const there = useMemo(() => clip.pages.filter((id) => source && maybeNodeAt(source, id)), [clip.pages, source]);
  const plan = useMemo(() => {
    if (!source || there.length === 0) return null;
    const place = { parent, after };
    if (isMove) return { operations: moveToPlace(site, there, place) as Edit[], contents: [], left: [] };
    if (isHere)
      return { operations: copyTo(site, there, place, withBelow, newPageId) as Edit[], contents: [], left: [] };
    return carryTo(source, there, site.settings.language, place, withBelow || clip.kind === 'cut', newPageId);
  }, [source, there, parent, after, isMove, isHere, site, withBelow, clip.kind]);
  const outcome = useMemo(
    () => (plan && plan.operations.length > 0 ? applyOperations(site, plan.operations) : null),
    [site, plan],
  );
  useEffect(() => {
    setPreview(plan && outcome?.ok ? (plan.operations as Edit[]) : null);
  }, [plan, outcome, setPreview]);

  const all = source ? there.flatMap((id) => (withBelow || isMove ? branchOf(source, id) : [id])).length : 0;
  const count = all - (plan?.left.filter((one) => one.why === 'link-target-stays').length ?? 0);
  const verb = clip.kind === 'cut' ? 'Move' : 'Copy';
  const changes = outcome?.ok ? whatChanges(site, outcome.site) : null;

  const submit = async () => {
    if (!plan || !outcome?.ok) return;
    setWorking(true);
    try {
      if (isHere) {
        if (store.apply(plan.operations as Edit[]) !== null) return;
      } else {
        const carried = await carryPages(store, clip, plan as Carried, there);
        if (carried.is === 'refused') return;
        if (carried.is === 'in both')
          toast.error(`They are here now, and still in ‘${clip.siteName}’ too. ${carried.why} Remove them there.`);
        else if (clip.kind === 'cut')
          keepCarried({
            from: clip.site,
            fromName: clip.siteName,
            to: site.key,
            pages: [...there],
            landed: plan.operations.flatMap((one) => (one.name === 'page.add' ? [one.page] : [])),
          });
      }
    } catch (reason) {
      return void toast.error(wordsOfFault(reason));
    } finally {
      setWorking(false);
    }
    if (clip.kind === 'cut') {
      keepClip(null);
      forgetClip();
    }
    if (parent !== null) setOpen(parent, true);
    const landed = isMove
      ? there
      : plan.operations.flatMap((one) =>
          one.name === 'page.copy'
            ? [one.ids[one.page]!]
            : one.name === 'page.add' && one.place.parent === parent
              ? [one.page]
              : [],
        );
    select({ active: landed[0] ?? null, chosen: new Set(landed), anchor: landed[0] ?? null });
    toast(`${clip.kind === 'cut' ? 'Moved' : 'Copied'} ${pages(count)}.`, {
      action: { label: 'Undo', onClick: () => run('undo') },
    });
    onClose();
  };
  return (
    <Dialog
      title={`${verb} ${pages(count)} here`}
      description={isHere ? undefined : `They come from ‘${clip.siteName}’.`}
      isOpen
      startsAtHeading
      onEnter={() => void (isWorking || submit())}
      onClose={onClose}
      actions={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" disabled={!outcome?.ok || isWorking} onClick={() => void submit()}>
            {verb} {pages(count)}
          </Button>
        </>
      }
    >
      <div className="flex flex-col gap-3">
        {fault !== null && <Notice>{fault}</Notice>}
        {source && there.length === 0 && (
          <Notice>The pages are not in ‘{clip.siteName}’ any more. Copy them again.</Notice>
        )}
        <PlaceChoice page={beside} side={side} onPage={setBeside} onSide={setSide} />
        {clip.kind === 'copy' && (
          <Tick
            label="With everything below"
            checked={withBelow}
            onChange={(event) => setWithBelow(event.target.checked)}
          />
        )}
        {plan && plan.left.length > 0 && source && (
          <section aria-label="What is left behind" className="rounded-md bg-attention-soft px-3 py-2 text-small">
            <h3 className="font-medium text-attention">What is left behind</h3>
            <ul className="list-disc pl-4">
              {plan.left.map(({ page, why }) => (
                <li key={`${page} ${why}`}>
                  ‘{textIn(source.nodes.get(page)!.title, source.settings.language)}’:{' '}
                  {why === 'home-stays'
                    ? 'it is the home page there, and becomes an ordinary page.'
                    : why === 'access-stays'
                      ? 'its access rule stays behind, since audiences belong to their site. Here it follows the page above.'
                      : `it is a link to a page that stays behind, so it is left out${clip.kind === 'cut' ? ', and is kept under ‘Removed pages’ there' : ''}.`}
                </li>
              ))}
            </ul>
          </section>
        )}
        <div role="status">
          {outcome && !outcome.ok && <Notice>{refusalWords(outcome, site)}</Notice>}
          {plan?.operations.length === 0 && isMove && (
            <p className="text-quiet">They are already there, or the place is inside what you are moving.</p>
          )}
          {changes && isMove && (
            <p>{changes.addresses.length === 0 ? 'No address changes.' : `${addresses(changes.addresses.length)}.`}</p>
          )}
          {changes && !isMove && (
            <p className="text-quiet">
              The copies are drafts with the same text. If an address is taken, the copy’s ends in -2.
            </p>
          )}
        </div>
      </div>
    </Dialog>
  );
}

/** The site that the pages come from: this one, or another that is fetched. */
function useSource(clip: Clip, here: Site): { source: Site | null; fault: string | null } {
  const [other, setOther] = useState<Site | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const isHere = clip.site === here.key;
  useEffect(() => {
    if (isHere) return;
    let isGone = false;
    fetchSite(clip.site).then(
      (site) => !isGone && setOther(site),
      (reason: unknown) => !isGone && setFault(wordsOfFault(reason)),
    );
    return () => {
      isGone = true;
    };
  }, [clip.site, isHere]);
  return { source: isHere ? here : other, fault };
}
