import { Upload, X } from 'lucide-react';
import { type DragEvent, type ReactNode, useRef, useState } from 'react';
import { FILE_TYPES, type FileId, type FileKind } from '#core/files/file.ts';
import type { SiteKey } from '#core/model/ids.ts';
import { type LibraryFile } from '#contract/files.ts';
import { type Sending, forget, sendFile, useSendings } from '../api/uploads.ts';
import { Button, type ButtonProps, IconButton } from '../ui/button.tsx';

/** The types that a file field offers first. */
const accepted = (kind: FileKind | undefined): string =>
  Object.entries(FILE_TYPES)
    .filter(([, type]) => kind === undefined || type.kind === kind)
    .flatMap(([name, { ending }]) => [name, `.${ending}`])
    .join(',');

/** A button that takes files from the computer into the library. */
export function AddFiles({
  site,
  kind,
  replaces,
  isOne = false,
  onTaken = () => undefined,
  children,
  ...rest
}: {
  readonly site: SiteKey;
  readonly kind?: FileKind;
  readonly replaces?: FileId;
  /** Whether one is wanted, not several. */
  readonly isOne?: boolean;
  readonly onTaken?: (files: readonly LibraryFile[]) => void;
  readonly children: ReactNode;
} & ButtonProps) {
  const field = useRef<HTMLInputElement>(null);
  const take = (files: FileList | null) => void sendAll(site, [...(files ?? [])], replaces).then(onTaken);
  return (
    <>
      <Button {...rest} onClick={() => field.current?.click()}>
        <Upload size={15} aria-hidden /> {children}
      </Button>
      <input
        ref={field}
        type="file"
        hidden
        multiple={!isOne}
        accept={accepted(kind)}
        aria-label="Files from this computer"
        onChange={(event) => {
          take(event.target.files);
          // The same file may be chosen again.
          event.target.value = '';
        }}
      />
    </>
  );
}

/** Sends several files; gives those that came in, in their order. */
export async function sendAll(
  site: SiteKey,
  files: readonly File[],
  replaces?: FileId,
): Promise<readonly LibraryFile[]> {
  const taken = await Promise.all(files.map((file) => sendFile(site, file, replaces)));
  return taken.filter((file) => file !== null);
}

/** A place on which files can be dropped. */
export function DropFiles({
  onFiles,
  className = '',
  children,
}: {
  readonly onFiles: (files: readonly File[]) => void;
  readonly className?: string;
  readonly children: ReactNode;
}) {
  const [isOver, setOver] = useState(false);
  const hold = (event: DragEvent) => {
    if (!event.dataTransfer.types.includes('Files')) return;
    event.preventDefault();
    setOver(true);
  };
  return (
    <div
      onDragEnter={hold}
      onDragOver={hold}
      onDragLeave={(event) => !event.currentTarget.contains(event.relatedTarget as Node | null) && setOver(false)}
      onDrop={(event) => {
        setOver(false);
        if (event.dataTransfer.files.length === 0) return;
        event.preventDefault();
        onFiles([...event.dataTransfer.files]);
      }}
      className={`${className} ${isOver ? 'rounded-md outline-2 outline-offset-2 outline-accent outline-dashed' : ''}`}
    >
      {children}
    </div>
  );
}

/** Files on their way to the library, and those that did not come in. */
export function Sendings({ site }: { readonly site: SiteKey }) {
  const sendings = useSendings(site);
  if (sendings.length === 0) return null;
  return (
    <ul aria-label="On the way" className="flex flex-col gap-1 rounded-md border border-rule bg-raised px-3 py-2">
      {sendings.map((one) => (
        <OneSending key={one.id} sending={one} />
      ))}
    </ul>
  );
}

function OneSending({ sending: { id, name, share, fault, stop } }: { readonly sending: Sending }) {
  const percent = Math.floor(share * 100);
  return (
    <li className="flex items-center gap-2">
      <span className="min-w-0 flex-1">
        <span className="block truncate text-small">{name}</span>
        {fault === null ? (
          <progress aria-label={`Sending ${name}`} max={100} value={percent} className="h-1.5 w-full accent-accent">
            {percent} %
          </progress>
        ) : (
          <span role="alert" className="block text-small text-danger">
            {fault}
          </span>
        )}
      </span>
      <IconButton
        name={fault === null ? `Stop sending ${name}` : `Put ${name} aside`}
        onClick={fault === null ? stop : () => forget(id)}
      >
        <X size={15} aria-hidden />
      </IconButton>
    </li>
  );
}
