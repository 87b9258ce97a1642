import { useState } from 'react';
import type { ImportKind } from '#core/imports/import-plan.ts';
import type { ImportAnswer } from '#contract/imports.ts';
import { ServerProblem, wordsOfFault } from '../../api/client.ts';
import { type ImportFrom, applyImport, previewImport } from '../../api/imports.ts';
import { FileField } from '../../fields/file-field.tsx';
import { forgetKept, useKept } from '../../fields/use-kept.ts';
import { Button } from '../../ui/button.tsx';
import { Dialog } from '../../ui/dialog.tsx';
import { Radios, TextArea } from '../../ui/field.tsx';
import { Notice } from '../../ui/notice.tsx';
import { useWorkbench } from '../workbench-context.tsx';
import { toast } from '../../ui/toast.ts';

const KIND_WORDS: Readonly<Record<ImportKind, { title: string; hint: string }>> = {
  added: { title: 'Added', hint: 'The tree has no page with that id or address.' },
  moved: { title: 'Moved', hint: 'They are somewhere else in the import.' },
  changed: { title: 'Changed', hint: 'The import says something different.' },
  settings: {
    title: 'Of the site',
    hint: 'Its name, home page, goals, menus, layouts, facts, redirects and old addresses.',
  },
  removed: { title: 'Removed', hint: 'They are not in the import. They stay unless you choose them.' },
};
const KINDS = Object.keys(KIND_WORDS) as ImportKind[];
/** So many of a kind are listed; they can be chosen all together. */
const SHOWN = 200;

/** Brings pages from a file or a text: what would change is shown first, and can be taken in part. */
export function ImportDialog({ onClose }: { readonly onClose: () => void }) {
  const { site, store } = useWorkbench();
  const [way, setWay] = useState<'file' | 'text'>('file');
  const [from, setFrom] = useState<ImportFrom | null>(null);
  const [seen, setSeen] = useState<ImportAnswer | null>(null);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [fault, setFault] = useState<{ words: string; lines: readonly string[] } | null>(null);
  const [isBusy, setBusy] = useState(false);

  const work = async (job: () => Promise<void>) => {
    setFault(null);
    setBusy(true);
    try {
      await job();
    } catch (problem) {
      const lines =
        problem instanceof ServerProblem && problem.problem.code === 'file-unreadable'
          ? (problem.problem.errors ?? [])
              .slice(1)
              .map(({ pointer, detail }) => `${pointer.replace('/line/', 'Line ')}: ${detail}`)
          : [];
      setFault({ words: wordsOfFault(problem), lines });
    } finally {
      setBusy(false);
    }
  };
  const look = (next: ImportFrom) =>
    work(async () => {
      setFrom(next);
      setSeen(null);
      await store.settled();
      const answer = await previewImport(site.key, next);
      setSeen(answer);
      setChosen(new Set(answer.items.filter(({ kind }) => kind !== 'removed').map(({ key }) => key)));
    });
  const bring = () =>
    work(async () => {
      const { applied } = await applyImport(site.key, from!, [...chosen]);
      forgetKept(`import ${site.key}`);
      toast(applied === 1 ? 'Made 1 change.' : `Made ${applied ?? 0} changes.`, {
        action: { label: 'Undo', onClick: () => void store.turn('undo').catch(() => undefined) },
      });
      onClose();
    });
  return (
    <Dialog
      title="Import pages"
      description="From a table (CSV), an outline (OPML), an indented list, a sitemap file or a whole site (JSON). You see what would change before anything does."
      isOpen
      isWide
      onClose={onClose}
      actions={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button look="main" disabled={isBusy || chosen.size === 0 || seen === null} onClick={() => void bring()}>
            {chosen.size === 1 ? 'Make 1 change' : `Make ${chosen.size} changes`}
          </Button>
        </>
      }
    >
      <div className="flex flex-col gap-4 pb-2">
        <Radios
          legend="Where from"
          choices={[
            { value: 'file', words: 'A file' },
            { value: 'text', words: 'Text' },
          ]}
          value={way}
          onChoose={setWay}
        />
        {way === 'file' ? (
          <FileField
            label="The file"
            accept=".csv,.tsv,.opml,.xml,.gz,.md,.txt,.json"
            onFile={(file) => void look(file)}
            onFault={(words) => setFault({ words, lines: [] })}
          />
        ) : (
          <PastedText onLook={look} />
        )}
        {fault && (
          <Notice>
            {fault.words}
            {fault.lines.length > 0 && (
              <ul className="mt-1">
                {fault.lines.map((line) => (
                  <li key={line}>{line}</li>
                ))}
              </ul>
            )}
          </Notice>
        )}
        {isBusy && (
          <p role="status" className="text-quiet">
            Reading …
          </p>
        )}
        {seen && !isBusy && <WhatChanges seen={seen} chosen={chosen} onChoose={setChosen} />}
      </div>
    </Dialog>
  );
}

