import { ArrowDown, ArrowUp, Trash2 } from 'lucide-react';
import { useState } from 'react';
import type { GalleryPictures } from '#core/sections/gallery.ts';
import { useLibrary } from '../../api/files.ts';
import { ChooseFile } from '../../files/choose-file.tsx';
import { Thumbnail } from '../../files/thumbnail.tsx';
import { Button, IconButton } from '../../ui/button.tsx';
import { useWorkbench } from '../../workbench/workbench-context.tsx';
import { DraftField } from '../draft-field.tsx';
import { type SettingsProps, editorPart } from './editor-part.ts';

export const GALLERY_PART = editorPart('gallery', Pictures);

/** The pictures of a gallery in their order, each with its caption. */
function Pictures({ attributes: { pictures }, set }: SettingsProps<{ readonly pictures: GalleryPictures }>) {
  const { site } = useWorkbench();
  const library = useLibrary(site.key) ?? [];
  const [isAdding, setAdding] = useState(false);
  if (pictures.length === 0) return null;
  const setAt = (at: number, caption: string) => set({ pictures: pictures.with(at, { ...pictures[at]!, caption }) });
  const move = (at: number, by: -1 | 1) => {
    const moved = [...pictures];
    moved.splice(at + by, 0, ...moved.splice(at, 1));
    set({ pictures: moved });
  };
  return (
    <div className="flex w-full flex-col gap-2">
      <ol aria-label="Pictures of the gallery" className="flex flex-col gap-1.5">
        {pictures.map(({ file, caption }, at) => {
          const known = library.find((one) => one.id === file);
          const name = known?.name ?? 'a picture that is gone';
          return (
            <li key={`${file}-${at}`} className="flex items-end gap-2">
              {known && <Thumbnail site={site.key} file={known} className="size-10" />}
              <div className="min-w-0 flex-1">
                <DraftField
                  label={`Caption of ${name}`}
                  saved={caption}
                  longest={300}
                  onSave={(words) => setAt(at, words.trim())}
                />
              </div>
              <IconButton name={`Move ${name} up`} disabled={at === 0} onClick={() => move(at, -1)}>
                <ArrowUp size={15} aria-hidden />
              </IconButton>
              <IconButton name={`Move ${name} down`} disabled={at === pictures.length - 1} onClick={() => move(at, 1)}>
                <ArrowDown size={15} aria-hidden />
              </IconButton>
              <IconButton name={`Take ${name} out`} onClick={() => set({ pictures: pictures.toSpliced(at, 1) })}>
                <Trash2 size={15} aria-hidden />
              </IconButton>
            </li>
          );
        })}
      </ol>
      {isAdding ? (
        <ChooseFile
          site={site.key}
          kind="picture"
          isOne={false}
          onChosen={(files) => {
            setAdding(false);
            set({ pictures: [...pictures, ...files.map(({ id }) => ({ file: id, caption: '' }))].slice(0, 100) });
          }}
        />
      ) : (
        <div>
          <Button isTight onClick={() => setAdding(true)}>
            Add pictures…
          </Button>
        </div>
      )}
    </div>
  );
}
