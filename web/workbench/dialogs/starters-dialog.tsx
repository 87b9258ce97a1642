import { useMemo, useState } from 'react';
import { placeOn } from '#core/arrange/landing.ts';
import { flatShells, lookOfStarter, pagesOfStarter } from '#core/starters/starter.ts';
import { type Starter, starterSchema } from '#core/starters/starter-file.ts';
import { nodeAt } from '#core/model/site.ts';
import { textIn } from '#core/model/texts.ts';
import type { StarterAnswer } from '#contract/starters.ts';
import { wordsOfFault } from '../../api/client.ts';
import {
  type Edit,
  newAudienceId,
  newFieldId,
  newBoxId,
  newFormId,
  newLabelId,
  newLayoutId,
  newPageId,
  newSketchId,
  newVariantId,
} from '../../api/site-store.ts';
import { bringStarter, deleteStarter, saveStarter, useStarters } from '../../api/starters.ts';
import { listOf, pages } from '../../tree/words.ts';
import { Button } from '../../ui/button.tsx';
import { Dialog } from '../../ui/dialog.tsx';
import { Choice, Radios, TextField } from '../../ui/field.tsx';
import { Notice } from '../../ui/notice.tsx';
import { useWorkbench } from '../workbench-context.tsx';
import { toast } from '../../ui/toast.ts';

/** Begins a site or a branch from a set of page shells, chosen and renamed on the way; and saves one. */
export function StartersDialog({ onClose }: { readonly onClose: () => void }) {
  const starters = useStarters();
  const [id, setId] = useState('school');
  const [way, setWay] = useState<'begin' | 'save'>('begin');
  const chosen = starters?.find((one) => one.id === id) ?? starters?.[0];
  if (way === 'save') return <SaveStarter onClose={onClose} onBack={() => setWay('begin')} />;
  if (!starters || !chosen)
    return (
      <Dialog title="Begin from a starter" isOpen onClose={onClose}>
        <p className="pb-4 text-quiet">Fetching the starters …</p>
      </Dialog>
    );
  return (
    <BeginFrom
      key={chosen.id}
      starters={starters}
      chosen={chosen}
      onChoose={setId}
      onSave={() => setWay('save')}
      onClose={onClose}
    />
  );
}

