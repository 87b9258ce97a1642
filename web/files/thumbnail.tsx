import { AudioLines, Captions, FileText, Film, type LucideIcon } from 'lucide-react';
import type { FileKind } from '#core/files/file.ts';
import type { SiteKey } from '#core/model/ids.ts';
import { type LibraryFile, fileAddress } from '#contract/files.ts';
import { kindOf } from './file-words.ts';

const SIGNS: Readonly<Record<Exclude<FileKind, 'picture'>, LucideIcon>> = {
  document: FileText,
  film: Film,
  sound: AudioLines,
  subtitles: Captions,
};

/** A file at a glance: the picture, the first page of a document, or a sign. It says nothing: its name stands beside it. */
export function Thumbnail({
  site,
  file,
  className = 'size-12',
}: {
  readonly site: SiteKey;
  readonly file: LibraryFile;
  readonly className?: string;
}) {
  const kind = kindOf(file);
  const box = `flex shrink-0 items-center justify-center overflow-hidden rounded-md border border-rule bg-sunken ${className}`;
  if (kind !== 'picture' && !file.hasPicture) {
    const Sign = SIGNS[kind as keyof typeof SIGNS];
    return (
      <span className={box}>
        <Sign size={20} aria-hidden className="text-quiet" />
      </span>
    );
  }
  return (
    <span className={box}>
      <img
        src={fileAddress(site, file, 320)}
        alt=""
        loading="lazy"
        className="size-full object-cover"
        style={{ objectPosition: `${file.focalX * 100}% ${file.focalY * 100}%` }}
      />
    </span>
  );
}
