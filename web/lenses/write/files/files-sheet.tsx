import { Images } from 'lucide-react';
import { useMemo, useState } from 'react';
import { boardsWith } from '#core/board/board-looks.ts';
import { logosOf } from '#core/model/look.ts';
import type { FileKind } from '#core/files/file.ts';
import type { LibraryFile } from '#contract/files.ts';
import { useLibrary } from '../../../api/files.ts';
import { AddFiles, DropFiles, Sendings, sendAll } from '../../../files/add-files.tsx';
import { factsOf, kindOf, waitsFor } from '../../../files/file-words.ts';
import { Thumbnail } from '../../../files/thumbnail.tsx';
import { ListOfSettings, ListedItem } from '../../../settings/listed-item.tsx';
import type { AskedKind, Named } from '../../../settings/settings-kind.ts';
import { pages } from '../../../tree/words.ts';
import { Choice, TextField } from '../../../ui/field.tsx';
import { useWorkbench } from '../../../workbench/workbench-context.tsx';
import { OneFile } from './one-file.tsx';

/** The files of the site: what pages show besides words. */
export const FILES: AskedKind = {
  edits: 'write',
  isForBranches: true,
  title: 'Files',
  one: 'file',
  Sign: Images,
  description:
    'Pictures, documents, films and sound for the pages of this site. Visitors can open a file if they can open a live page that shows it.',
  useItems: useFiles,
  List: Files,
  One: OneFile,
};

const KINDS = {
  all: { words: 'All files', kinds: null },
  pictures: { words: 'Pictures', kinds: ['picture'] },
  documents: { words: 'Documents', kinds: ['document'] },
  films: { words: 'Films, sound and subtitles', kinds: ['film', 'sound', 'subtitles'] },
} as const satisfies Record<string, { words: string; kinds: readonly FileKind[] | null }>;
const STATES = { all: 'Used or not', waiting: 'Waiting for somebody', unused: 'Shown on no page' } as const;

/** So many stand in the list until somebody looks for one. */
const SHOWN = 200;

function useFiles(): readonly (LibraryFile & Named)[] | undefined {
  const { site } = useWorkbench();
  return useLibrary(site.key);
}

function Files() {
  const { site, mayEdit } = useWorkbench();
  const files = useFiles();
  const [asked, setAsked] = useState('');
  const [kind, setKind] = useState<keyof typeof KINDS>('all');
  const [state, setState] = useState<keyof typeof STATES>('all');
  const { look } = site.settings;
  const logos = useMemo(() => logosOf(look), [look]);
  const found = useMemo(() => {
    const wanted = asked.trim().toLowerCase();
    const kinds: readonly FileKind[] | null = KINDS[kind].kinds;
    return (files ?? []).filter(
      (file) =>
        `${file.name} ${file.alternative}`.toLowerCase().includes(wanted) &&
        (kinds === null || kinds.includes(kindOf(file))) &&
        (state === 'all' ||
          (state === 'waiting'
            ? waitsFor(file) !== undefined
            : file.usedBy.length + file.liveOn.length === 0 &&
              !logos.includes(file.id) &&
              boardsWith(site, file.id).length === 0)),
    );
  }, [files, asked, kind, state, logos, site]);
  const placesOf = (file: LibraryFile): string => {
    if (logos.includes(file.id)) return 'the logo of the site';
    const boards = boardsWith(site, file.id).map(({ name }) => `the board ‘${name}’`);
    const places = [...(file.usedBy.length > 0 ? [pages(file.usedBy.length)] : []), ...boards];
    return places.length === 0 ? 'shown on no page' : `on ${places.join(', ')}`;
  };
  return (
    <DropFiles onFiles={(dropped) => void (mayEdit && sendAll(site.key, dropped))} className="flex flex-col gap-3">
      {mayEdit && (
        <div className="flex flex-wrap items-center gap-x-3 gap-y-1">
          <AddFiles site={site.key} look="main">
            Add files…
          </AddFiles>
          <span className="text-small text-quiet">or drop them here: many at once, up to 1 GB each</span>
        </div>
      )}
      <Sendings site={site.key} />
      <div className="grid grid-cols-2 gap-2 @2xl:grid-cols-3">
        <div className="col-span-2 @2xl:col-span-1">
          <TextField label="Find by name" value={asked} onChange={(event) => setAsked(event.target.value)} />
        </div>
        <Choice label="Kind" value={kind} onChange={(event) => setKind(event.target.value as keyof typeof KINDS)}>
          {Object.entries(KINDS).map(([key, { words }]) => (
            <option key={key} value={key}>
              {words}
            </option>
          ))}
        </Choice>
        <Choice label="State" value={state} onChange={(event) => setState(event.target.value as keyof typeof STATES)}>
          {Object.entries(STATES).map(([key, words]) => (
            <option key={key} value={key}>
              {words}
            </option>
          ))}
        </Choice>
      </div>
      {files === undefined ? (
        <p className="text-quiet">Loading …</p>
      ) : found.length === 0 ? (
        <p className="text-quiet">
          {files.length === 0 ? 'There are no files yet.' : 'No file is called that, or is of that kind.'}
        </p>
      ) : (
        <ListOfSettings label="Files">
          {found.slice(0, SHOWN).map((file) => (
            <ListedItem
              key={file.id}
              to={{ kind: 'files', id: file.id }}
              sign={<Thumbnail site={site.key} file={file} />}
              name={file.name}
              waits={file.state === 'waiting' ? 'Its sizes are being made' : waitsFor(file)}
              says={`${factsOf(file)} · ${placesOf(file)}`}
            />
          ))}
        </ListOfSettings>
      )}
      {found.length > SHOWN && (
        <p className="text-small text-quiet">
          The newest {SHOWN} of {found.length}. Type a part of a name to find others.
        </p>
      )}
    </DropFiles>
  );
}