function BeginFrom({
  starters,
  chosen,
  onChoose,
  onSave,
  onClose,
}: {
  readonly starters: readonly StarterAnswer[];
  readonly chosen: StarterAnswer;
  readonly onChoose: (id: string) => void;
  readonly onSave: () => void;
  readonly onClose: () => void;
}) {
  const { site, store, selection, run, setOpen } = useWorkbench();
  const { starter } = chosen;
  const flat = useMemo(() => flatShells(starter), [starter]);
  const [taken, setTaken] = useState<ReadonlySet<number>>(() => new Set(flat.map((_, at) => at)));
  const [titles, setTitles] = useState<ReadonlyMap<number, string>>(new Map());
  const { language } = site.settings;
  const { active } = selection;
  const mayHold = active !== null && active !== site.practice && nodeAt(site, active).type !== 'link';
  const [where, setWhere] = useState<'inside' | 'end'>(mayHold ? 'inside' : 'end');
  const { parent, after } = placeOn(site, where === 'inside' && mayHold ? active : null, 'inside');
  const made = useMemo(
    () =>
      pagesOfStarter(starter, taken, titles, { parent, after }, language, newPageId, {
        settings: site.settings,
        newAudience: newAudienceId,
        newLabel: newLabelId,
        newLayout: newLayoutId,
        newField: newFieldId,
        newForm: newFormId,
        sketches: site.sketches,
        newSketch: newSketchId,
        newVariant: newVariantId,
        newBox: newBoxId,
      }),
    [starter, taken, titles, parent, after, site, language],
  );
  const toggle = (at: number, isOn: boolean) => {
    const next = new Set(taken);
    // Below a page that is left nothing is taken; a page that is taken has all above it.
    for (let one = at; one < flat[at]!.end; one++)
      if (isOn) next.add(one);
      else next.delete(one);
    if (isOn) for (let above = flat[at]!.parent; above !== -1; above = flat[above]!.parent) next.add(above);
    setTaken(next);
  };
  const count = made.operations.filter(({ name }) => name === 'page.add').length;
  const addedBy = (name: 'audience.add' | 'label.add' | 'layout.add') =>
    made.operations.flatMap((one) => (one.name === name ? [`‘${one.title}’`] : []));
  const audiences = addedBy('audience.add');
  const along = [
    ...addedBy('layout.add').map((name) => `the layout ${name}`),
    ...addedBy('label.add').map((name) => `the kind ${name}`),
  ];
  const begin = () => {
    if (store.apply([...lookOfStarter(starter, site), ...made.operations] as Edit[], made.contents) !== null) return;
    if (parent !== null) setOpen(parent, true);
    toast(`Added ${pages(count)}.`, { action: { label: 'Undo', onClick: () => run('undo') } });
    onClose();
  };
  return (
    <Dialog
      title="Begin from a starter"
      description={starter.description}
      isOpen
      isWide
      onClose={onClose}
      actions={
        <>
          <Button look="quiet" className="mr-auto" onClick={onSave}>
            Save as a starter…
          </Button>
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" disabled={count === 0} onClick={begin}>
            Add {pages(count)}
          </Button>
        </>
      }
    >
      <div className="flex flex-col gap-4 pb-2">
        <div className="flex flex-wrap items-end gap-2">
          <div className="min-w-48 flex-1">
            <Choice label="Starter" value={chosen.id} onChange={(event) => onChoose(event.target.value)}>
              {starters.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.starter.name} ({flatShells(one.starter).length})
                </option>
              ))}
            </Choice>
          </div>
          <StarterFile chosen={chosen} onBrought={onChoose} />
        </div>
        {audiences.length > 0 && (
          <p className="rounded-md bg-attention-soft px-3 py-2">
            Some of its pages are kept for {listOf(audiences)}, which this site does not have yet:{' '}
            {audiences.length === 1 ? 'it is' : 'they are'} added, without anybody in{' '}
            {audiences.length === 1 ? 'it' : 'them'}.
          </p>
        )}
        {along.length > 0 && (
          <p className="text-small text-quiet">It adds {listOf(along)} which this site does not have yet.</p>
        )}
        {mayHold && (
          <Radios
            legend="Where to"
            choices={[
              { value: 'inside', words: `Inside ‘${textIn(nodeAt(site, active).title, language)}’` },
              { value: 'end', words: 'At the end of the top level' },
            ]}
            value={where}
            onChoose={setWhere}
          />
        )}
        <fieldset className="min-w-0">
          <legend className="mb-1 text-small font-medium">Which pages; change a title to rename it</legend>
          <ul className="rounded-md border border-rule">
            {flat.map(({ shell, depth }, at) => {
              const isOn = taken.has(at);
              return (
                <li
                  key={at}
                  className="flex h-8 items-center gap-2 border-b border-rule/60 pr-2 last:border-0"
                  style={{ paddingLeft: 8 + depth * 20 }}
                >
                  <input
                    type="checkbox"
                    aria-label={`Take ${shell.title}`}
                    className="size-4 accent-accent"
                    checked={isOn}
                    onChange={(event) => toggle(at, event.target.checked)}
                  />
                  <input
                    aria-label={`Title of ${shell.title}`}
                    disabled={!isOn}
                    value={titles.get(at) ?? shell.title}
                    maxLength={300}
                    onChange={(event) => setTitles(new Map(titles).set(at, event.target.value))}
                    className="h-7 min-w-0 flex-1 rounded border border-transparent bg-transparent px-1 hover:border-edge disabled:opacity-45"
                  />
                  <span className="max-w-1/2 truncate text-small text-quiet">
                    {[
                      shell.type === 'heading' && 'heading',
                      shell.inMenus === false && 'off menus',
                      shell.sections && `${shell.sections.length} sections`,
                      shell.kind && `kind ‘${shell.kind}’`,
                      shell.layout && `layout ‘${shell.layout}’`,
                    ]
                      .filter(Boolean)
                      .join(', ')}
                  </span>
                </li>
              );
            })}
          </ul>
        </fieldset>
      </div>
    </Dialog>
  );
}

