import type { FileId } from '#core/files/file.ts';
import { useLibrary } from '../../api/files.ts';
import { kindOf } from '../../files/file-words.ts';
import { Choice } from '../../ui/field.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { DraftField } from '../draft-field.tsx';
import { type SettingsProps, editorPart } from './editor-part.ts';
import { AnotherFile } from './file-ways.tsx';

export const DOWNLOAD_PART = editorPart('download', WhatItSays);
export const FILM_PART = editorPart('film', Subtitles);
export const SOUND_PART = editorPart('sound', OfSound);

function useKnown(file: string | null) {
  const { site } = useWorkbench();
  const library = useLibrary(site.key) ?? [];
  return { library, known: library.find((one) => one.id === file) };
}

function WhatItSays({
  attributes: { file, words },
  set,
}: SettingsProps<{ readonly file: string | null; readonly words: string }>) {
  const { known } = useKnown(file);
  if (!known) return null;
  return (
    <div className="grid w-full gap-2">
      <DraftField
        label="Words of the link"
        saved={words}
        longest={200}
        placeholder={known.name}
        hint="Its type, size and pages are added by themselves."
        onSave={(next) => set({ words: next.trim() })}
      />
      <AnotherFile file={known} onNone={() => set({ file: null })} />
    </div>
  );
}

function Subtitles({
  attributes: { file, subtitles },
  set,
}: SettingsProps<{ readonly file: string | null; readonly subtitles: string | null }>) {
  const { library, known } = useKnown(file);
  if (!known) return null;
  const tracks = library.filter((one) => kindOf(one) === 'subtitles');
  return (
    <div className="grid w-full gap-2">
      <Choice
        label="Subtitles"
        hint="Add them to the library as a WebVTT file (.vtt)."
        value={subtitles ?? ''}
        onChange={(event) => set({ subtitles: event.target.value === '' ? null : (event.target.value as FileId) })}
      >
        <option value="">None</option>
        {tracks.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </Choice>
      <AnotherFile file={known} onNone={() => set({ file: null })} />
    </div>
  );
}

function OfSound({ attributes: { file }, set }: SettingsProps<{ readonly file: string | null }>) {
  const { known } = useKnown(file);
  return known ? <AnotherFile file={known} onNone={() => set({ file: null })} /> : null;
}
