import { Allowing, WhyNot } from '../workbench/allowing.tsx';
import { useWorkbench } from '../workbench/workbench-context.tsx';
import { SETTINGS } from './all-settings.ts';
import { OneSetting } from './one-setting.tsx';
import type { AskedKind, ListKind, SettingsKind } from './settings-kind.ts';
import type { Beside } from './settings-keys.ts';
import { SettingsList } from './settings-list.tsx';
import { SheetFrame, useBack } from './sheet-frame.tsx';
import { useGiveTarget } from './use-give-target.ts';

/** Settings of the site beside its tree: a list of them, then one with its fields. */
export function SettingsSheet({ beside }: { readonly beside: Beside }) {
  const { may, past } = useWorkbench();
  const kind = SETTINGS[beside.kind];
  const { needs, edits } = kind;
  const where = kind.isForBranches ? 'somewhere' : null;
  const isSeen = needs === undefined || may(needs, where);
  if (!isSeen)
    return (
      <SheetFrame key={beside.kind} beside={{ kind: beside.kind, id: null }}>
        {past ? <p>This is closed while you look at an earlier tree.</p> : <WhyNot permission={needs} at={null} />}
      </SheetFrame>
    );
  const sheet = <OpenSheet key={beside.kind} beside={beside} kind={kind} />;
  if (edits === undefined) return sheet;
  return (
    <Allowing permission={edits} at={where} isQuiet>
      {sheet}
    </Allowing>
  );
}

function OpenSheet({ beside, kind }: { readonly beside: Beside; readonly kind: SettingsKind }) {
  if ('List' in kind) return <AskedSheet beside={beside} kind={kind} />;
  if ('Fields' in kind) return <ListSheet beside={beside} kind={kind} />;
  return (
    <SheetFrame beside={beside}>
      <kind.Whole />
    </SheetFrame>
  );
}

function ListSheet({ beside, kind }: { readonly beside: Beside; readonly kind: ListKind }) {
  const { site } = useWorkbench();
  const items = kind.items(site);
  const back = useBack(beside);
  useGiveTarget(beside.kind);
  const item = items.find(({ id }) => id === beside.id);
  return (
    <SheetFrame beside={item ? beside : { kind: beside.kind, id: null }} items={items} isGiven={Boolean(kind.give)}>
      {item ? (
        <OneSetting key={item.id} kind={kind} item={item} onGone={back} />
      ) : (
        <SettingsList of={beside.kind} kind={kind} items={items} />
      )}
    </SheetFrame>
  );
}

function AskedSheet({ beside, kind }: { readonly beside: Beside; readonly kind: AskedKind }) {
  const items = kind.useItems();
  const back = useBack(beside);
  return (
    <SheetFrame beside={beside} items={items ?? []}>
      {beside.id === null ? (
        <kind.List />
      ) : items?.some(({ id }) => id === beside.id) ? (
        <kind.One key={beside.id} id={beside.id} onGone={back} />
      ) : (
        <p className="text-quiet">{items ? `This ${kind.one} is not here any more.` : 'Loading …'}</p>
      )}
    </SheetFrame>
  );
}