/** Brings a starter from its file, takes one along, deletes one that was saved. */
function StarterFile({
  chosen,
  onBrought,
}: {
  readonly chosen: StarterAnswer;
  readonly onBrought: (id: string) => void;
}) {
  const { mayEdit } = useWorkbench();
  const [fault, setFault] = useState<string | null>(null);
  const bring = async (file: File | undefined) => {
    if (!file) return;
    setFault(null);
    try {
      const parsed = starterSchema.safeParse(JSON.parse(await file.text()));
      if (!parsed.success) {
        const [issue] = parsed.error.issues;
        setFault(`‘${file.name}’ is not a starter: ${issue!.path.join('.') || 'the file'}: ${issue!.message}`);
        return;
      }
      onBrought((await bringStarter(parsed.data)).id);
    } catch (problem) {
      setFault(problem instanceof SyntaxError ? `‘${file.name}’ is not a JSON file.` : wordsOfFault(problem));
    }
  };
  const take = () => {
    const link = document.createElement('a');
    link.href = URL.createObjectURL(
      new Blob([`${JSON.stringify(chosen.starter, null, 1)}\n`], { type: 'application/json' }),
    );
    link.download = `${chosen.starter.name.toLowerCase().replace(/\W+/g, '-')}.starter.json`;
    link.click();
    URL.revokeObjectURL(link.href);
  };
  return (
    <>
      <Button onClick={take}>Export</Button>
      {mayEdit && (
        <label className="inline-flex h-8 cursor-pointer items-center rounded-md border border-edge bg-raised px-3 font-medium focus-within:outline-2 focus-within:outline-accent hover:border-ink">
          Import a file…
          <input
            type="file"
            accept=".json"
            className="sr-only"
            onChange={(event) => void bring(event.target.files?.[0])}
          />
        </label>
      )}
      {mayEdit && !chosen.isShipped && (
        <Button
          onClick={() => void deleteStarter(chosen.id).catch((problem: unknown) => setFault(wordsOfFault(problem)))}
        >
          Delete it
        </Button>
      )}
      {fault && (
        <div className="w-full">
          <Notice>{fault}</Notice>
        </div>
      )}
    </>
  );
}

function SaveStarter({ onClose, onBack }: { readonly onClose: () => void; readonly onBack: () => void }) {
  const { site, store, selection } = useWorkbench();
  const { active } = selection;
  const title = active === null ? '' : textIn(nodeAt(site, active).title, site.settings.language);
  const [what, setWhat] = useState<'branch' | 'site'>(active === null ? 'site' : 'branch');
  const [name, setName] = useState(active === null ? site.settings.name : title);
  const [description, setDescription] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const save = async () => {
    try {
      await store.settled();
      const made: { starter: Starter } = await saveStarter(site.key, {
        page: what === 'branch' ? active : null,
        name,
        description,
      });
      toast(`Saved the starter ‘${made.starter.name}’.`);
      onBack();
    } catch (problem) {
      setFault(wordsOfFault(problem));
    }
  };
  return (
    <Dialog
      title="Save as a starter"
      description="Titles, slugs that were chosen, what is in menus, purposes, kinds, layouts, who may open what, and the outline of each text. Texts themselves, and links, are left."
      isOpen
      onClose={onClose}
      actions={
        <>
          <Button onClick={onBack}>Back</Button>
          <Button look="main" disabled={name.trim() === ''} onClick={() => void save()}>
            Save the starter
          </Button>
        </>
      }
    >
      <div className="flex flex-col gap-3 pb-2">
        {active !== null && (
          <Radios
            legend="What"
            choices={[
              { value: 'branch', words: `‘${title}’ and all below` },
              { value: 'site', words: 'The whole tree' },
            ]}
            value={what}
            onChoose={setWhat}
          />
        )}
        <TextField label="Name" value={name} maxLength={100} onChange={(event) => setName(event.target.value)} />
        <TextField
          label="What it is for"
          value={description}
          maxLength={500}
          onChange={(event) => setDescription(event.target.value)}
        />
        {fault && <Notice>{fault}</Notice>}
      </div>
    </Dialog>
  );
}
