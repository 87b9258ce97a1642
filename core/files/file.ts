import { z } from 'zod';
import { numberFormatter } from '../model/formatters.ts';

/** The id of a file of a site's library. Made when it is uploaded; the same for ever, whatever stands in for it later. */
export const fileIdSchema = z
  .string()
  .regex(/^[0-9A-Za-z]{16}$/, 'a file id is 16 letters and digits')
  .brand<'FileId'>();
export type FileId = z.infer<typeof fileIdSchema>;

/** What the bytes of a file are named by: 32 hexadecimal digits of their SHA-256. */
export const fileContentSchema = z
  .string()
  .regex(/^[0-9a-f]{32}$/)
  .brand<'FileContent'>();
export type FileContent = z.infer<typeof fileContentSchema>;

/** What a file is to those who write: it decides which sections can show it. */
export const FILE_KINDS = ['picture', 'document', 'film', 'sound', 'subtitles'] as const;
export type FileKind = (typeof FILE_KINDS)[number];

interface FileType {
  readonly kind: FileKind;
  readonly ending: string;
  /** What visitors read beside its size. */
  readonly words: string;
}

const type = (kind: FileKind, ending: string, words: string): FileType => ({ kind, ending, words });

/** The types of files that a library takes, by their media type (RFC 6838). */
export const FILE_TYPES: Readonly<Record<string, FileType>> = {
  'image/jpeg': type('picture', 'jpg', 'JPEG'),
  'image/png': type('picture', 'png', 'PNG'),
  'image/webp': type('picture', 'webp', 'WebP'),
  'image/avif': type('picture', 'avif', 'AVIF'),
  'image/gif': type('picture', 'gif', 'GIF'),
  'image/svg+xml': type('picture', 'svg', 'SVG'),
  'application/pdf': type('document', 'pdf', 'PDF'),
  'application/vnd.openxmlformats-officedocument.wordprocessingml.document': type('document', 'docx', 'DOCX'),
  'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet': type('document', 'xlsx', 'XLSX'),
  'application/vnd.openxmlformats-officedocument.presentationml.presentation': type('document', 'pptx', 'PPTX'),
  'application/vnd.oasis.opendocument.text': type('document', 'odt', 'ODT'),
  'application/vnd.oasis.opendocument.spreadsheet': type('document', 'ods', 'ODS'),
  'application/vnd.oasis.opendocument.presentation': type('document', 'odp', 'ODP'),
  'application/epub+zip': type('document', 'epub', 'EPUB'),
  'text/plain': type('document', 'txt', 'Text'),
  'text/csv': type('document', 'csv', 'CSV'),
  'video/mp4': type('film', 'mp4', 'MP4'),
  'video/webm': type('film', 'webm', 'WebM'),
  'audio/mpeg': type('sound', 'mp3', 'MP3'),
  'audio/ogg': type('sound', 'ogg', 'Ogg'),
  'audio/mp4': type('sound', 'm4a', 'M4A'),
  'audio/wav': type('sound', 'wav', 'WAV'),
  'text/vtt': type('subtitles', 'vtt', 'WebVTT'),
};

/** @throws where the library takes no such type */
export function fileTypeOf(mediaType: string): FileType {
  const found = FILE_TYPES[mediaType];
  if (!found) throw new Error(`The library has no files of the type '${mediaType}'.`);
  return found;
}

/** The largest file, in bytes. */
export const MAX_FILE_LENGTH = 1_000_000_000;
/** The most pixels of a picture: more than a camera of 100 megapixels makes. */
export const MAX_PIXELS = 110_000_000;
/** A document is told to be large beyond so many bytes: it takes a minute on a slow line of 2 Mbit/s. */
export const LARGE_DOCUMENT = 15_000_000;

/** The longest words for those who do not see a picture, in characters. */
export const MAX_ALTERNATIVE_LENGTH = 500;

/** What stands in for the sight of a picture. */
export interface Alternative {
  /** What it shows, in words; '' where nobody has said it. */
  readonly alternative: string;
  /** Whether it says nothing that the text does not: readers by ear hear nothing of it. */
  readonly isDecoration: boolean;
}

/** Whether readers by ear are told neither what a picture shows nor that it may be passed over. */
export const lacksAlternative = ({ kind }: { kind: FileKind }, { alternative, isDecoration }: Alternative): boolean =>
  kind === 'picture' && alternative === '' && !isDecoration;

const STEPS = [
  [1_000_000_000, 'GB'],
  [1_000_000, 'MB'],
  [1_000, 'kB'],
] as const;

/** A length in words, such as "1.4 MB"; with a comma where the language has one. */
export function lengthWords(bytes: number, language = 'en'): string {
  const [step, unit] = STEPS.find(([least]) => bytes >= least) ?? [1_000, 'kB'];
  const count = bytes / step;
  const digits = count < 10 && unit !== 'kB' ? 1 : 0;
  return `${numberFormatter(language, { maximumFractionDigits: digits }).format(Math.max(count, unit === 'kB' ? 1 : 0))} ${unit}`;
}
