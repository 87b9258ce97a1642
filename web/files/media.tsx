import { type LibraryFile, fileAddress } from '#contract/files.ts';
import { kindOf } from './file-words.ts';

/** A film or a sound to play. Its subtitles belong to the text that shows it. */
export function Media({ site, file }: { readonly site: string; readonly file: LibraryFile }) {
  const address = fileAddress(site, file);
  return kindOf(file) === 'film' ? (
    // eslint-disable-next-line jsx-a11y/media-has-caption
    <video controls preload="metadata" aria-label={file.name} src={address} className="w-full rounded-md" />
  ) : (
    // eslint-disable-next-line jsx-a11y/media-has-caption
    <audio controls preload="metadata" aria-label={file.name} src={address} className="w-full" />
  );
}