function PastedText({ onLook }: { readonly onLook: (from: ImportFrom) => Promise<void> }) {
  const [text, setText] = useKept(`import ${useWorkbench().site.key}`);
  return (
    <form
      className="flex flex-col gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        void onLook({ name: '', text });
      }}
    >
      <TextArea label="The text" rows={7} value={text} onChange={(event) => setText(event.target.value)} />
      <div>
        <Button type="submit" disabled={text.trim() === ''}>
          See what changes
        </Button>
      </div>
    </form>
  );
}

function WhatChanges({
  seen,
  chosen,
  onChoose,
}: {
  readonly seen: ImportAnswer;
  readonly chosen: ReadonlySet<string>;
  readonly onChoose: (chosen: ReadonlySet<string>) => void;
}) {
  const set = (keys: readonly string[], isOn: boolean) => {
    const next = new Set(chosen);
    for (const key of keys)
      if (isOn) next.add(key);
      else next.delete(key);
    onChoose(next);
  };
  return (
    <div className="flex flex-col gap-3">
      <p role="status" className="font-medium">
        {seen.items.length === 0
          ? `Nothing changes: the tree already matches the ${seen.pages} imported pages.`
          : `${seen.pages} pages were read.`}
      </p>
      {seen.notes.length > 0 && (
        <details className="text-small text-attention">
          <summary className="cursor-pointer">
            {seen.notes.length === 1 ? '1 thing was left out' : `${seen.notes.length} things were left out`}
          </summary>
          <ul className="mt-1 max-h-28 overflow-y-auto">
            {seen.notes.map(({ line, detail }, at) => (
              <li key={at}>
                Line {line}: {detail}
              </li>
            ))}
          </ul>
        </details>
      )}
      {KINDS.map((kind) => {
        const items = seen.items.filter((item) => item.kind === kind);
        if (items.length === 0) return null;
        const keys = items.map(({ key }) => key);
        const on = keys.filter((key) => chosen.has(key)).length;
        return (
          <fieldset key={kind}>
            <legend className="flex items-baseline gap-2">
              <label className="flex items-center gap-2 font-semibold">
                <input
                  type="checkbox"
                  className="size-4 accent-accent"
                  checked={on === keys.length}
                  ref={(box) => {
                    if (box) box.indeterminate = on > 0 && on < keys.length;
                  }}
                  onChange={(event) => set(keys, event.target.checked)}
                />
                {KIND_WORDS[kind].title} ({items.length})
              </label>
              <span className="text-small text-quiet">{KIND_WORDS[kind].hint}</span>
            </legend>
            <ul className="mt-1 ml-6 max-h-40 overflow-y-auto">
              {items.slice(0, SHOWN).map((item) => (
                <li key={item.key}>
                  <label className="flex items-baseline gap-2 py-0.5">
                    <input
                      type="checkbox"
                      className="size-3.5 accent-accent"
                      checked={chosen.has(item.key)}
                      onChange={(event) => set([item.key], event.target.checked)}
                    />
                    <span>{item.title}</span>
                    {item.fields.length > 0 && (
                      <span className="text-small text-quiet">{item.fields.map(fieldWords).join(', ')}</span>
                    )}
                  </label>
                </li>
              ))}
            </ul>
            {items.length > SHOWN && <p className="ml-6 text-small text-quiet">And {items.length - SHOWN} more.</p>}
          </fieldset>
        );
      })}
    </div>
  );
}

/** `oldAddresses` as it is read: "old addresses". */
const fieldWords = (field: string): string => field.replace(/[A-Z]/g, (letter) => ` ${letter.toLowerCase()}`);
