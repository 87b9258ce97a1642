import { useState } from 'react';
import type { FileKind } from '#core/files/file.ts';
import type { SiteKey } from '#core/model/ids.ts';
import { KIND_WORDS, type LibraryFile } from '#contract/files.ts';
import { useLibrary } from '../api/files.ts';
import { BOX } from '../ui/field.tsx';
import { AddFiles, DropFiles, Sendings, sendAll } from './add-files.tsx';
import { kindOf } from './file-words.ts';
import { Thumbnail } from './thumbnail.tsx';

/** So many are shown before somebody types a part of a name. */
const SHOWN = 12;

/** Chooses files of one kind: from the computer, by dropping them here, or from the library, where the newest stand first. */
export function ChooseFile({
  site,
  kind,
  isOne = true,
  onChosen,
}: {
  readonly site: SiteKey;
  readonly kind: FileKind;
  /** Whether one is wanted, not several. */
  readonly isOne?: boolean;
  readonly onChosen: (files: readonly LibraryFile[]) => void;
}) {
  const [asked, setAsked] = useState('');
  const library = useLibrary(site);
  const ofKind = library?.filter((file) => kindOf(file) === kind) ?? [];
  const wanted = asked.trim().toLowerCase();
  const found = ofKind.filter(({ name, alternative }) => `${name} ${alternative}`.toLowerCase().includes(wanted));
  const { one, many } = KIND_WORDS[kind];
  const take = (files: readonly LibraryFile[]) => {
    const fitting = files.filter((file) => kindOf(file) === kind);
    if (fitting.length > 0) onChosen(isOne ? fitting.slice(0, 1) : fitting);
  };
  return (
    <DropFiles
      onFiles={(files) => void sendAll(site, files).then(take)}
      className="flex flex-col gap-2 rounded-md border border-dashed border-edge bg-paper p-3"
    >
      <div className="flex flex-wrap items-center gap-2">
        <AddFiles site={site} kind={kind} isOne={isOne} look="main" onTaken={take} data-first-choice>
          From this computer…
        </AddFiles>
        {ofKind.length > SHOWN / 2 && (
          <input
            aria-label={`Find among the ${many.toLowerCase()}`}
            placeholder="Find by name"
            value={asked}
            onChange={(event) => setAsked(event.target.value)}
            className={`${BOX} w-44 flex-1`}
          />
        )}
      </div>
      <Sendings site={site} />
      {found.length > 0 ? (
        <ul aria-label={many} className="grid list-none! grid-cols-[repeat(auto-fill,minmax(5.5rem,1fr))] gap-2 pl-0!">
          {found.slice(0, SHOWN).map((file) => (
            <li key={file.id}>
              <button
                type="button"
                onClick={() => take([file])}
                className="flex w-full flex-col gap-1 rounded-md p-1 text-left hover:bg-accent-soft"
              >
                <Thumbnail site={site} file={file} className="aspect-4/3 w-full" />
                <span className="line-clamp-2 text-small wrap-anywhere">{file.name}</span>
              </button>
            </li>
          ))}
        </ul>
      ) : (
        <p className="text-small text-quiet">
          {ofKind.length === 0
            ? `The library has no ${many.toLowerCase()} yet. You can drop ${one === 'Subtitles' ? 'them' : 'some'} here.`
            : 'Nothing is called that.'}
        </p>
      )}
    </DropFiles>
  );
}
