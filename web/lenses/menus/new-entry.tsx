import { Plus } from 'lucide-react';
import { useState } from 'react';
import { onArranged, putInMenu } from '#core/arrange/arrange-entries.ts';
import { type MenuEntry, goesBySection } from '#core/derive/menu.ts';
import { menuTableOf } from '#core/derive/menu-table.ts';
import type { PageId } from '#core/model/ids.ts';
import { type EntryId, type EntryTarget, MAX_ENTRY_LABEL_LENGTH, type Menu, entryOf } from '#core/model/menu.ts';
import type { Operation } from '#core/operations/operation.ts';
import { type Edit, newEntryId } from '../../api/site-store.ts';
import { PageField } from '../../fields/page-field.tsx';
import { Button } from '../../ui/button.tsx';
import { Choice, TextField } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';

const KINDS = [
  { value: 'page', words: 'A page from elsewhere in the tree' },
  { value: 'url', words: 'An outside address' },
  { value: 'text', words: 'Plain text' },
  { value: 'sign-in', words: 'Sign in, for visitors who are not' },
  { value: 'sign-out', words: 'Sign out, for visitors who are' },
  { value: 'account', words: 'The account, for visitors who are signed in' },
] as const;
type Kind = (typeof KINDS)[number]['value'];

const FIRST_WORDS: Readonly<Partial<Record<Kind, string>>> = {
  'sign-in': 'Sign in',
  'sign-out': 'Sign out',
  account: 'Your account',
};

/** Adds an entry that the menu has besides the tree. */
export function NewEntry({ menu }: { readonly menu: Menu }) {
  const { site, store } = useWorkbench();
  const [isOpen, setOpen] = useState(false);
  const [kind, setKind] = useState<Kind>('page');
  const [words, setWords] = useState('');
  const [url, setUrl] = useState('https://');
  const [page, setPage] = useState<PageId | ''>('');
  const [under, setUnder] = useState<EntryId | ''>('');
  const { language } = site.settings;
  if (!isOpen)
    return (
      <div>
        <Button look="quiet" isTight onClick={() => setOpen(true)}>
          <Plus size={15} aria-hidden /> Add an entry
        </Button>
      </div>
    );
  const add = () => {
    const target: EntryTarget =
      kind === 'page'
        ? { page: page as PageId }
        : kind === 'url'
          ? { url: url.trim() }
          : kind === 'text'
            ? null
            : { does: kind };
    const label = words.trim() === '' ? {} : { [language]: words };
    const operations: Operation[] =
      kind === 'page' && menu.isByHand && under === ''
        ? putInMenu(site, menu, page as PageId)
        : onArranged(site, menu, [
            {
              name: 'entry.add',
              menu: menu.id,
              entry: kind === 'page' ? entryOf(page as PageId) : newEntryId(),
              target,
              label,
              under: under === '' ? null : under,
            },
          ]);
    if (store.apply(operations as Edit[]) !== null) return;
    setOpen(false);
    setWords('');
    setPage('');
    setUnder('');
  };
  const isReady = kind === 'page' ? page !== '' : words.trim() !== '' && (kind !== 'url' || url.length > 8);
  return (
    <form
      aria-label="A new entry"
      className="flex flex-col gap-3 rounded-md border border-rule px-3 py-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (isReady) add();
      }}
    >
      <Choice
        label="The entry is"
        value={kind}
        onChange={(event) => {
          const next = event.target.value as Kind;
          setKind(next);
          setWords(FIRST_WORDS[next] ?? '');
        }}
      >
        {KINDS.map((one) => (
          <option key={one.value} value={one.value}>
            {one.words}
          </option>
        ))}
      </Choice>
      {kind === 'page' ? (
        <PageField label="Page" value={page} onChoose={(next) => setPage(next as PageId)} />
      ) : (
        <TextField
          label="What it says"
          value={words}
          maxLength={MAX_ENTRY_LABEL_LENGTH}
          onChange={(event) => setWords(event.target.value)}
        />
      )}
      {kind === 'url' && (
        <TextField
          label="Outside address"
          value={url}
          maxLength={2000}
          hint="Starts with https://, mailto: or tel:"
          onChange={(event) => setUrl(event.target.value)}
        />
      )}
      {!goesBySection(menu) && (
        <Choice label="Place" value={under} onChange={(event) => setUnder(event.target.value as EntryId | '')}>
          <option value="">At the top level</option>
          {flat(menuTableOf(site, menu).entries(null)).map(({ entry, depth }) => (
            <option key={entry.id} value={entry.id}>
              {'\u2003'.repeat(depth)}Below ‘{entry.text}’
            </option>
          ))}
        </Choice>
      )}
      <div className="flex gap-2">
        <Button type="submit" look="main" disabled={!isReady}>
          Add the entry
        </Button>
        <Button look="quiet" onClick={() => setOpen(false)}>
          Cancel
        </Button>
      </div>
    </form>
  );
}

/** The entries of a menu as they are read, with how deep they stand. */
const flat = (entries: readonly MenuEntry[], depth = 0): { readonly entry: MenuEntry; readonly depth: number }[] =>
  entries.flatMap((entry) => [{ entry, depth }, ...flat(entry.entries, depth + 1)]);
