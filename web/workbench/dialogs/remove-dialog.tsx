import { useEffect, useMemo } from 'react';
import { topmost } from '#core/arrange/arrange.ts';
import { whatChanges } from '#core/changes/what-changes.ts';
import { derivedOf } from '#core/derive/derived.ts';
import type { PageId } from '#core/model/ids.ts';
import { branchOf, nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import { applyOperations } from '#core/operations/apply.ts';
import type { AnswersAnswer } from '#contract/answers.ts';
import { useAnswers, usePagesOfForms } from '../../api/answers.ts';
import { useTextLinks } from '../../api/links.ts';
import { andBelow, menuName, pages, withBelow } from '../../tree/words.ts';
import { Button } from '../../ui/button.tsx';
import { Dialog } from '../../ui/dialog.tsx';
import { useWorkbench } from '../workbench-context.tsx';
import { usePreview } from '../use-preview.ts';
import { toast } from '../../ui/toast.ts';

/** So many of the addresses that go are named. */
const MAX_ADDRESSES = 4;

/** Removes the selected branches, after saying what goes with them. */
export function RemoveDialog({ onClose }: { readonly onClose: () => void }) {
  const { site, shown, derived, store, chosen, select, run } = useWorkbench();
  const setPreview = usePreview();
  const tops = useMemo(() => topmost(site, chosen), [site, chosen]);
  const operations = useMemo(() => tops.map((page) => ({ name: 'page.remove' as const, page })), [tops]);
  const outcome = useMemo(() => applyOperations(site, operations), [site, operations]);
  const changes = useMemo(() => (outcome.ok ? whatChanges(site, outcome.site) : null), [site, outcome]);
  useEffect(() => {
    setPreview(operations);
  }, [operations, setPreview]);
  const all = tops.flatMap((id) => branchOf(site, id));
  const gone = new Set(all);
  const below = all.length - tops.length;
  const addressesGone = all.flatMap((id) => {
    const address = derived.addresses[derived.outline.rowOf.get(id)!];
    return address == null ? [] : [address];
  });
  const live = all.filter((id) => site.live.get(id)?.retired === false).length;
  const aliases = derived.outline.nodes.filter(
    (node) => node.target && 'page' in node.target && gone.has(node.target.page) && !gone.has(node.id),
  );
  const linking = (useTextLinks(site.key, shown.revision)?.draft ?? []).filter(
    ({ page, to }) => gone.has(to) && !gone.has(page),
  );
  const linkingTitles = [...new Set(linking.map(({ page }) => page))].flatMap((page) => {
    const node = site.nodes.get(page);
    return node ? [textIn(node.title, site.settings.language)] : [];
  });
  const answered = useAnsweredOn(gone);
  const title = textIn(nodeAt(site, tops[0]!).title, site.settings.language);
  const submit = () => {
    const next = neighbour(
      all,
      derived.outline.nodes.map((node) => node.id),
    );
    if (store.apply(operations) !== null) return;
    select({ active: next, chosen: new Set(next === null ? [] : [next]), anchor: next });
    toast(`Removed ${pages(all.length)}. They are kept under ‘Removed pages’.`, {
      action: { label: 'Undo', onClick: () => run('undo') },
    });
    onClose();
  };
  const entriesGone = new Map<string, string[]>();
  for (const change of changes?.menus ?? []) {
    const menu = site.settings.menus.find(({ id }) => id === change.menu);
    if (!menu || change.after !== null) continue;
    const name = menuName(menu);
    entriesGone.set(name, [...(entriesGone.get(name) ?? []), change.before!.text]);
  }
  return (
    <Dialog
      title={tops.length === 1 ? `Remove ‘${title}’${andBelow(below)}` : `Remove ${withBelow(tops.length, below)}`}
      isOpen
      onClose={onClose}
      onEnter={submit}
      actions={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button look="danger" onClick={submit}>
            Remove {pages(all.length)}
          </Button>
        </>
      }
    >
      <ul className="list-disc pl-5">
        <li>
          {below === 0
            ? 'There is nothing below it.'
            : `${pages(below)} below ${below === 1 ? 'is' : 'are'} removed too.`}
        </li>
        {addressesGone.length > 0 && (
          <li>
            {addressesGone.length === 1 ? '1 address disappears: ' : `${addressesGone.length} addresses disappear: `}
            <span className="font-mono text-small">{addressesGone.slice(0, MAX_ADDRESSES).join(', ')}</span>
            {addressesGone.length > MAX_ADDRESSES && ` and ${addressesGone.length - MAX_ADDRESSES} more`}.
            {live > 0 && ' After the release, live addresses redirect to the page above unless you choose otherwise.'}
          </li>
        )}
        {[...entriesGone].map(([menu, names]) => (
          <li key={menu}>
            {names.length === 1 ? '1 entry leaves' : `${names.length} entries leave`} the {menu}: {namesWords(names)}.
          </li>
        ))}
        {live > 0 && (
          <li>
            Visitors still have {live === all.length ? (live === 1 ? 'it' : 'them') : `${live} of them`} until the next
            release of all that waits.
          </li>
        )}
        {aliases.map((node) => (
          <li key={node.id}>The link ‘{textIn(node.title, site.settings.language)}’ will lead nowhere.</li>
        ))}
        {linkingTitles.length > 0 && (
          <li>
            {linkingTitles.length === 1 ? 'The text of' : 'The texts of'} {namesWords(linkingTitles)}{' '}
            {linkingTitles.length === 1 ? 'links' : 'link'} there; the words stay but lose the link.
          </li>
        )}
        {answered.map(({ form, name, count }) => (
          <li key={form}>
            {count === 1 ? 'The answer' : `The ${count} answers`} to the form ‘{name}’ {count === 1 ? 'is' : 'are'}{' '}
            kept.
          </li>
        ))}
        {changes && derivedOf(site).home !== null && gone.has(derivedOf(site).home!) && (
          <li>The home page is among them; the first page left becomes home.</li>
        )}
      </ul>
      <p className="mt-3 text-quiet">Removed pages are kept and can be put back where they were.</p>
    </Dialog>
  );
}

/** The forms on some pages that were answered. */
function useAnsweredOn(among: ReadonlySet<PageId>): AnswersAnswer['totals'] {
  const { site, shown, maySeeAnswers } = useWorkbench();
  const isAsking = maySeeAnswers && site.settings.forms.length > 0;
  const totals = useAnswers(isAsking ? site.key : null)?.totals ?? [];
  const on = usePagesOfForms(
    site.key,
    totals.map(({ form }) => form),
    shown.revision,
  );
  return totals.filter(({ form }) => on?.get(form)?.some((page) => among.has(page)));
}

/** The row to go to when these are gone: the one before them, or else the first that is left. */
function neighbour(gone: readonly PageId[], order: readonly PageId[]): PageId | null {
  const leaves = new Set(gone);
  const first = order.findIndex((id) => leaves.has(id));
  return order.slice(0, first).findLast((id) => !leaves.has(id)) ?? order.find((id) => !leaves.has(id)) ?? null;
}

const MAX_NAMES = 6;
const namesWords = (names: readonly string[]): string =>
  `${names
    .slice(0, MAX_NAMES)
    .map((name) => `‘${name}’`)
    .join(', ')}${names.length > MAX_NAMES ? ` and ${names.length - MAX_NAMES} more` : ''}`;
